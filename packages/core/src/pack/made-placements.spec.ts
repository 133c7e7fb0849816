import fc from 'fast-check';
import { countLevel } from '../budget/count-level';
import { figuresInput } from '../budget/figures-input';
import { levelFigures } from '../budget/level-figures';
import { withSectionFigures } from '../budget/section-figures';
import { BAKES } from '../bakes';
import { bakeKey } from '../bakes/bake-key';
import { cutLevel } from '../cells/cut-level';
import { createRunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import { EMPTY_CONTENT } from '../items';
import { NO_PLACEMENTS, columnsOf, joinedColumns, placementAt } from '../items/placement/columns';
import { columnsOfPlain, plainColumns } from '../items/placement/columns-json';
import { sameContent } from '../layout/checks/same-content';
import { contentExtent } from '../layout/content-extent';
import type { LevelContent } from '../layout/level-content';
import { placedPieces, placementsOf } from '../layout/level-placements';
import { placedBounds, placementBounds } from '../layout/placement-bounds';
import type { Piece } from '../model/kit';
import type { Placement } from '../model/placement';
import type { TurnDegrees, Vector3 } from '../model/vector';
import { DEFAULT_VIEW } from '../model/view-settings';
import type { Section } from '../recipes/recipe-spec';
import { withSections } from '../sections/with-sections';
import { bakeSight } from '../sight/bake-sight';
import { levelSightInput } from '../sight/level-sight-input';
import { sightFile } from '../sight/sight-file';
import { gridOf } from './chunks';
import { levelLoad } from './level-load';
import { packLevel } from './pack-level';
import { plainLevel } from '../testing/plain-level';

const context = createRunContext();
const piece = (id: string, size: number): Piece => ({
  id,
  kit: 'kit',
  name: id,
  bounds: { min: [-size, 0, -size], max: [size, size, size] },
  steps: [
    { triangles: 100 * size, vertices: 60, materials: 2, bytes: 4000 },
    { triangles: 10, vertices: 9, materials: 1, bytes: 400, deviationMetres: 0.1 },
  ],
});
const pieces = { pin: piece('pin', 1), post: piece('post', 2) };
const kits = { kit: { id: 'kit', name: 'Yard', key: 'yard', mesh: '' } };
const kitLoads = { kit: { files: 2, memoryBytes: 900, diskBytes: 800 } };
const at = fc.double({ min: -60, max: 60, noNaN: true });
const placement = fc.record({
  piece: fc.constantFrom('pin', 'post'),
  position: fc.oneof(fc.tuple(at, at, at), fc.constant<Vector3>([-0, 0, 5])) as fc.Arbitrary<Vector3>,
  turn: fc.tuple(at, at, at) as fc.Arbitrary<TurnDegrees>,
  scale: fc.constantFrom<Vector3>([1, 1, 1], [2, 0.5, 3], [-1, 1, 1]),
  group: fc.constantFrom(undefined, null, 'g'),
  values: fc.constantFrom(undefined, null, { note: 'wet' }),
});
const placements: fc.Arbitrary<Placement[]> = fc
  .array(placement, { maxLength: 24 })
  .map((all) => all.map((one, i) => ({ id: `p${String(i).padStart(2, '0')}`, ...one }) as Placement));
const level = (stored: readonly Placement[]): LevelContent => ({
  level: plainLevel({ openSky: true }),
  strata: [
    {
      stratum: { id: 'own', name: 'Own', role: 'section', owner: 'l' },
      content: {
        ...EMPTY_CONTENT,
        placement: stored,
        block: [
          {
            id: 'b',
            name: '',
            position: [0, -2, 0],
            turn: [0, 0, 0],
            planes: boxPlanes([150, 1, 150]),
            sight: 'hides',
            material: 'salt',
          },
        ],
        marker: [{ id: 'm', kind: 'spawn', position: [0, 1, 0], turn: 0 }],
      },
    },
  ],
});
/** A section that places some things. */
const section = (made: readonly Placement[]): Section => ({
  version: 1,
  recipe: 'r',
  blocks: [],
  markers: [],
  placements: columnsOf(made),
  line: '',
  told: [],
  findings: [],
});
const plain = (one: Placement): Placement => {
  const { group, values, ...rest } = one;
  const three = (from: readonly number[]): number[] => from.map((value) => value + 0);
  return {
    ...rest,
    position: three(rest.position),
    turn: three(rest.turn),
    scale: three(rest.scale),
    ...(group ? { group } : {}),
    ...(values ? { values } : {}),
  } as unknown as Placement;
};

describe('placements in columns', () => {
  it('are the same as records, joined in any way, and come back from plain data', () => {
    fc.assert(
      fc.property(placements, fc.nat(), (all, cut) => {
        const columns = columnsOf(all);
        expect(all.map((_one, i) => placementAt(columns, i))).toEqual(all.map(plain));
        const split = all.length === 0 ? 0 : cut % (all.length + 1);
        const joined = joinedColumns([columnsOf(all.slice(0, split)), NO_PLACEMENTS, columnsOf(all.slice(split))]);
        expect(joined).toEqual(columns);
        expect(columnsOfPlain(JSON.parse(JSON.stringify(plainColumns(columns))))).toEqual(columns);
      }),
    );
    for (const bad of [
      null,
      [],
      {},
      { ...plainColumns(columnsOf([])), ids: ['a'] },
      { ids: [], pieces: [], numbers: [1], more: [] },
    ])
      expect(columnsOfPlain(bad)).toBeUndefined();
  });

  it('have the bounds of the records, to the last bit', () => {
    fc.assert(
      fc.property(placements, (all) => {
        const { numbers } = columnsOf(all);
        const out = new Float64Array(6);
        all.forEach((one, i) => {
          placedBounds(numbers, i, pieces.post.bounds, out, 0);
          const { min, max } = placementBounds(one, pieces.post.bounds);
          expect([...out]).toEqual([...min, ...max]);
        });
      }),
    );
  });
});

describe('placements that a section made', () => {
  it('count in everything that is computed as those that people placed do', async () => {
    await fc.assert(
      fc.asyncProperty(placements, fc.nat(), async (all, cut) => {
        const split = all.length === 0 ? 0 : cut % (all.length + 1);
        const whole = level(all);
        const sections = [{ stratum: 'own', section: section(all.slice(split)) }];
        const half = withSections(level(all.slice(0, split)), sections);
        expect([...placedPieces(half.strata)]).toEqual([...placedPieces(whole.strata)]);
        expect(placementsOf(half.strata[0])).toEqual(placementsOf(whole.strata[0]));
        expect(contentExtent(half.strata)).toEqual(contentExtent(whole.strata));
        expect(sameContent(half)).toEqual(sameContent(whole));
        const figures = figuresInput(whole, pieces, DEFAULT_VIEW);
        const unmade = figuresInput(level(all.slice(0, split)), pieces, DEFAULT_VIEW);
        const made = { ...withSectionFigures(unmade, sections), pieces: figures.pieces, findings: figures.findings };
        expect(bakeKey('figures', made)).toBe(bakeKey('figures', figures));
        expect(countLevel(made, context)).toEqual(countLevel(figures, context));
        const sight = bakeSight(levelSightInput(whole), {}, context);
        expect(levelFigures({ ...made, sight }, context)).toEqual(levelFigures({ ...figures, sight }, context));
        const seen = (one: LevelContent): Uint8Array =>
          sightFile(
            one.strata.map((stratum) => ({ blocks: stratum.content.block, placements: placementsOf(stratum) })),
            sight,
            new Map(Object.entries(pieces)),
          );
        expect(seen(half)).toEqual(seen(whole));
        const grid = { ...gridOf('l', null), sizeMetres: 20 };
        const parts = { pieces, kits, kitLoads, grid };
        expect(cutLevel({ content: half, ...parts }, context)).toEqual(cutLevel({ content: whole, ...parts }, context));
        expect(levelLoad({ content: half, ...parts }, context)).toEqual(
          levelLoad({ content: whole, ...parts }, context),
        );
        const pack = { ...parts, sight, sections: [], number: 1, sets: [] };
        expect(await packLevel({ ...pack, content: level(all.slice(0, split)), sections }, context)).toEqual(
          await packLevel({ ...pack, content: whole }, context),
        );
      }),
      { numRuns: 25 },
    );
  }, 60000);

  it('are kept with their section and come back from its bake', () => {
    const made = section([
      { id: 'p', piece: 'pin', position: [1, 2, 3], turn: [0, 90, 0], scale: [1, 1, 1], values: { note: 'wet' } },
    ]);
    const { codec, check } = BAKES.section;
    const back = codec?.decode(JSON.parse(JSON.stringify(codec.encode(made))));
    expect(back).toEqual(made);
    expect([check(back), check(codec?.decode({ ...made, placements: { ids: ['a'] } }))]).toEqual([true, false]);
  });
});
