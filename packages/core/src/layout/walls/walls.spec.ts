import fc from 'fast-check';
import { createRunContext } from '../../context/run-context';
import { EMPTY_CONTENT } from '../../items';
import { convexParts } from '../../geometry/convex-parts';
import type { Block } from '../../model/block';
import type { Level } from '../../model/level';
import type { PlanPoint, Vector3 } from '../../model/vector';
import type { Wall } from '../../model/wall';
import { bakeSight } from '../../sight/bake-sight';
import { hidingBlocks } from '../../sight/level-sight-input';
import type { SightResult } from '../../sight/sight-result';
import { planeSolid } from '../blocks/plane-solid';
import { levelContent } from '../level-content';
import { blocksOfWall, detachedBlocks } from './wall-blocks';
import { fittedOffset, newOpening, placeOnWall, withCorner, withoutCorner, type PlaceOnWall } from './wall-edits';
import { openingsThatDoNotFit, wallFindings } from './wall-findings';
import { wallPlan } from './wall-segments';

const wallOf = (points: readonly PlanPoint[], over: Partial<Wall> = {}): Wall => ({
  id: 'w',
  name: '',
  corners: points.map((position, i) => ({ id: `c${i}`, position })),
  closed: false,
  baseMetres: 0,
  heightMetres: 3,
  thicknessMetres: 0.5,
  openings: [],
  floorMetres: 0,
  ceilingMetres: 0,
  sight: 'hides',
  material: 'brick',
  ...over,
});
const ROOM: readonly PlanPoint[] = [
  [0, 0],
  [6, 0],
  [6, 4],
  [0, 4],
];
const door = { id: 'o', corner: 'c0', offsetMetres: 3, widthMetres: 1, sillMetres: 0, headMetres: 2 };
const volume = (blocks: readonly Block[]): number =>
  blocks.reduce((sum, { planes }) => sum + (planeSolid(planes)?.cubicMetres ?? 0), 0);
const holds = ({ position, planes }: Block, [x, y, z]: Vector3, slack = 0): boolean =>
  planes.every(
    ([nx, ny, nz, d]) =>
      nx * (x - position[0]) + ny * (y - position[1]) + nz * (z - position[2]) <=
      d + slack * Math.sqrt(nx * nx + ny * ny + nz * nz),
  );
const bake = (wall: Wall, spawn: Vector3): SightResult =>
  bakeSight(
    {
      blocks: hidingBlocks(blocksOfWall(wall)),
      dividers: [],
      spawns: [{ id: 's', position: spawn }],
      bounds: null,
      openSky: false,
    },
    {},
    createRunContext(),
  );

