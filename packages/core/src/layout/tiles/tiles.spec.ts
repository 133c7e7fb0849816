import fc from 'fast-check';
import { createRunContext } from '../../context/run-context';
import { DEFAULT_MOVEMENT, type MovementRules, type SquareCode, type TileFloor } from '../../model/tile-floor';
import { randomStream } from '../../random/random-stream';
import { squaresOfRow } from '../../items/tile-floor/squares-of-row';
import { readSquares } from './square-text';
import { solveTiles, type TileSolution } from './solve-tiles';
import { tileGraph, type TileGraph } from './tile-graph';

const code = (letters: string, over: Partial<SquareCode> = {}): SquareCode => ({
  code: letters,
  name: letters,
  colour: 'none',
  mark: 'none',
  mayEnter: true,
  visits: 0,
  height: 0,
  role: 'none',
  ...over,
});
const LEGEND = [
  code('f'),
  code('w', { mayEnter: false }),
  code('s', { role: 'start' }),
  code('g', { role: 'goal' }),
  code('c', { visits: 1 }),
  code('m', { role: 'must' }),
  code('k', { role: 'must', visits: 1 }),
];
const floor = (text: string, over: Partial<TileFloor> = {}): TileFloor => {
  const { rows, columns } = readSquares(text, LEGEND);
  return {
    id: 'a',
    name: 'a',
    position: [0, 0, 0],
    squareMetres: 1,
    columns,
    rows: rows.length,
    squares: Object.fromEntries(rows.map((row, i) => [String(i), row.join(' ')])),
    ...over,
  };
};
const graph = (floors: readonly TileFloor[], rules: Partial<MovementRules> = {}): TileGraph =>
  tileGraph(floors, LEGEND, { ...DEFAULT_MOVEMENT, ...rules });
const solve = (of: TileGraph, stateLimit = 100000): TileSolution => solveTiles(of, { stateLimit }, createRunContext());
const way = (of: TileGraph, found: TileSolution): string =>
  found.way.map((i) => `${of.nodes[i].column},${of.nodes[i].row}`).join(' ');

/** Plain breadth-first search over whole states, as a check: position, visits made of every square, nothing clever. */
function plainSearch({ nodes }: TileGraph, limit: number): number | undefined | 'too many' {
  const start = nodes.findIndex(({ role }) => role === 'start');
  let states: (readonly [number, readonly number[]])[] = [[start, nodes.map((_node, i) => (i === start ? 1 : 0))]];
  const seen = new Set<string>();
  for (let steps = 0; states.length > 0; steps++) {
    const next: typeof states = [];
    for (const [at, made] of states) {
      const key = `${at}:${made.map((count, i) => (nodes[i].visits > 0 ? count : Math.min(1, count))).join()}`;
      if (seen.has(key)) continue;
      seen.add(key);
      if (seen.size > limit) return 'too many';
      if (nodes[at].role === 'goal' && nodes.every(({ role }, i) => role !== 'must' || made[i] > 0)) return steps;
      for (const other of nodes[at].next) {
        if (nodes[other].visits > 0 && made[other] >= nodes[other].visits) continue;
        next.push([other, made.map((count, i) => (i === other ? count + 1 : count))]);
      }
    }
    states = next;
  }
  return undefined;
}

describe('squares as text', () => {
  it('are read from a spreadsheet, with the modifiers of a square', () => {
    expect(readSquares('s\tf^2*1@b\t\r\n.\tg', LEGEND)).toEqual({
      rows: [
        ['s', 'f^2*1@b', '.'],
        ['.', 'g', '.'],
      ],
      columns: 3,
      faults: [],
    });
    expect(readSquares('s f  g', LEGEND).rows).toEqual([['s', 'f', 'g']]);
  });

  it('tell row and column of what is refused, and keep the rest', () => {
    const { rows, faults } = readSquares('s\tdragon\nf*\tg', LEGEND);
    expect(rows).toEqual([
      ['s', '.'],
      ['.', 'g'],
    ]);
    expect(faults.map(({ row, column, message }) => [row, column, message.slice(0, 12)])).toEqual([
      [1, 2, '“dragon” is '],
      [2, 1, '“f*” is not '],
    ]);
    expect(readSquares('f', []).faults[0].message).toContain('which is empty');
  });

  it('of a paste of 20,000 rows are cut off with a reason', () => {
    const { rows, faults } = readSquares('f\tf\n'.repeat(20000), LEGEND);
    expect([rows.length, faults.length, faults[0].message]).toEqual([
      500,
      1,
      'a floor has at most 500 rows, this has 20000; the rest is left out',
    ]);
  });

  it('of a row that is missing are holes', () => {
    expect(squaresOfRow(undefined, 2)).toEqual(['.', '.']);
    expect(squaresOfRow('f g h', 2)).toEqual(['f', 'g']);
  });
});

