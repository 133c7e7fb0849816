import fc from 'fast-check';
import { EMPTY_CONTENT } from '../../items';
import { createRunContext } from '../../context/run-context';
import { installLinearPatterns } from '../../fields/linear-patterns';
import type { CollectionContent } from '../../model/collection-content';
import type { ItemKind } from '../../model/items';
import type { Knot, Path } from '../../model/level-path';
import type { Target } from '../../model/target';
import { smallCollection } from '../../testing';
import { checkPack } from '../check-pack';
import { PLAIN_TARGET } from '../pack-target';
import { widestGap } from '../rules/paths';
import type { FixPlan, PackFix } from './fix';
import { fittingName } from './fitting-name';
import { ADD_GROUPS, GROUP_OBJECTS } from './groups';
import { RENAME_PIECES } from './rename-pieces';
import { RESAMPLE_PATHS, fittingKnots } from './resample-paths';

let content: CollectionContent;

beforeAll(() => installLinearPatterns());
beforeEach(async () => {
  content = await smallCollection();
});

function planned(fix: PackFix, rules: Target['rules']): FixPlan {
  const target = { ...PLAIN_TARGET, id: 'own', name: 'Box', rules };
  content.records.target['own'] = target;
  let made = 0;
  return fix.plan({
    records: content.records,
    target,
    levels: Object.values(content.records.level),
    strata: content.strata,
    newId: () => `new${made++}`,
  });
}
const codes = (): string[] =>
  checkPack({ content, inspections: {}, choice: {} }, createRunContext()).map(({ code }) => code);

describe('a name by a pattern', () => {
  const free = (): boolean => false;
  it('is the nearest of the ways in which games write names', () => {
    expect(fittingName('Salt Pan 2', '[a-z0-9_]+', free)).toBe('salt_pan_2');
    expect(fittingName('saltPan', '[a-z0-9-]+', free)).toBe('saltpan');
    expect(fittingName('salt pan', '([A-Z][a-z0-9]*)+', free)).toBe('SaltPan');
    expect(fittingName('Köhler', '[a-z_]+', free)).toBe('ko_hler');
    expect(fittingName('crate', 'sm_[a-z_]+', free)).toBe('sm_crate');
    expect(fittingName('crate', '^SM-[A-Za-z]+$', free)).toBe('SM-crate');
    expect(fittingName('crate', '[0-9]+', free)).toBeUndefined();
    expect(fittingName('crate', '', free)).toBe('crate');
  });

  it('gets a number where it is taken, joined as the pattern has it', () => {
    const taken = new Set(['salt_pan', 'salt_pan_2']);
    expect(fittingName('Salt pan', '[a-z0-9_]+', (name) => taken.has(name))).toBe('salt_pan_3');
    expect(fittingName('Salt pan', '[a-z0-9]+', (name) => name === 'saltpan')).toBe('saltpan2');
    expect(fittingName('Salt pan', '[a-z]+', (name) => name === 'saltpan')).toBeUndefined();
  });
});

describe('the fix of names', () => {
  it('gives each piece a name by the pattern that no other has, and leaves those that it cannot', () => {
    const { pin } = content.records.piece;
    const [first] = content.strata.get('own')?.placement ?? [];
    for (const [id, name] of [
      ['a', 'Salt Pan'],
      ['b', 'salt_pan'],
      ['c', 'Salt pan'],
      ['d', 'Nobody places it'],
    ])
      content.records.piece[id] = { ...pin, id, name };
    content.strata.set('own', {
      ...EMPTY_CONTENT,
      placement: ['a', 'b', 'c', 'pin'].map((piece) => ({ ...first, id: `p-${piece}`, piece })),
    });
    const plan = planned(RENAME_PIECES, { pieceNames: { isOn: true, text: '[a-z0-9_]+' } });
    expect(plan.lines.map(({ before, after }) => `${before} → ${after}`)).toEqual([
      'Salt Pan → salt_pan_2',
      'Salt pan → salt_pan_3',
    ]);
    for (const { piece, to } of plan.renames) content.records.piece[piece.id] = { ...piece, name: to };
    expect(codes().filter((code) => code.startsWith('PACK_PIECE_NAME'))).toEqual([]);
    expect(planned(RENAME_PIECES, { pieceNames: { isOn: true, text: '[0-9]+' } }).left).toHaveLength(4);
  });
});

const point = fc.tuple(
  fc.integer({ min: -40, max: 40 }).map((n) => n / 2),
  fc.integer({ min: -2, max: 2 }),
  fc.integer({ min: -40, max: 40 }).map((n) => n / 2),
);
const paths = fc
  .record({
    form: fc.constantFrom('polyline' as const, 'curve' as const),
    closed: fc.boolean(),
    points: fc.array(point, { minLength: 2, maxLength: 12 }),
    far: fc.constantFrom(0, 90000),
  })
  .map(({ form, closed, points, far }): Path => ({
    id: 'p',
    name: '',
    form,
    closed,
    knots: points.map(([x, y, z], i): Knot => ({
      id: `k${i}`,
      position: [x + far, y, z - far],
      widthMetres: 1,
      tags: i === 1 ? ['stop'] : [],
      handle: null,
    })),
  }));