describe('the blocks of a wall', () => {
  it('are one a segment, and with floor and ceiling go under and over what its line encloses', () => {
    expect(blocksOfWall(wallOf(ROOM.slice(0, 2))).map(({ id }) => id)).toEqual(['w.c0-1']);
    expect(volume(blocksOfWall(wallOf(ROOM.slice(0, 2))))).toBeCloseTo(6 * 3 * 0.5, 9);
    const room = wallOf(ROOM, { closed: true, floorMetres: 0.25, ceilingMetres: 0.5 });
    expect(blocksOfWall(room).map(({ id }) => id)).toEqual([
      'w.c0-1',
      'w.c1-1',
      'w.c2-1',
      'w.c3-1',
      'w.floor-1',
      'w.ceiling-1',
    ]);
    expect(volume(blocksOfWall(room))).toBeCloseTo((6.5 * 4.5 - 5.5 * 3.5) * 3.75 + 6 * 4 * (0.25 + 0.5), 9);
  });

  it('leave a door and a window open, with a wall over both and under the one', () => {
    const window = { ...door, id: 'p', offsetMetres: 5, sillMetres: 1 };
    const blocks = blocksOfWall(wallOf(ROOM.slice(0, 2), { openings: [window, door] }));
    expect(blocks.map(({ id }) => id)).toEqual(['w.c0-1', 'w.c0-2', 'w.c0-3', 'w.c0-4', 'w.c0-5', 'w.c0-6']);
    expect(volume(blocks)).toBeCloseTo((6 * 3 - 2 - 1) * 0.5, 9);
    const open = (at: Vector3): boolean => !blocks.some((block) => holds(block, at));
    expect([open([3, 1, 0]), open([3, 2.5, 0]), open([5, 1.5, 0]), open([5, 0.5, 0])]).toEqual([
      true,
      false,
      true,
      false,
    ]);
  });

  it('of openings over one another leave out both once', () => {
    const wide = { ...door, id: 'p', offsetMetres: 3.25, sillMetres: 1, headMetres: 2.5 };
    expect(volume(blocksOfWall(wallOf(ROOM.slice(0, 2), { openings: [door, wide] })))).toBeCloseTo(
      (6 * 3 - (1 * 2 + 1 * 1.5 - 0.75 * 1)) * 0.5,
      9,
    );
  });

  it('cut an opening off where its segment ends, and say so', () => {
    const wide = wallOf(ROOM, {
      closed: true,
      openings: [{ ...door, offsetMetres: 0.5, widthMetres: 3, headMetres: 9 }],
    });
    expect(openingsThatDoNotFit(wide)).toHaveLength(1);
    expect(volume(blocksOfWall(wide))).toBeCloseTo((6.5 * 4.5 - 5.5 * 3.5) * 3 - 1.75 * 3 * 0.5, 9);
    expect(openingsThatDoNotFit(wallOf(ROOM, { closed: true, openings: [door] }))).toEqual([]);
  });

  it('go together at corners that turn back or have no room for a mitre', () => {
    for (const points of [
      [
        [0, 0],
        [6, 0],
        [0, 1],
      ],
      [
        [0, 0],
        [6, 0],
        [0, 0],
      ],
      [
        [0, 0],
        [6, 0],
        [6, 0.1],
        [0, 0.1],
      ],
      [
        [0, 0],
        [0, 0],
        [6, 0],
        [6, 0],
      ],
    ] satisfies PlanPoint[][]) {
      const blocks = blocksOfWall(wallOf(points));
      for (const [x, z] of points) expect(blocks.some((block) => holds(block, [x, 1, z], 1e-9))).toBe(true);
    }
    expect(
      blocksOfWall(
        wallOf([
          [2, 2],
          [2, 2],
        ]),
      ),
    ).toEqual([]);
    expect(() =>
      detachedBlocks(
        wallOf([
          [2, 2],
          [2, 2],
        ]),
        () => 'n',
      ),
    ).toThrow('no solid part');
  });

  it('of a ring that crosses itself have no floor, which a finding says', () => {
    const bow = wallOf([ROOM[0], ROOM[2], ROOM[1], ROOM[3]], { closed: true, floorMetres: 0.2, name: 'bow' });
    expect(blocksOfWall(bow).every(({ id }) => !id.includes('floor'))).toBe(true);
    const level = { id: 'l', name: 'Kiln' } as Level;
    const stratum = { id: 's', name: 'S', role: 'base', owner: 'l' } as const;
    const content = {
      ...EMPTY_CONTENT,
      wall: [bow, wallOf(ROOM, { id: 'v', openings: [{ ...door, corner: 'gone' }] })],
    };
    const read = levelContent(level, [{ stratum, content }], new Map());
    expect(read.strata[0].content.block.map(({ id }) => id.split('.')[0])).toEqual([
      ...Array<string>(blocksOfWall(bow).length).fill('w'),
      'v',
      'v',
      'v',
    ]);
    expect(wallFindings(read).map(({ code, message }) => [code, message])).toEqual([
      [
        'WALL_NOT_A_RING',
        'The wall “bow” of Kiln crosses itself or encloses nothing, so it has neither floor nor ceiling',
      ],
      ['WALL_OPENING_CUT_OFF', 'A wall of Kiln has an opening beyond the end of its segment or above the wall'],
    ]);
  });
});

