import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import {
  CoreError,
  columnsOf,
  createRunContext,
  recipeSpec,
  type Operation,
  type Placement,
  type Recipe,
  type Section,
  type RecipeInputs,
} from '@stravel/core';
import { DocumentRegistry } from '../document-registry';
import { StratumDocument } from '../stratum-document';
import { KeptSections } from './kept-sections';
import { LevelSections, documentOfSection, isMade } from './level-sections';
import { OpenLevel } from './open-level';

const recipe: Recipe = {
  id: 'r',
  name: 'Burrow',
  kind: 'burrow',
  position: [0, 0, 0],
  columns: 12,
  rows: 10,
  squareMetres: 2,
  heightMetres: 3,
  openShare: 0.3,
  birthChance: 0,
  mostWalkers: 1,
  border: 1,
  stepLimit: 10000,
  seed: 'one',
  material: 'salt',
  hasMarkers: true,
};

describe('sections of the open level', () => {
  let stratum: StratumDocument;
  let version: ReturnType<typeof signal<number>>;
  let asked: {
    input: RecipeInputs;
    resolve: (section: Section) => void;
    reject: (error: Error) => void;
    cancelled: boolean;
  }[];
  let sections: LevelSections;
  const isShown = signal(true);

  const apply = (operations: readonly Omit<Operation, 'document'>[]): void => {
    stratum.apply(operations.map((operation) => ({ document: 'own', ...operation })));
    version.update((n) => n + 1);
    TestBed.tick();
  };
  const settle = () => new Promise((resolve) => setTimeout(resolve));
  const finish = async (i: number): Promise<void> => {
    asked[i].resolve(recipeSpec(asked[i].input.recipe).make(asked[i].input, createRunContext()));
    await settle();
  };

  const ask = (input: RecipeInputs) => {
    const entry: (typeof asked)[number] = {
      input,
      resolve: () => undefined,
      reject: () => undefined,
      cancelled: false,
    };
    const result = new Promise<Section>((resolve, reject) => Object.assign(entry, { resolve, reject }));
    asked.push(entry);
    return { result, cancel: () => (entry.cancelled = true) };
  };

  beforeEach(() => {
    asked = [];
    isShown.set(true);
    version = signal(0);
    stratum = new StratumDocument('own');
    stratum.tables.recipe.set('r', recipe);
    const strata = signal([stratum]);
    TestBed.configureTestingModule({
      providers: [
        { provide: OpenLevel, useValue: { assemblies: signal(new Map()), strata, isShown } },
        { provide: DocumentRegistry, useValue: { contentVersion: version } },
        {
          provide: KeptSections,
          useValue: {
            make: (input: RecipeInputs) => ask(input),
            bring: (_stratum: string, input: RecipeInputs) => ask(input),
          },
        },
      ],
    });
    sections = TestBed.inject(LevelSections);
    TestBed.tick();
  });

  it('rest while no page shows the level, and are made when one does again', async () => {
    await finish(0);
    isShown.set(false);
    apply([{ kind: 'recipe', id: 'r', field: 'seed', before: 'one', after: 'two' }]);
    expect([asked.length, sections.drawn().map(({ id }) => id)]).toEqual([1, ['own', 'section:r']]);
    isShown.set(true);
    TestBed.tick();
    expect(asked[1].input.recipe.seed).toBe('two');
  });

  it('are made once, drawn beside their stratum, and made anew when recipe or pins change', async () => {
    expect(asked).toHaveLength(1);
    await finish(0);
    expect(sections.drawn().map(({ id }) => id)).toEqual(['own', 'section:r']);
    expect([isMade('section:r'), isMade('own'), sections.hiddenWith(new Set(['own']))]).toEqual([
      true,
      false,
      ['assembly:own', 'section:r'],
    ]);
    const before = sections.drawn()[1];
    apply([
      {
        kind: 'marker',
        id: 'm',
        field: null,
        before: null,
        after: { id: 'm', kind: 'exit', position: [0, 0, 0], turn: 0 },
      },
    ]);
    expect(asked).toHaveLength(1);
    apply([{ kind: 'recipe', id: 'r', field: 'seed', before: 'one', after: 'two' }]);
    expect(asked[1].input.recipe.seed).toBe('two');
    // What was made last stays in view meanwhile.
    expect(sections.drawn()[1]).toBe(before);
    await finish(1);
    expect(sections.drawn()[1]).not.toBe(before);
    apply([
      {
        kind: 'pin',
        id: 'p',
        field: null,
        before: null,
        after: { id: 'p', recipe: 'r', column: 1, row: 1, columns: 1, rows: 1, hidden: true, offset: [0, 0, 0] },
      },
    ]);
    expect(asked[2].input.pins).toHaveLength(1);
    apply([{ kind: 'recipe', id: 'r', field: null, before: {}, after: null }]);
    expect([asked[2].cancelled, sections.drawn().map(({ id }) => id)]).toEqual([true, ['own']]);
  });

  it('are made as if a recipe were otherwise while that is tried, and not anew when it is kept so', async () => {
    await finish(0);
    sections.preview({ recipe: 'r', field: 'seed', value: 'tried' });
    expect([asked[1].input.recipe.seed, stratum.tables.recipe.get('r')?.seed]).toEqual(['tried', 'one']);
    await finish(1);
    apply([{ kind: 'recipe', id: 'r', field: 'seed', before: 'one', after: 'tried' }]);
    sections.preview(undefined);
    expect(asked).toHaveLength(2);
    sections.preview({ recipe: 'r', field: 'seed', value: 'another' });
    sections.preview(undefined);
    expect([asked.map(({ input }) => input.recipe.seed), asked[2].cancelled]).toEqual([
      ['one', 'tried', 'another', 'tried'],
      true,
    ]);
  });

  it('take nothing of a run that another has overtaken, and say why one failed', async () => {
    apply([{ kind: 'recipe', id: 'r', field: 'seed', before: 'one', after: 'two' }]);
    expect(asked[0].cancelled).toBe(true);
    await finish(0);
    expect(sections.states().get('r')?.section).toBeUndefined();
    asked[1].reject(new CoreError('BURROW_SIZE', 'burrow: nothing inside'));
    await settle();
    expect(sections.states().get('r')).toMatchObject({ failure: 'burrow: nothing inside', making: undefined });
    sections.again('r');
    asked[2].reject(new CoreError('CANCELLED', 'cancelled'));
    await settle();
    expect(sections.states().get('r')?.failure).toBe('Cancelled.');
  });
});

describe('a section that places pieces', () => {
  it('is drawn with them', () => {
    const placement: Placement = { id: 'p', piece: 'pin', position: [1, 2, 3], turn: [0, 0, 0], scale: [1, 1, 1] };
    const drawn = documentOfSection('r', {
      version: 1,
      recipe: 'r',
      blocks: [],
      markers: [],
      placements: columnsOf([placement]),
      line: '',
      told: [],
      findings: [],
    });
    expect([...drawn.tables.placement.values()]).toEqual([placement]);
  });
});
