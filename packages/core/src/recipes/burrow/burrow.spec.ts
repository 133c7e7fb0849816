import fc from 'fast-check';
import { createRunContext } from '../../context/run-context';
import { blockSurface } from '../../geometry/block-solid';
import type { Block } from '../../model/block';
import type { WallPin } from '../../model/pin';
import type { BurrowRecipe } from '../../model/recipe';
import { BakeCache } from '../../bakes/bake-cache';
import { sectionsOfLevel } from '../../bakes/section/sections-of-level';
import { EMPTY_CONTENT } from '../../items';
import { sectionFindings, withSections } from '../../sections/with-sections';
import type { Vector3 } from '../../model/vector';
import { randomStream } from '../../random/random-stream';
import { bakeSight } from '../../sight/bake-sight';
import { levelSightInput } from '../../sight/level-sight-input';
import { OPEN, SOLID, carveBurrow } from './carve-burrow';
import { makeBurrow, rectangleOfWall } from './make-burrow';
import { wallRectangles } from './wall-rectangles';
import { plainLevel } from '../../testing/plain-level';

const context = createRunContext();
const recipe = (over: Partial<BurrowRecipe> = {}): BurrowRecipe => ({
  id: 'r',
  name: 'Grotto',
  kind: 'burrow',
  position: [0, 0, 0],
  columns: 24,
  rows: 18,
  squareMetres: 2,
  heightMetres: 3,
  openShare: 0.35,
  birthChance: 0.1,
  mostWalkers: 6,
  border: 1,
  stepLimit: 100000,
  seed: 'brine',
  material: 'salt',
  hasMarkers: true,
  ...over,
});
const carved = (one: BurrowRecipe, pins: readonly WallPin[] = []) =>
  makeBurrow({ version: 2, recipe: one, pins: pins.filter((pin) => pin.recipe === one.id) }, context);
/** A level with its one section laid in. */
const whole = (one: BurrowRecipe, pins: readonly WallPin[] = []) => {
  const stored = contentOf(one, pins);
  const sections = sectionsOfLevel(stored, new BakeCache(0), context);
  return { content: withSections(stored, sections), findings: sectionFindings(stored.level.id, sections) };
};
const recipes = fc.record({
  columns: fc.integer({ min: 3, max: 30 }),
  rows: fc.integer({ min: 3, max: 30 }),
  openShare: fc.double({ min: 0.05, max: 1, noNaN: true }),
  birthChance: fc.double({ min: 0, max: 1, noNaN: true }),
  mostWalkers: fc.integer({ min: 1, max: 8 }),
  seed: fc.string({ minLength: 1, maxLength: 8 }),
});
const contentOf = (one: BurrowRecipe, pins: readonly WallPin[] = []) => ({
  level: plainLevel(),
  strata: [
    {
      stratum: { id: 'own', name: 'Own', role: 'section' as const, owner: 'l' },
      content: { ...EMPTY_CONTENT, recipe: [one], pin: pins },
    },
  ],
});

