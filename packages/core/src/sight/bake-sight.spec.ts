import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { CoreError } from '../errors';
import { boxPlanes, wedgePlanes } from '../geometry/block-solid';
import type { TurnDegrees, Vector3 } from '../model/vector';
import { blockPlanesOf, isClear, missingPairs, planStabbing, roomGrid, witnessPairs } from '../testing';
import { bakeSight } from './bake-sight';
import { pocketAt } from './closure';
import type { HidingBlock, SightInput } from './sight-input';
import type { SightResult } from './sight-result';

const box = (id: string, position: Vector3, size: Vector3, turn: TurnDegrees = [0, 0, 0]): HidingBlock => ({
  id,
  position,
  turn,
  planes: boxPlanes(size),
});
const bake = (input: Partial<SightInput>, options = {}): SightResult =>
  bakeSight(
    { blocks: [], dividers: [], spawns: [], bounds: null, openSky: false, ...input },
    options,
    createRunContext(),
  );

/** Six walls round a room of 4 by 3 by 4 whose inner corner is at the origin. */
const room = (gap = 0): HidingBlock[] => [
  box('floor', [2, -1, 2], [6, 1, 6]),
  box('roof', [2, 3, 2], [6, 1, 6]),
  box('west', [-0.5, 0, 2], [1, 3, 6]),
  box('east', [4.5, 0, 2], [1, 3, 6]),
  box('north', [2, 0, -0.5], [4, 3, 1]),
  box('south', [2 - gap / 2, 0, 4.5], [4 - gap, 3, 1]),
];
const spawn = { id: 's', position: [2, 0, 2] as Vector3 };