describe('edits of a wall', () => {
  const room = wallOf(ROOM, { closed: true, openings: [door] });

  it('find the nearest place on its line, and keep an opening where the wall is whole', () => {
    expect(placeOnWall(room, [2, 1])).toEqual({ corner: 'c0', offsetMetres: 2, awayMetres: 1 });
    expect(placeOnWall(room, [-9, 1])).toEqual({ corner: 'c3', offsetMetres: 3, awayMetres: 9 });
    expect(
      placeOnWall(
        wallOf([
          [2, 2],
          [2, 2],
        ]),
        [0, 0],
      ),
    ).toBeUndefined();
    expect([0, 5.9, 3].map((offset) => fittedOffset(room, 'c0', offset, 1))).toEqual([0.75, 5.25, 3]);
    expect(fittedOffset(room, 'c0', 1, 9)).toBe(3);
    const size = { widthMetres: 1, sillMetres: 2, headMetres: 2.5 };
    expect(
      newOpening({ ...room, heightMetres: 2 }, { corner: 'c1', offsetMetres: 0, awayMetres: 0 }, size, 'n'),
    ).toEqual({
      id: 'n',
      corner: 'c1',
      offsetMetres: 0.75,
      widthMetres: 1,
      sillMetres: 0,
      headMetres: 2,
    });
  });

  it('put a corner in and take it out again without moving its openings', () => {
    const at = placeOnWall(room, [1.5, 0]) as PlaceOnWall;
    const split = { ...room, ...withCorner(room, at, 'n') };
    expect(split.corners.map(({ id }) => id)).toEqual(['c0', 'n', 'c1', 'c2', 'c3']);
    expect(split.openings).toEqual([{ ...door, corner: 'n', offsetMetres: 1.5 }]);
    expect(volume(blocksOfWall(split))).toBeCloseTo(volume(blocksOfWall(room)), 9);
    expect(withoutCorner(split, 'n')).toEqual({ corners: room.corners, openings: room.openings });
    const open = wallOf(ROOM, { openings: [door, { ...door, id: 'p', corner: 'c2' }] });
    expect(
      [withoutCorner(open, 'c0').openings, withoutCorner(open, 'c3').openings].map((all) => all.map(({ id }) => id)),
    ).toEqual([['p'], ['o']]);
    expect(() => withoutCorner(wallOf(ROOM.slice(0, 2)), 'c0')).toThrow('needs two corners');
  });
});

/** Rooms that do not cross themselves: corners in every direction around the middle, near and far. */
const rooms = fc
  .record({
    reaches: fc.array(fc.integer({ min: 20, max: 120 }), { minLength: 3, maxLength: 11 }),
    at: fc.constantFrom<PlanPoint>([0, 0], [3.7, -5], [40000, -20000]),
    turn: fc.integer({ min: 0, max: 359 }),
    thickness: fc.constantFrom(0.1, 0.25, 0.5, 1),
    isBack: fc.boolean(),
  })
  .map(({ reaches, at, turn, thickness, isBack }) => {
    const points = reaches.map((reach, i): PlanPoint => {
      const angle = (turn / 180 + (2 * i) / reaches.length) * Math.PI;
      return [
        Math.round((at[0] + (Math.cos(angle) * reach) / 10) * 1e6) / 1e6,
        Math.round((at[1] + (Math.sin(angle) * reach) / 10) * 1e6) / 1e6,
      ];
    });
    return {
      middle: [at[0], 1.2, at[1]] as const,
      wall: wallOf(isBack ? points.reverse() : points, {
        closed: true,
        floorMetres: 0.3,
        ceilingMetres: 0.2,
        thicknessMetres: thickness,
      }),
    };
  });

/** Lines of any sort: short segments, sharp turns, corners in one place, crossings. */
const lines = fc.record({
  points: fc.array(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 })), {
    minLength: 2,
    maxLength: 9,
  }),
  closed: fc.boolean(),
  thickness: fc.constantFrom(0.1, 0.5, 2, 5),
});