describe('a burrow', () => {
  it('walks as the same walk written plainly does', () => {
    const { columns, rows, openShare, birthChance, mostWalkers, seed } = recipe();
    const random = randomStream(`burrow ${seed}`);
    const births = randomStream(`burrow births ${seed}`);
    const open = Array.from({ length: rows }, () => new Array<boolean>(columns).fill(false));
    const walkers = [{ column: columns >> 1, row: rows >> 1 }];
    open[rows >> 1][columns >> 1] = true;
    const wanted = Math.round((columns - 2) * (rows - 2) * openShare);
    const count = () => open.flat().filter(Boolean).length;
    for (let next = 0; count() < wanted;) {
      let word = random.word();
      const walker = walkers[next];
      for (let step = 0; step < 16 && count() < wanted; step++) {
        const [dc, dr] = [
          [1, 0],
          [-1, 0],
          [0, 1],
          [0, -1],
        ][word & 3];
        word >>>= 2;
        const [column, row] = [walker.column + dc, walker.row + dr];
        if (column < 1 || row < 1 || column >= columns - 1 || row >= rows - 1) continue;
        Object.assign(walker, { column, row });
        open[row][column] = true;
      }
      if (walkers.length < mostWalkers && births.next() < birthChance) walkers.push({ ...walker });
      next = (next + 1) % walkers.length;
    }
    expect([...carveBurrow(recipe(), context).squares]).toEqual(open.flat().map(Number));
  });

  it('opens what was asked for in one piece, never the border; the same seed gives the same bytes, another another cave', () => {
    fc.assert(
      fc.property(recipes, (over) => {
        const one = recipe(over);
        const burrow = carveBurrow(one, context);
        const { squares, columns, rows } = burrow;
        expect(burrow.stoppedShort).toBe(burrow.open < burrow.wanted);
        expect(squares.filter((value) => value === OPEN)).toHaveLength(burrow.open);
        for (let i = 0; i < squares.length; i++) {
          const [column, row] = [i % columns, Math.floor(i / columns)];
          if (column === 0 || row === 0 || column === columns - 1 || row === rows - 1) expect(squares[i]).toBe(SOLID);
        }
        const reached = new Set([burrow.start]);
        for (const at of reached)
          for (const next of [at + 1, at - 1, at + columns, at - columns])
            if (squares[next] === OPEN) reached.add(next);
        expect(reached.size).toBe(burrow.open);
        expect(carveBurrow(one, context).squares).toEqual(squares);
      }),
      { numRuns: 100 },
    );
    expect(carveBurrow(recipe({ seed: 'salt' }), context).squares).not.toEqual(carveBurrow(recipe(), context).squares);
  });

  it('says when the step limit stopped it short, refuses what has no inside, and is cancelled', () => {
    expect(carveBurrow(recipe({ stepLimit: 40 }), context)).toMatchObject({ stoppedShort: true, steps: 40 });
    expect(() => carveBurrow(recipe({ border: 9 }), context)).toThrow(
      'burrow: a border of 9 leaves nothing inside 24 by 18 squares',
    );
    expect(() => carveBurrow(recipe({ columns: 2001, rows: 2000 }), context)).toThrow(/takes at most 4000000 squares/);
    let looks = 0;
    const cancel = {
      get aborted() {
        return ++looks > 3;
      },
    };
    expect(() =>
      carveBurrow(recipe({ columns: 1000, rows: 1000, openShare: 1, stepLimit: 1e9 }), createRunContext({ cancel })),
    ).toThrow('cancelled');
  });
});

describe('wall rectangles', () => {
  it('wall a single open square with four blocks, by hand', () => {
    const squares = new Uint8Array(25);
    squares[12] = OPEN;
    expect(wallRectangles(squares, 5, 5, () => undefined)).toEqual([
      { column: 1, row: 1, columns: 3, rows: 1 },
      { column: 1, row: 2, columns: 1, rows: 2 },
      { column: 3, row: 2, columns: 1, rows: 2 },
      { column: 2, row: 3, columns: 1, rows: 1 },
    ]);
  });

  it('cover every solid square beside floor exactly once, and no floor', () => {
    fc.assert(
      fc.property(recipes, (over) => {
        const { squares, columns, rows } = carveBurrow(recipe(over), context);
        const covered = new Uint8Array(squares.length);
        const walls = wallRectangles(squares, columns, rows, () => undefined);
        for (const { column, row, columns: wide, rows: deep } of walls)
          for (let r = row; r < row + deep; r++)
            for (let c = column; c < column + wide; c++) covered[r * columns + c]++;
        for (let i = 0; i < squares.length; i++) {
          const near = [-1, 0, 1]
            .flatMap((dr) => [-1, 0, 1].map((dc) => i + dr * columns + dc))
            .some((at) => squares[at] === OPEN);
          if (squares[i] === OPEN) expect(covered[i]).toBe(0);
          else if (near) expect(covered[i]).toBe(1);
          else expect(covered[i]).toBeLessThan(2);
        }
      }),
      { numRuns: 100 },
    );
  });
});