describe('sight bake, small cases', () => {
  it('makes one pocket of an empty room, by hand', () => {
    const result = bake({ blocks: room(), spawns: [spawn] });
    expect(result.closed).toBe(true);
    const reached = result.pockets.filter((pocket) => pocket.reached);
    expect(reached).toHaveLength(1);
    expect(reached[0].planes).toHaveLength(6);
    expect(reached[0].bounds).toEqual({ min: [0, 0, 0], max: [4, 3, 4] });
  });

  it('finds the way out of a room with a gap, and calls an unclosed level under open sky closed', () => {
    const leaking = bake({ blocks: room(1), spawns: [spawn] });
    expect(leaking.closed).toBe(false);
    expect(leaking.findings.map(({ code }) => code)).toEqual(['LEAK']);
    const way = leaking.wayOut as readonly Vector3[];
    expect(way[0]).toEqual(spawn.position);
    expect(way[way.length - 1][2]).toBeGreaterThan(4.9);
    expect(bake({ blocks: room(1), spawns: [spawn], openSky: true }).closed).toBe(true);
  });

  it('names a spawn inside a block, a level without spawn, and blocks whose planes enclose nothing', () => {
    expect(
      bake({ blocks: room(), spawns: [{ id: 'x', position: [4.5, 1, 2] }] }).findings.map(
        ({ code, subject }) => `${code} ${subject}`,
      ),
    ).toEqual(['SPAWN_IN_BLOCK x']);
    expect(bake({ blocks: room() }).findings.map(({ code }) => code)).toEqual(['NO_SPAWN']);
    const empty: HidingBlock = {
      ...box('void', [1, 0, 1], [1, 1, 1]),
      planes: [...boxPlanes([1, 1, 1]).slice(0, 5), [0, 0, -1, -9]],
    };
    const found = bake({ blocks: [...room(), empty], spawns: [spawn] }).findings;
    expect(found.map(({ code, subject }) => `${code} ${subject}`)).toEqual(['BLOCK_UNUSABLE void']);
    expect(() => bake({})).toThrow(CoreError);
  });

  it('keeps a slit of a tenth of a millimetre between two walls', () => {
    const walls = [...room(), box('left', [0.99995, 0, 2], [1.9999, 3, 0.2]), box('right', [3, 0, 2], [2, 3, 0.2])];
    const result = bake({ blocks: walls, spawns: [{ id: 's', position: [1, 0, 1] }] });
    const a = pocketAt(result.pockets, [1, 1, 1]);
    const b = pocketAt(result.pockets, [1, 1, 3]);
    expect(result.visible[a]).toContain(b);
  });

  it('does not see the end of a closed zigzag corridor from its start', () => {
    const blocks = [
      box('floor', [10, -1, 5], [22, 1, 12]),
      box('roof', [10, 3, 5], [22, 1, 12]),
      box('n', [10, 0, -0.5], [22, 3, 1]),
      box('s', [10, 0, 10.5], [22, 3, 1]),
      box('w', [-0.5, 0, 5], [1, 3, 10]),
      box('e', [20.5, 0, 5], [1, 3, 10]),
    ];
    for (let i = 0; i < 4; i++) blocks.push(box(`turn${i}`, [4 + i * 4, 0, i % 2 === 0 ? 4 : 6], [0.5, 3, 8]));
    const result = bake({ blocks, spawns: [{ id: 's', position: [1, 0, 1] }] });
    const start = pocketAt(result.pockets, [1, 1, 1]);
    const end = pocketAt(result.pockets, [19, 1, 1]);
    expect(result.closed).toBe(true);
    expect(end).toBeGreaterThanOrEqual(0);
    expect(result.visible[start]).not.toContain(end);
    expect(result.visible[end]).not.toContain(start);
  });

  it('takes blocks that coincide, are needle-thin or a kilometre long', () => {
    const blocks = [
      ...room(),
      box('twin', [1, 0, 1], [1, 1, 1]),
      box('twin2', [1, 0, 1], [1, 1, 1]),
      box('needle', [3, 0, 3], [0.0002, 2, 0.0002], [33, 0, 0]),
      box('long', [0, 10, 0], [1000, 1, 1], [12, 3, 0]),
    ];
    const result = bake({ blocks, spawns: [spawn] });
    expect(result.closed).toBe(true);
    expect(result.figures.reachedPockets).toBeGreaterThan(3);
  });

  it('refuses more blocks than its limit, saying how many', () => {
    expect(() => bake({ blocks: room() }, { blockLimit: 5 })).toThrow(
      /at most 5 blocks that block view, the level has 6/,
    );
  });

  it('falls back to the rough bound at the step limit, counted, and loses nothing', () => {
    const input = roomGrid(4, 4);
    const free = bake(input);
    const limited = bake(input, { stepLimit: 2 });
    expect(limited.figures.limitedOpenings).toBeGreaterThan(0);
    expect(limited.findings.map(({ code }) => code)).toContain('SIGHT_STEP_LIMIT');
    free.visible.forEach((list, a) => expect(limited.visible[a]).toEqual(expect.arrayContaining([...list])));
  });

  it('stops when cancelled midway', () => {
    let progressed = 0;
    const cancel = { aborted: false };
    const context = createRunContext({
      cancel,
      onProgress: (fraction) => {
        progressed = fraction;
        if (fraction > 0.1) cancel.aborted = true;
      },
    });
    expect(() => bakeSight(roomGrid(6, 6), {}, context)).toThrow(/cancelled/);
    expect(progressed).toBeLessThan(1);
  });

  it('gives the same bytes for the same input', () => {
    expect(JSON.stringify(bake(roomGrid(3, 3)))).toBe(JSON.stringify(bake(roomGrid(3, 3))));
  });

  it('derives pocket keys from the lattice, so that a change in one cell leaves the keys of others', () => {
    const input = { blocks: [...room(), box('far', [100, 0, 100], [2, 2, 2])], spawns: [spawn], openSky: true };
    const before = bake(input);
    const after = bake({ ...input, blocks: [...input.blocks, box('more', [110, 0, 110], [3, 1, 3])] });
    const near = (result: SightResult): string[] =>
      result.pockets
        .filter(({ key }) => key.startsWith('0,0,0:'))
        .map(({ key, planes }) => `${key} ${JSON.stringify(planes)}`);
    expect(near(after)).toEqual(near(before));
  });
});

describe('dividers', () => {
  it('split pockets at any angle within their rectangle and nowhere else', () => {
    const input = { blocks: room(), spawns: [spawn] };
    const divided = bake({
      ...input,
      dividers: [{ id: 'd', from: [0, 0] as const, to: [4, 4] as const, bottom: -1, top: 5 }],
    });
    expect(divided.figures.reachedPockets).toBe(2);
    const elsewhere = bake({
      ...input,
      dividers: [{ id: 'd', from: [20, 0] as const, to: [24, 4] as const, bottom: -1, top: 5 }],
    });
    expect(elsewhere.figures.reachedPockets).toBe(1);
    const flat = bake({
      ...input,
      dividers: [{ id: 'd', from: [1, 1] as const, to: [1, 1] as const, bottom: 0, top: 5 }],
    });
    expect(flat.figures.reachedPockets).toBe(1);
  });
});