describe('solving', () => {
  it('finds the shortest way around a wall', () => {
    const of = graph([floor('s f f\nw w f\ng f f')]);
    const found = solve(of);
    expect([found.answer, way(of, found)]).toEqual(['reached', '0,0 1,0 2,0 2,1 2,2 1,2 0,2']);
  });

  it('proves that there is none, and says so only then', () => {
    expect(solve(graph([floor('s w g')])).answer).toBe('never');
    expect(solve(graph([floor('s m m m\nm m m m\nm m m m\nm m m w\nw w w g')]), 5).answer).not.toBe('reached');
    // What must be visited lies beyond a square that goes: in is possible, out is not.
    expect(solve(graph([floor('m c s g')])).answer).toBe('never');
    expect(solve(graph([floor('m c*2 s g')])).answer).toBe('reached');
  });

  it('is not decided within too small a limit', () => {
    expect(solve(graph([floor('s m f m\nf f f f\nm f m g')]), 3)).toMatchObject({
      answer: 'not decided',
      way: [],
      states: 3,
    });
  });

  it('goes over links, steps and falls as the rules allow', () => {
    expect(way(graph([floor('s@a w f@a g')]), solve(graph([floor('s@a w f@a g')])))).toBe('0,0 2,0 3,0');
    const stairs = [floor('s f^1 f^2 g^2')];
    expect([solve(graph(stairs)).answer, solve(graph(stairs, { upSteps: 1 })).answer]).toEqual(['never', 'reached']);
    const two = [floor('s .', { position: [0, 3, 0] }), floor('w g', { id: 'b', position: [0, 0, 0] })];
    expect([solve(graph(two)).answer, solve(graph(two, { mayFall: true })).answer]).toEqual(['never', 'reached']);
    // Off by half a square there is nothing straight below.
    expect(solve(graph([two[0], { ...two[1], position: [0.5, 0, 0] }], { mayFall: true })).answer).toBe('never');
    expect([
      solve(graph([floor('s w\nw g')])).answer,
      solve(graph([floor('s w\nw g')], { neighbours: 8 })).answer,
    ]).toEqual(['never', 'reached']);
  });

  it('tells squares that are never needed, and dead ends among them', () => {
    const of = graph([floor('s f g\nw f w\nf w f')]);
    const { neverNeeded, deadEnds } = solve(of);
    const places = (ids: readonly number[]): string[] => ids.map((i) => `${of.nodes[i].column},${of.nodes[i].row}`);
    expect(places(neverNeeded)).toEqual(['1,1', '0,2', '2,2']);
    expect(places(deadEnds)).toEqual(['1,1']);
  });

  it.each([
    ['f g', 'There must be one start; there is none.'],
    ['s s g', 'There must be one start; there are 2.'],
    ['s f', 'There is no goal.'],
  ])('of %j says: %s', (text, fault) => {
    expect(graph([floor(text)]).fault).toBe(fault);
  });

  it('agrees with a plain breadth-first search on all floors small enough for it', () => {
    const square = fc.constantFrom('f', 'f', 'f', 'w', 'c', 'c*2', 'm', 'k', 'f^1', '.');
    let decided = 0;
    fc.assert(
      fc.property(
        fc.array(square, { minLength: 16, maxLength: 16 }),
        fc.nat(15),
        fc.nat(15),
        fc.boolean(),
        (cells, start, goal, isEight) => {
          fc.pre(start !== goal);
          const all = cells.map((cell, i) => (i === start ? 's' : i === goal ? 'g' : cell));
          const text = [0, 4, 8, 12].map((at) => all.slice(at, at + 4).join(' ')).join('\n');
          const of = graph([floor(text)], { neighbours: isEight ? 8 : 4, upSteps: 1, downSteps: 1 });
          const plain = plainSearch(of, 20000);
          if (plain === 'too many') return;
          decided++;
          const found = solve(of, 1e7);
          expect(found.answer).toBe(plain === undefined ? 'never' : 'reached');
          if (plain !== undefined) expect(found.way.length - 1).toBe(plain);
          // Squares that are said to be never needed are on no shortest way.
          expect(found.way.filter((i) => found.neverNeeded.includes(i))).toEqual([]);
        },
      ),
      { numRuns: 120 },
    );
    expect(decided).toBeGreaterThan(70);
  });

  it('agrees with a plain search where most squares go, over links, steps one way and floors below', () => {
    const square = fc.constantFrom(
      'k',
      'k',
      'k',
      'k',
      'k',
      'c',
      'c',
      'm',
      'm*1',
      'c*2',
      'k*2',
      'k@a',
      'k^1',
      'f',
      'w',
      '.',
    );
    const tally = { reached: 0, never: 0 };
    fc.assert(
      fc.property(
        fc.array(square, { minLength: 12, maxLength: 12 }),
        fc.nat(11),
        fc.nat(11),
        fc.constantFrom('s', 's*1', 's*2'),
        fc.constantFrom('g', 'g*1', 'g*2'),
        fc.constantFrom(4, 8),
        fc.boolean(),
        (cells, start, goal, startText, goalText, neighbours, isTwo) => {
          fc.pre(start !== goal);
          const all = cells.map((cell, i) => (i === start ? startText : i === goal ? goalText : cell));
          const rows = [0, 4, 8].map((at) => all.slice(at, at + 4).join(' '));
          // In two floors the upper row lies above the others' holes and can only be fallen from.
          const floors = isTwo
            ? [floor(rows[0], { position: [0, 3, 1] }), floor(rows.slice(1).join('\n'), { id: 'b' })]
            : [floor(rows.join('\n'))];
          const of = graph(floors, { neighbours, upSteps: 0, downSteps: 1, mayFall: isTwo });
          const plain = plainSearch(of, 20000);
          if (plain === 'too many') return;
          const found = solve(of, 1e7);
          expect(found.answer).toBe(plain === undefined ? 'never' : 'reached');
          if (plain !== undefined) expect(found.way.length - 1).toBe(plain);
          tally[plain === undefined ? 'never' : 'reached']++;
        },
      ),
      { numRuns: 600 },
    );
    expect(Math.min(tally.reached, tally.never)).toBeGreaterThan(30);
  });

  it.each([
    // All squares go and all must be visited; found by hand.
    [
      'a board of 6 by 6 with the goal beside the start',
      ['s g k k k k', ...Array.from({ length: 5 }, () => 'k k k k k k')],
      'reached',
    ],
    [
      'a board of 8 by 8 with the goal beside the start',
      ['s g k k k k k k', ...Array.from({ length: 7 }, () => 'k k k k k k k k')],
      'reached',
    ],
    [
      'one of 8 by 8 with opposite corners, by coming past the start once more',
      ['s k k k k k k k', ...Array.from({ length: 6 }, () => 'k k k k k k k k'), 'k k k k k k k g*1'],
      'reached',
    ],
    [
      'one with opposite corners, whose colours cannot come out even',
      ['s*1 k k k k k', ...Array.from({ length: 4 }, () => 'k k k k k k'), 'k k k k k g*1'],
      'never',
    ],
    [
      'two halves with one square between, start and goal in the same',
      ['s k k w k k k', 'k k k k k k k', 'g k k w k k k'],
      'never',
    ],
    [
      'a square with one side open',
      ['s k k k k k', 'k k k w k w', 'k k k k w k', 'k k k k k k', 'k k k k k g'],
      'never',
    ],
  ])('decides %s within 5,000 states', (_what, rows, answer) => {
    expect(solve(graph([floor(rows.join('\n'))]), 5000).answer).toBe(answer);
  });

  it('decides boards of 6 by 6 to 8 by 8 that a walk drew, and finds a way over each', () => {
    for (let n = 0; n < 60; n++) {
      const random = randomStream(`board ${n}`);
      const [columns, rows] = [6 + random.below(3), 6 + random.below(3)];
      const cells = Array.from({ length: columns * rows }, () => 'w');
      const free = (i: number): number[] =>
        [i % columns > 0 ? i - 1 : -1, i % columns < columns - 1 ? i + 1 : -1, i - columns, i + columns].filter(
          (other) => cells[other] === 'w',
        );
      let at = random.below(cells.length);
      cells[at] = 's';
      for (let next = free(at); next.length > 0; next = free(at)) {
        at = next.reduce((best, other) =>
          free(other).length + random.between(0, 2) < free(best).length ? other : best,
        );
        cells[at] = 'k';
      }
      cells[at] = 'g*1';
      const of = graph([
        floor(
          Array.from({ length: rows }, (_unused, row) =>
            cells.slice(row * columns, (row + 1) * columns).join(' '),
          ).join('\n'),
        ),
      ]);
      const found = solve(of, 20000);
      expect([n, found.answer]).toEqual([n, 'reached']);
      expect([...found.way].sort((a, b) => a - b)).toEqual(of.nodes.map((_node, i) => i));
      found.way.slice(1).forEach((i, step) => expect(of.nodes[found.way[step]].next).toContain(i));
    }
  });

  it('can be cancelled midway', () => {
    const context = createRunContext({ cancel: { aborted: true } });
    expect(() => solveTiles(graph([floor('s m f m\nf f f f\nm f m g')]), {}, context)).toThrow(
      expect.objectContaining({ code: 'CANCELLED' }) as Error,
    );
  });
});