describe('a section', () => {
  it('is closed, whatever the seed and the pins', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 6 }),
        fc.nat(),
        fc.boolean(),
        fc.integer({ min: 1, max: 2 }),
        (seed, pick, hidden, border) => {
          const one = recipe({ seed, border });
          const walls = carved(one).blocks.flatMap(({ id }) => rectangleOfWall('r', id) ?? []);
          const pin: WallPin = { id: 'pin', recipe: 'r', ...walls[pick % walls.length], hidden, offset: [3, 0, 1] };
          for (const pins of [[], [pin]]) {
            const { content } = whole(one, pins);
            const sight = bakeSight(levelSightInput(content), {}, context);
            expect([sight.closed, sight.findings]).toEqual([
              true,
              expect.not.arrayContaining([expect.objectContaining({ severity: 'error' })]),
            ]);
            expect(sight.figures.reachedPockets).toBeGreaterThan(0);
          }
        },
      ),
      // A wall moved onto the middle square, where the walk began.
      { numRuns: 12, examples: [['YU*b', 644276060, false, 1]] },
    );
  }, 60000);

  it('does what its pins say at every wall, the rim too; spawn and exit never stand in a wall', () => {
    const boundsOf = (blocks: readonly Block[]) =>
      blocks.filter(({ name }) => name === 'wall').map((block) => ({ id: block.id, ...blockSurface(block).bounds }));
    const covering = (walls: ReturnType<typeof boundsOf>, x: number, z: number): string[] =>
      walls.flatMap(({ id, min, max }) => (x > min[0] && x < max[0] && z > min[2] && z < max[2] ? [id] : []));
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 3 }),
        fc.array(
          fc.record({
            pick: fc.nat(),
            hidden: fc.boolean(),
            offset: fc.constantFrom<Vector3>([0, 0, 0], [2, 0, 0], [-3.3, 0, 7], [0, 5, 0], [0.4, -1, 0.2]),
          }),
          {
            minLength: 1,
            maxLength: 6,
          },
        ),
        fc.boolean(),
        (seed, border, wanted, reseeded) => {
          const first = recipe({ seed, border });
          const walls = carved(first).blocks.flatMap(({ id }) => rectangleOfWall('r', id) ?? []);
          const pins = wanted.map(({ pick, ...over }, n): WallPin => ({
            id: `pin${n}`,
            recipe: 'r',
            ...walls[pick % walls.length],
            ...over,
          }));
          const second = reseeded ? recipe({ seed: `${seed}!`, border }) : first;
          const { blocks, markers, figures } = carved(second, pins);
          const made = boundsOf(blocks.filter(({ id }) => !id.startsWith('pin')));
          // Only walls of pins may stand where a pin holds the squares open.
          const held = pins.flatMap(({ column, row, columns, rows }) =>
            Array.from({ length: columns * rows }, (_, k) => [column + (k % columns), row + Math.floor(k / columns)]),
          );
          expect(held.flatMap(([column, row]) => covering(made, (column + 0.5) * 2, (row + 0.5) * 2))).toEqual([]);
          expect(blocks.filter(({ id }) => id.startsWith('pin'))).toHaveLength(
            pins.filter(({ hidden }) => !hidden).length,
          );
          const inTheWay = boundsOf(
            blocks.filter(({ id, position }) => !id.startsWith('pin') || Math.abs(position[1]) < 3),
          );
          expect(markers.flatMap(({ position }) => covering(inTheWay, position[0], position[2]))).toEqual([]);
          expect(figures.openSquares).toBe(figures.wantedSquares);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('that pins cut in two is a finding, with the squares that are lost counted, by hand', () => {
    // A hall of 10 by 4 squares and a column more where the west wall was: moved across, it leaves five columns on each side.
    const hall = recipe({ columns: 12, rows: 6, openShare: 1, birthChance: 0 });
    const across = { id: 'pin', recipe: 'r', column: 0, row: 1, columns: 1, rows: 4, hidden: false } as const;
    const cut = whole(hall, [{ ...across, offset: [10, 0, 0] }]);
    expect(cut.findings).toMatchObject([
      {
        code: 'SECTION_CUT',
        subject: 'r',
        message: 'Grotto: no way from its spawn to 20 open squares',
        place: { level: 'l', stratum: 'own', item: 'r', position: [1, 0, 3] },
      },
    ]);
    // Half a square to the side it still covers middles of squares; lifted over the ceiling it stands in nobody's way.
    expect(whole(hall, [{ ...across, offset: [11, 0, 0] }]).findings).toHaveLength(1);
    expect(whole(hall, [{ ...across, offset: [10, 3, 0] }]).findings).toEqual([]);
    // A pin far from every open square is a closed chamber.
    const apart = recipe({ stepLimit: 1, columns: 20, rows: 20 });
    const chamber = carved(apart, [
      { ...across, column: 2, row: 2, columns: 2, rows: 1, hidden: true, offset: [0, 0, 0] },
    ]);
    expect(chamber.figures).toMatchObject({ unreachedSquares: 2, unreachedAt: [5, 0, 5] });
  });

  it('keeps a moved wall where it was put, and a hidden one away, under new seed', () => {
    const walls = carved(recipe()).blocks.filter(({ id }) => rectangleOfWall('r', id));
    const [moved, hidden] = [walls[2], walls[5]].map(({ id }) => rectangleOfWall('r', id) ?? fail());
    const pins: WallPin[] = [
      { id: 'moved', recipe: 'r', ...moved, hidden: false, offset: [1, 0.5, -2] },
      { id: 'hidden', recipe: 'r', ...hidden, hidden: true, offset: [0, 0, 0] },
      { id: 'other', recipe: 'another', ...hidden, hidden: false, offset: [0, 0, 0] },
    ];
    for (const seed of ['brine', 'salt', '7']) {
      const { blocks } = carved(recipe({ seed }), pins);
      const block = blocks.find(({ id }) => id === 'moved');
      expect(block?.position).toEqual([
        (moved.column + moved.columns / 2) * 2 + 1,
        0.5,
        (moved.row + moved.rows / 2) * 2 - 2,
      ]);
      const centre = [hidden.column + hidden.columns / 2, hidden.row + hidden.rows / 2];
      const covering = blocks
        .flatMap(({ id }) => rectangleOfWall('r', id) ?? [])
        .filter(
          (wall) =>
            centre[0] > wall.column &&
            centre[0] < wall.column + wall.columns &&
            centre[1] > wall.row &&
            centre[1] < wall.row + wall.rows,
        );
      expect(covering).toEqual([]);
    }
  });

  it('has a spawn where the walk began and an exit that can be walked to, farthest off', () => {
    const { markers, figures } = carved(recipe());
    expect(markers.map(({ kind }) => kind)).toEqual(['exit', 'spawn']);
    expect(markers[1].position).toEqual([25, 0, 19]);
    expect(markers[0].position).not.toEqual(markers[1].position);
    expect(figures).toMatchObject({ stoppedShort: false, openSquares: figures.wantedSquares });
  });

  it('that stopped short is a finding which leads to its recipe', () => {
    const { findings } = whole(recipe({ stepLimit: 40 }));
    expect(findings).toMatchObject([
      { code: 'SECTION_STOPPED_SHORT', subject: 'r', place: { level: 'l', stratum: 'own', item: 'r' } },
    ]);
    expect(findings[0].message).toMatch(/^Grotto stopped after 40 steps with \d+ of 123 squares open$/);
  });
});

function fail(): never {
  throw new Error('no wall');
}
