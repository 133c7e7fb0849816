import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { recordFaults } from '../document/validate-record';
import { recordJsonSchema } from '../document/json-schema';
import type { Recipe } from '../model/recipe';
import type { WallPin } from '../model/pin';
import { RECIPES, RECIPE_KINDS, newRecipe, recipeInputs, recipeSpec } from '.';
import { parameterList, type Parameter } from './parameters';

const fresh = (kind: Recipe['kind'], isFirst = false): Recipe =>
  newRecipe(kind, { id: 'r', name: 'Cave', seed: 'brine', isFirst });
const number = (value: number): string => value.toLocaleString('en');
/** What a parameter may be and what it begins as, as the guide tells it. */
function told(parameter: Parameter): readonly [string, string] {
  switch (parameter.as) {
    case 'number': {
      const { least, most, unit, usual, shownTimes = 1 } = parameter;
      const shown = (value: number): string => number(Number((value * shownTimes).toPrecision(12)));
      return [`${shown(least)} to ${shown(most)} ${unit}`.trim(), shown(usual)];
    }
    case 'flag':
      return ['yes or no', parameter.first ? 'yes for the first of a level' : parameter.usual ? 'yes' : 'no'];
    case 'name':
      return ['a name', parameter.usual];
    case 'seed':
      return [`a number or a word of ${parameter.mostLetters} letters at most`, 'drawn'];
    case 'corner':
      return ['a place, m', parameter.usual.join(', ')];
  }
}

describe.each(RECIPE_KINDS)('the recipe %s', (kind) => {
  const spec = RECIPES[kind];
  const parameters = parameterList(spec.parameters);

  it('begins sound, as the first of a level and as another', () => {
    for (const isFirst of [true, false]) expect(recordFaults('recipe', fresh(kind, isFirst))).toEqual([]);
    expect(fresh(kind, true)).not.toEqual(fresh(kind, false));
  });

  it('takes the numbers that its form offers, and no others', () => {
    for (const [field, parameter] of parameters) {
      if (parameter.as !== 'number') continue;
      const { least, most, isWhole } = parameter;
      const with_ = (value: unknown): string[] => [
        ...new Set(recordFaults('recipe', { ...fresh(kind), [field]: value }).map(({ path }) => path)),
      ];
      for (const value of [least, most]) expect([field, value, with_(value)]).toEqual([field, value, []]);
      for (const value of [least - 1e-3, most + 1e-3, NaN, Infinity, '3', null])
        expect([field, value, with_(value)]).toEqual([field, value, [field]]);
      if (isWhole) expect(with_(least + 0.5)).toEqual([field]);
    }
    expect(recordFaults('recipe', { ...fresh(kind), haunts: true })).toHaveLength(1);
    expect(recordFaults('recipe', { ...fresh(kind), kind: 'ghost' })).toHaveLength(1);
  });

  it('stands in the published schema with every parameter', () => {
    const schema = recordJsonSchema('recipe') as { required: string[] };
    expect(schema.required.sort()).toEqual(['id', 'kind', 'name', ...parameters.map(([field]) => field)].sort());
  });

  it('is listed in the guide, parameter by parameter', () => {
    const guide = readFileSync(join(__dirname, '../../../../docs/guide/sections.md'), 'utf8');
    for (const [, parameter] of parameters) {
      const [may, begins] = told(parameter);
      expect(guide).toContain(`| ${parameter.words} | ${may} | ${begins} | ${parameter.means} |`);
    }
  });

  it('makes what it says, within its bounds, cheaper than it claims in things', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 8 }),
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 5, max: 60 }),
        (seed, columns, rows) => {
          const recipe = { ...fresh(kind, true), seed, columns, rows };
          const inputs = recipeInputs(recipe, []);
          const section = recipeSpec(recipe).make(inputs, createRunContext());
          const { min, max } = recipeSpec(recipe).bounds(recipe);
          for (const { position } of [...section.blocks, ...section.markers])
            for (const k of [0, 2]) {
              expect(position[k]).toBeGreaterThanOrEqual(min[k]);
              expect(position[k]).toBeLessThanOrEqual(max[k]);
            }
          expect(section.blocks.length).toBeLessThanOrEqual(recipeSpec(recipe).cost(inputs).things);
          expect([spec.makes.includes('block'), spec.makes.includes('marker')]).toEqual([
            section.blocks.length > 0,
            section.markers.length > 0,
          ]);
          expect([...section.blocks].sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual(section.blocks);
          expect(section.blocks.some(({ sight }) => sight === 'hides')).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('what a recipe reads', () => {
  it('is its own pins alone, in order of id', () => {
    const pin = (id: string, recipe = 'r'): WallPin => ({
      id,
      recipe,
      column: 0,
      row: 0,
      columns: 1,
      rows: 1,
      hidden: true,
      offset: [0, 0, 0],
    });
    const { pins } = recipeInputs(fresh('burrow'), [pin('b'), pin('x', 'other'), pin('a')]);
    expect(pins.map(({ id }) => id)).toEqual(['a', 'b']);
  });
});