describe('walls around rooms', () => {
  it('close them, as the bake finds, unless an opening leads out', () => {
    fc.assert(
      fc.property(rooms, ({ wall, middle }) => {
        const { segments, inside } = wallPlan(wall);
        const plan = convexParts(inside);
        // A wall thicker than its room leaves no place to stand.
        fc.pre(plan.length > 0 && !blocksOfWall(wall).some((block) => holds(block, middle, 1e-3)));
        const closed = bake(wall, middle);
        expect([closed.closed, closed.findings.map(({ code }) => code)]).toEqual([true, []]);
        const widest = segments.reduce((a, b) => (b.whole[1] - b.whole[0] > a.whole[1] - a.whole[0] ? b : a));
        const width = (widest.whole[1] - widest.whole[0]) / 2;
        fc.pre(width > 0.3);
        const opening = {
          id: 'o',
          corner: widest.corner,
          offsetMetres: (widest.whole[0] + widest.whole[1]) / 2,
          widthMetres: width,
          sillMetres: 0.5,
          headMetres: 2,
        };
        expect(bake({ ...wall, openings: [opening] }, middle).closed).toBe(false);
      }),
      { numRuns: 12 },
    );
  });

  it('fill just what a band along the line with filled corners fills', () => {
    fc.assert(
      fc.property(
        lines,
        fc.array(fc.tuple(fc.double({ min: -2, max: 14, noNaN: true }), fc.double({ min: -2, max: 14, noNaN: true })), {
          minLength: 40,
          maxLength: 40,
        }),
        ({ points, closed, thickness }, samples) => {
          const wall = wallOf(points, { closed, thicknessMetres: thickness });
          const blocks = blocksOfWall(wall);
          for (const [x, z] of samples) {
            const isIn = blocks.some((block) => holds(block, [x, 1, z]));
            if (
              isIn !== blocks.some((block) => holds(block, [x, 1, z], -1e-6)) ||
              isIn !== blocks.some((block) => holds(block, [x, 1, z], 1e-6))
            )
              continue;
            const away = Math.min(...bands(points, closed).map((band) => fromBand(band, [x, z])));
            // Nearer to the line than half its thickness and beside a segment: in it. Farther than a mitre's tip: not.
            if (away <= thickness / 2 - 1e-6) expect([x, z, isIn]).toEqual([x, z, true]);
            if (
              Math.min(...bands(points, closed).map((band) => fromLine(band, [x, z]))) >
              (thickness / 2) * Math.sqrt(5) + 1e-6
            )
              expect([x, z, isIn]).toEqual([x, z, false]);
          }
        },
      ),
    );
  });

  it('go along with floors whose parts have together the area of the outline', () => {
    fc.assert(
      fc.property(rooms, ({ wall }) => {
        const outline = wallPlan({ ...wall, thicknessMetres: 0.01 }).inside;
        const parts = convexParts(outline);
        const sum = parts.reduce((area, part) => area + areaOf(part), 0);
        expect(sum).toBeCloseTo(Math.abs(areaOf(outline)), 5);
        expect(parts.length).toBeLessThanOrEqual(outline.length - 2);
      }),
    );
  });
});

/** Twice the signed area of an outline. */
const areaOf = (outline: readonly PlanPoint[]): number =>
  outline.reduce((area, [x, z], i) => {
    const [nx, nz] = outline[(i + 1) % outline.length];
    return area + x * nz - z * nx;
  }, 0);

type Band = readonly [PlanPoint, PlanPoint];

function bands(points: readonly PlanPoint[], closed: boolean): Band[] {
  const all = points.map((from, i): Band => [from, points[(i + 1) % points.length]]);
  return closed ? all : all.slice(0, -1);
}

/** How far a point is from a band's line, where it lies beside the band; else as far as can be. */
function fromBand([a, b]: Band, [x, z]: PlanPoint): number {
  const [dx, dz] = [b[0] - a[0], b[1] - a[1]];
  const length = Math.sqrt(dx * dx + dz * dz);
  if (length === 0) return Infinity;
  const along = ((x - a[0]) * dx + (z - a[1]) * dz) / length;
  return along < 1e-6 || along > length - 1e-6 ? Infinity : Math.abs((x - a[0]) * dz - (z - a[1]) * dx) / length;
}

function fromLine([a, b]: Band, [x, z]: PlanPoint): number {
  const [dx, dz] = [b[0] - a[0], b[1] - a[1]];
  const square = dx * dx + dz * dz;
  const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((x - a[0]) * dx + (z - a[1]) * dz) / square));
  return Math.sqrt((a[0] + t * dx - x) ** 2 + (a[1] + t * dz - z) ** 2);
}