describe('the fix of paths', () => {
  it('gives any path the spacing and the number that are asked for, or says that both cannot be', () => {
    let fixed = 0;
    fc.assert(
      fc.property(
        paths,
        fc.constantFrom(0.5, 1, 7, 30),
        fc.constantFrom(3, 8, 60, 10000),
        (path, spacingMetres, knots) => {
          let after: readonly Knot[];
          try {
            after = fittingKnots(path, { spacingMetres, knots });
          } catch (error) {
            expect((error as { code: string }).code).toMatch(/^PATH_/);
            return;
          }
          fixed++;
          expect(after.length).toBeLessThanOrEqual(knots);
          expect(widestGap({ ...path, knots: after })).toBeLessThanOrEqual(spacingMetres + 2e-6);
          expect(new Set(after.map(({ id }) => id)).size).toBe(after.length);
        },
      ),
      { numRuns: 400 },
    );
    expect(fixed).toBeGreaterThan(150);
  });

  it('keeps every knot of a straight path that has room for more, and where it runs', () => {
    fc.assert(
      fc.property(paths, fc.constantFrom(0.5, 2, 9), (path, spacingMetres) => {
        const straight = { ...path, form: 'polyline' as const };
        fc.pre(widestGap(straight) > 0);
        const after = fittingKnots(straight, { spacingMetres, knots: 10000 });
        const ids = straight.knots.map(({ id }) => id);
        expect(after.filter(({ id }) => ids.includes(id))).toEqual(straight.knots);
        // The way along it, added up plainly, is as long as before.
        const along = (knots: readonly Knot[]): number =>
          (straight.closed ? [...knots, knots[0]] : knots).reduce(
            (sum, { position: [x, y, z] }, i, all) =>
              i === 0
                ? 0
                : sum + Math.hypot(x - all[i - 1].position[0], y - all[i - 1].position[1], z - all[i - 1].position[2]),
            0,
          );
        expect(Math.abs(along(after) - along(straight.knots))).toBeLessThan(1e-5 * after.length);
      }),
      { numRuns: 200 },
    );
  });

  it('is for the paths that are at fault alone, tells both sides of each, and leaves what a level has otherwise', () => {
    const knots = (...xs: number[]): Knot[] =>
      xs.map((x, i) => ({ id: `k${i}`, position: [x, 0, 0] as const, widthMetres: 1, tags: [], handle: null }));
    const rail: Path = { id: 'rail', name: 'Rail', form: 'polyline', closed: false, knots: knots(0, 10) };
    content.strata.set('own', {
      ...EMPTY_CONTENT,
      path: [
        rail,
        { ...rail, id: 'fine', knots: knots(0, 2, 4) },
        { ...rail, id: 'still', name: 'Still', knots: knots(0, 0, 0, 0) },
      ],
      patch: [
        { id: 'x', level: 'one', kind: 'path', target: 'rail', change: 'changed', fields: { knots: [] }, was: {} },
      ],
    });
    const plan = planned(RESAMPLE_PATHS, { pathSpacing: { isOn: true, max: 2.5 }, pathKnots: { isOn: true, max: 5 } });
    expect(plan.lines).toEqual([
      { what: 'Rail (Own)', before: '2 knots, gaps up to 10 m', after: '5 knots, gaps up to 2.5 m' },
    ]);
    expect(plan.left).toEqual(['Rail (Own): a level has another shape of it as a local change']);
    expect(plan.operations.map(({ document, id, field }) => [document, id, field])).toEqual([['own', 'rail', 'knots']]);
    const tight = planned(RESAMPLE_PATHS, { pathSpacing: { isOn: true, max: 1 }, pathKnots: { isOn: true, max: 5 } });
    expect(tight.left[0]).toBe(
      'Rail (Own): resample: 10.00 m with knots at most 1 m apart needs more than 5 knots, which is all that the target takes',
    );
  });
});

describe('the fixes of groups', () => {
  /** What the operations make of the strata, plainly: they create groups and set fields. */
  const applied = ({ operations }: FixPlan): void => {
    for (const { document, kind, id, field, before, after } of operations) {
      const stratum = content.strata.get(document) ?? EMPTY_CONTENT;
      const items = stratum[kind as ItemKind] as readonly { readonly id: string; readonly group?: string | null }[];
      if (field !== null) expect(items.find((item) => item.id === id)?.group ?? null).toBe(before);
      content.strata.set(document, {
        ...stratum,
        [kind]:
          field === null
            ? [...items, after]
            : items.map((item) => (item.id === id ? { ...item, [field]: after } : item)),
      });
    }
  };

  it('add what a level lacks to its own stratum, else to its lowest, once', () => {
    const rules: Target['rules'] = { groups: { isOn: true, text: 'Audio/Rooms, Audio/Doors, Light' } };
    const plan = planned(ADD_GROUPS, rules);
    expect(plan.lines.map(({ what, after }) => `${what}: ${after}`)).toEqual([
      'one: Audio/Rooms',
      'one: Audio/Doors',
      'one: Light',
      'two: Audio/Rooms',
      'two: Audio/Doors',
      'two: Light',
    ]);
    expect(plan.operations.map(({ document }) => document)).toEqual([
      'own',
      'own',
      'own',
      'own',
      'base',
      'base',
      'base',
      'base',
    ]);
    applied(plan);
    expect(codes()).toEqual([]);
    expect(planned(ADD_GROUPS, rules).operations).toEqual([]);
  });

  it('put every object that is in none into one of its kind', () => {
    const rules: Target['rules'] = { grouped: { isOn: true } };
    const plan = planned(GROUP_OBJECTS, rules);
    expect(plan.lines).toEqual([
      { what: 'Base', before: '1 block', after: 'Blocks' },
      { what: 'Own', before: '1 placement', after: 'Placements' },
      { what: 'Own', before: '1 marker', after: 'Markers' },
      { what: 'Own', before: '1 divider', after: 'Dividers' },
    ]);
    applied(plan);
    expect(codes()).toEqual([]);
    expect(planned(GROUP_OBJECTS, rules).lines).toEqual([]);
  });
});