describe('truth of visible sets', () => {
  it('covers the extruded 20 by 20 building within 3 % of exact stabbing, and misses none of it', () => {
    const result = bake(roomGrid(20, 20));
    const exact = planStabbing(result);
    const exactPairs = exact.reduce((sum, set) => sum + set.size - 1, 0);
    expect(exactPairs).toBeGreaterThan(10000);
    exact.forEach((set, a) => {
      const seen = new Set(result.visible[a]);
      expect([...set].filter((b) => !seen.has(b))).toEqual([]);
    });
    expect(result.figures.visiblePairs / exactPairs).toBeLessThanOrEqual(1.03);
  }, 120000);

  it('is witnessed by sight lines for nine pairs of ten, misses no witnessed pair, and removed pairs are caught', () => {
    const input = roomGrid(8, 8);
    const result = bake(input);
    const { pairs, lines, clear } = witnessPairs(input, result, (a) => result.visible[a]);
    const claimed = result.figures.visiblePairs / 2;
    expect(clear).toBeGreaterThan(100);
    expect(lines).toBeGreaterThanOrEqual(clear);
    expect(pairs.size / claimed).toBeGreaterThanOrEqual(0.9);
    expect(missingPairs(result.visible, pairs)).toEqual([]);
    const removed = [...pairs].filter((_pair, i) => i % Math.floor(pairs.size / 10) === 0).slice(0, 10);
    const damaged = result.visible.map((list, a) =>
      list.filter((b) => !removed.includes(a < b ? `${a},${b}` : `${b},${a}`)),
    );
    expect(missingPairs(damaged, pairs).sort()).toEqual([...removed].sort());
  }, 120000);

  it('sees the same in a building that is turned as a whole', () => {
    const straight = roomGrid(4, 4);
    const turned: SightInput = {
      ...straight,
      blocks: straight.blocks.map((block) => {
        const [x, y, z] = block.position;
        const angle = (23 * Math.PI) / 180;
        return {
          ...block,
          turn: [23, 0, 0],
          position: [Math.cos(angle) * x + Math.sin(angle) * z, y, -Math.sin(angle) * x + Math.cos(angle) * z],
        };
      }),
      spawns: [
        {
          id: 's',
          position: [Math.cos(0.4014) * 3 + Math.sin(0.4014) * 3, 0, -Math.sin(0.4014) * 3 + Math.cos(0.4014) * 3],
        },
      ],
    };
    const result = bake(turned);
    expect(result.closed).toBe(true);
    const { pairs } = witnessPairs(turned, result, (a) =>
      result.pockets.flatMap((pocket, b) => (pocket.reached && result.pockets[a].reached ? [b] : [])),
    );
    expect(pairs.size).toBeGreaterThan(50);
    expect(missingPairs(result.visible, pairs)).toEqual([]);
  }, 60000);

  it('never hides one end of a clear line from the other, whatever blocks stand about', () => {
    const part = fc.double({ min: 0, max: 1, noNaN: true });
    const block = fc.record({
      at: fc.tuple(part, part, part),
      size: fc.tuple(part, part, part),
      turn: fc.tuple(part, part, part),
      wedge: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(block, { minLength: 1, maxLength: 9 }),
        fc.array(fc.tuple(part, part, part, part, part, part), { minLength: 30, maxLength: 30 }),
        (blocks, lines) => {
          const input: SightInput = {
            blocks: blocks.map(({ at, size, turn, wedge }, i) => {
              const metres: Vector3 = [0.2 + size[0] * 6, 0.2 + size[1] * 6, 0.2 + size[2] * 6];
              return {
                id: `b${i}`,
                position: [at[0] * 10, at[1] * 10 - 2, at[2] * 10],
                turn: [turn[0] * 360, turn[1] * 90, turn[2] * 90],
                planes: wedge ? wedgePlanes(metres) : boxPlanes(metres),
              };
            }),
            dividers: [],
            spawns: [],
            bounds: { min: [0, 0, 0], max: [10, 10, 10] },
            openSky: true,
          };
          const result = bakeSight(input, { latticeMetres: 8 }, createRunContext());
          const solids = blockPlanesOf(input);
          const sets = result.visible.map((list) => new Set(list));
          for (const [ax, ay, az, bx, by, bz] of lines) {
            const a: Vector3 = [ax * 10, ay * 10, az * 10];
            const b: Vector3 = [bx * 10, by * 10, bz * 10];
            if (!isClear(solids, a, b)) continue;
            const from = pocketAt(result.pockets, a);
            const to = pocketAt(result.pockets, b);
            if (from < 0 || to < 0) continue;
            expect(sets[from].has(to)).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  }, 120000);
});
