import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import type { LevelContent } from '../layout/level-content';
import type { Block } from '../model/block';
import type { CellGrid } from '../model/cell-grid';
import type { Device } from '../model/device';
import type { Piece } from '../model/kit';
import type { Rehearsal } from '../model/rehearsal';
import { DEFAULT_VIEW } from '../model/view-settings';
import { EMPTY_CONTENT } from '../items';
import { RESIDENT, cutLevel } from './cut-level';
import { COLLISION_MAKERS } from '../detail/collision/makers';
import { bakeKey } from '../bakes/bake-key';
import { BAKES } from '../bakes';
import type { LevelScene } from '../bakes/bake-spec';
import { ReadQueue } from './read-queue';
import { walkPath } from './walk-path';
import { plainLevel } from '../testing/plain-level';

const context = createRunContext();
const device: Device = {
  id: 'd',
  name: 'Handheld',
  order: 'a0',
  budget: { triangles: 1e6, drawCalls: 1000, memoryBytes: 1e9, loadMs: 1e4, diskBytes: 1e9 },
  seekMs: 10,
  diskBytesPerSecond: 1e6,
  unpackBytesPerSecond: 2e6,
  activationSliceMs: 2,
  activationBytesPerMs: 50000,
  framesPerSecond: 50,
};
const tile = (id: string, x: number, z: number, size: readonly [number, number, number] = [10, 1, 10]): Block => ({
  id,
  name: id,
  position: [x, -1, z],
  turn: [0, 0, 0],
  planes: boxPlanes(size),
  sight: 'hides',
  material: 'sand',
});
const piece: Piece = {
  id: 'stack',
  kit: 'kit',
  name: 'stack',
  bounds: { min: [-1, 0, -1], max: [1, 4, 1] },
  steps: [{ triangles: 100, vertices: 80, materials: 1, bytes: 400000 }],
};
const grid: CellGrid = {
  id: 'l',
  sizeMetres: 10,
  origin: [0, 0],
  loadMetres: 12,
  dropMetres: 20,
  readyMetres: 0,
  resident: [],
};
const strata = (
  block: readonly Block[],
  placement: LevelContent['strata'][number]['content']['placement'] = [],
): LevelContent => ({
  level: plainLevel({ name: 'Flat', openSky: true }),
  strata: [
    { stratum: { id: 'own', name: 'Own', role: 'base', owner: 'l' }, content: { ...EMPTY_CONTENT, block, placement } },
  ],
});
/** Ten tiles in a row along x, a stack on the sixth. */
const row = strata(
  Array.from({ length: 10 }, (_unused, i) => tile(`t${i}`, i * 10 + 5, 5)),
  [{ id: 'p', piece: 'stack', position: [55, 0, 5], turn: [0, 0, 0], scale: [1, 1, 1] }],
);
const walk: Rehearsal = {
  id: 'w',
  level: 'l',
  name: 'Along',
  knots: [
    [2, 5],
    [98, 5],
  ],
  floorMetres: 0,
  speedMetresPerSecond: 4,
  device: 'd',
};
const kitLoads = { kit: { files: 2, memoryBytes: 400000, diskBytes: 220000 } };
interface Walked extends Pick<LevelScene, 'content' | 'pieces' | 'kits' | 'kitLoads' | 'floors'> {
  readonly grid: CellGrid;
  readonly rehearsal: Rehearsal;
  readonly device: Device;
}
const makeRehearsal = ({ rehearsal, device: on, ...scene }: Walked, run: typeof context) => {
  const devices = { [on.id]: on };
  const reads = BAKES.rehearsal.reads({ ...scene, view: DEFAULT_VIEW, rehearsals: [rehearsal], devices }, rehearsal.id);
  return BAKES.rehearsal.make(reads, [], run);
};
const input = (over: Partial<Walked> = {}): Walked => ({
  content: row,
  pieces: { stack: piece },
  kits: { kit: { id: 'kit', name: 'Yard kit', key: 'k', mesh: '' } },
  kitLoads,
  grid,
  rehearsal: walk,
  device,
  ...over,
});

describe('cutting a level', () => {
  const cut = (content: LevelContent, over: Partial<CellGrid> = {}) =>
    cutLevel({ content, pieces: { stack: piece }, kits: {}, kitLoads, grid: { ...grid, ...over } }, context);

  it('puts each thing into the cell of its middle, and counts it', () => {
    const { cells, resident, meshFiles, straddlers } = cut(row);
    expect(
      cells.map(({ key, blocks, placements, triangles, meshFiles: of }) => [key, blocks, placements, triangles, of]),
    ).toEqual(
      Array.from({ length: 10 }, (_unused, i) => [
        `${i},0`,
        1,
        i === 5 ? 1 : 0,
        i === 5 ? 112 : 12,
        i === 5 ? [0] : [],
      ]),
    );
    // 24 vertices of 32 bytes, 12 triangles of three indices and 36 bytes of collision.
    expect(cells[0].memoryBytes).toBe(24 * 32 + 12 * (12 + 36));
    expect([meshFiles, resident.blocks, straddlers]).toEqual([
      [{ key: 'kit', name: 'kit', files: 2, memoryBytes: 400000, diskBytes: 220000 }],
      0,
      [],
    ]);
  });

  it('states what straddles, and keeps what is too large or wanted always resident', () => {
    const content = strata([tile('over', 10, 5), tile('long', 50, 5, [25, 1, 2]), tile('in', 5, 5, [2, 1, 2])]);
    const { straddlers, residentThings, cells, cellOfThing } = cut(content);
    expect(straddlers.map(({ id, cells: count }) => [id, count])).toEqual([['over', 2]]);
    expect(residentThings.map(({ id, cell }) => [id, cell])).toEqual([['long', RESIDENT]]);
    expect([cells.map(({ key }) => key), cellOfThing['long'], cellOfThing['over']]).toEqual([
      ['0,0', '1,0'],
      RESIDENT,
      1,
    ]);
    expect(cut(row, { resident: ['own'] })).toMatchObject({ cells: [], resident: { blocks: 10, placements: 1 } });
  });

  it('loses nothing and counts nothing twice', () => {
    const blocks = fc.array(
      fc.record({
        x: fc.integer({ min: -200, max: 200 }),
        z: fc.integer({ min: -200, max: 200 }),
        size: fc.integer({ min: 1, max: 60 }),
      }),
      {
        maxLength: 30,
      },
    );
    fc.assert(
      fc.property(blocks, fc.integer({ min: 5, max: 50 }), (list, sizeMetres) => {
        const content = strata(list.map(({ x, z, size }, i) => tile(`b${i}`, x, z, [size, 1, size])));
        const { cells, resident, straddlers } = cut(content, { sizeMetres });
        expect(cells.reduce((sum, cell) => sum + cell.blocks, resident.blocks)).toBe(list.length);
        expect(cells.reduce((sum, cell) => sum + cell.straddling, 0)).toBe(straddlers.length);
        for (const { min, max } of cells) expect([max[0] - min[0], max[1] - min[1]]).toEqual([sizeMetres, sizeMetres]);
      }),
    );
  });

  it('names a placement whose piece is gone', () => {
    expect(() => cutLevel({ content: row, pieces: {}, kits: {}, kitLoads, grid }, context)).toThrow(
      'cells: the placement p uses the piece stack, which does not exist',
    );
    expect(() => cutLevel({ content: row, pieces: { stack: piece }, kits: {}, kitLoads: {}, grid }, context)).toThrow(
      'cells: the files of this kit are not known: kit',
    );
  });
});

describe('the read queue', () => {
  it('reads one file at a time while the one before unpacks, and activates in slices of a frame, by hand', () => {
    const files = [
      { files: 1, diskBytes: 20000, memoryBytes: 150000 },
      { files: 1, diskBytes: 10000, memoryBytes: 40000 },
    ];
    const queue = new ReadQueue(files, device);
    queue.ask(0, 0);
    queue.ask(1, 0);
    const ready: [number, number, number, number, number][] = [];
    for (let frame = 0; frame < 12; frame++) {
      const startMs = frame * 20;
      for (const load of queue.frame(startMs, startMs + 20, (waiting) => Math.min(...waiting.keys()))) {
        ready.push([load.file, load.readStartMs, load.readEndMs, load.unpackEndMs, load.readyMs]);
      }
    }
    // 0: 10 ms seek + 20 ms; unpack 75 ms to 105; frame ends at 120 (100,000 bytes) and 140 (50,000).
    // 1: 10 + 10 ms from 30 to 50; unpacks from 105 for 20 ms to 125; the rest of the frame that ends at 140 takes it.
    expect(ready).toEqual([
      [0, 0, 30, 105, 140],
      [1, 30, 50, 125, 140],
    ]);
  });

  it('takes back only what waits', () => {
    const queue = new ReadQueue(
      [
        { files: 1, diskBytes: 1e6, memoryBytes: 1 },
        { files: 1, diskBytes: 1, memoryBytes: 1 },
      ],
      device,
    );
    queue.ask(0, 0);
    queue.ask(1, 0);
    queue.frame(0, 20, (waiting) => Math.min(...waiting.keys()));
    expect([queue.takeBack(0), queue.takeBack(1), queue.takeBack(1)]).toEqual([false, true, false]);
  });
});

describe('a rehearsal', () => {
  it('walks with everything in time when cells are light', () => {
    const result = makeRehearsal(
      input({ device: { ...device, diskBytesPerSecond: 1e8, unpackBytesPerSecond: 1e8, activationBytesPerMs: 1e6 } }),
      context,
    );
    expect([result.late, result.gaps, result.findings]).toEqual([[], [], []]);
    expect(result.figures).toMatchObject({ lengthMetres: 96, durationMs: 24000, frames: 1200, startFiles: 5 });
    // The level's own three files and cells 0 and 1 at the start, the other eight and the kit along the way, each once.
    expect(result.loads.map(({ name }) => name).sort()).toEqual([
      '2,0',
      '3,0',
      '4,0',
      '5,0',
      '6,0',
      '7,0',
      '8,0',
      '9,0',
      'Yard kit',
    ]);
    expect(result.loads.filter(({ droppedMs }) => droppedMs !== null).map(({ name }) => name)).toEqual(
      expect.arrayContaining(['2,0', 'Yard kit']),
    );
  });

  it('tells what came late, by how long and where one stood; over what is missing one falls', () => {
    // The kit of cell 5 is asked for 12 m before it, at 38 m, 9 s in; 5.51 s of reading make it late at 50 m, 12 s in.
    const slow = { ...device, diskBytesPerSecond: 40000 };
    const result = makeRehearsal(input({ device: slow }), context);
    const [late] = result.late;
    expect(late).toMatchObject({ key: '5,0', neededMs: 12000, at: [50, 0, 5] });
    expect(late.readyMs).toBe(late.neededMs + late.lateMs);
    const kit = result.loads.find(({ what }) => what === 'meshes');
    expect(kit).toMatchObject({ askedMs: 9000, readStartMs: 9000 });
    expect(kit?.readEndMs).toBeCloseTo(9000 + 20 + (220000 / 40000) * 1000, 6);
    expect(late.readyMs).toBeGreaterThanOrEqual(kit?.readyMs ?? 0);
    const [gap] = result.gaps;
    expect(gap).toMatchObject({ cause: 'late', cell: '5,0' });
    expect(gap.toMs - gap.fromMs).toBeGreaterThan(0);
    expect(result.findings.map(({ code, severity }) => [code, severity])).toEqual([
      ['NOTHING_UNDERFOOT', 'error'],
      ['CELL_LATE', 'warning'],
      // The kit kept the disk busy: the next cell is late as well.
      ['CELL_LATE', 'warning'],
    ]);
    expect(result.findings[0].place.position?.[0]).toBeCloseTo(50, 0);
  });

  it('holds a kit as long as any cell needs it', () => {
    const two = strata(row.strata[0].content.block, [
      { id: 'p', piece: 'stack', position: [15, 0, 5], turn: [0, 0, 0], scale: [1, 1, 1] },
      { id: 'q', piece: 'stack', position: [35, 0, 5], turn: [0, 0, 0], scale: [1, 1, 1] },
    ]);
    const { loads, residentBytes, timesMs } = makeRehearsal(input({ content: two }), context);
    // Cell 1 is dropped at 40 m, cell 3 at 60 m; the kit goes with the latter.
    expect(loads.filter(({ what }) => what === 'meshes')).toEqual([]);
    const drops = timesMs.filter((_ms, i) => i > 0 && residentBytes[i] < residentBytes[i - 1] - 300000);
    expect(drops).toHaveLength(1);
    expect(drops[0]).toBeCloseTo(((60 - 2) / 4) * 1000, -2);
  });

  it('finds a path without a floor at the first look beyond the edge', () => {
    const gap = strata(row.strata[0].content.block.filter(({ id }) => id !== 't4'));
    const { findings } = makeRehearsal(input({ content: gap }), context);
    expect(findings.filter(({ code }) => code === 'PATH_OFF_FLOOR')).toMatchObject([
      { severity: 'error', place: { level: 'l', position: [40.25, 0, 5] } },
    ]);
  });

  it('walks a level of pieces alone, and says that what is underfoot is not known', () => {
    const pieces = strata([], [{ id: 'p', piece: 'stack', position: [75, 0, 5], turn: [0, 0, 0], scale: [1, 1, 1] }]);
    const { findings, loads } = makeRehearsal(input({ content: pieces }), context);
    expect(findings.map(({ code }) => code)).toEqual(['FOOTING_UNWATCHED']);
    expect(loads.length).toBeGreaterThan(0);
  });

  it('walks on pieces that have a collision, once their cell and their kit are there', () => {
    const collision = { shape: 'box', triangles: 12, vertices: 8, bytes: 240, digest: '' } as const;
    const deck: Piece = { ...piece, bounds: { min: [-5, -1, -5], max: [5, 0, 5] }, collision };
    const source = { bounds: deck.bounds, mesh: { name: '', parts: [] }, own: undefined, materials: [] };
    const mesh = COLLISION_MAKERS.box.make(source, context);
    if (!mesh) throw new Error('a box can always be made');
    const decks = strata(
      [],
      Array.from({ length: 10 }, (_unused, i) => ({
        id: `p${i}`,
        piece: 'stack',
        position: [i * 10 + 5, 0, 5] as const,
        turn: [90 * i, 0, 0] as const,
        scale: [1, 1, i % 2 ? -1 : 1] as const,
      })),
    );
    const scene = { content: decks, pieces: { stack: deck }, floors: { stack: mesh } };
    expect(makeRehearsal(input(scene), context).findings).toEqual([]);
    // Two are missing, and nothing but the kit is late: the first cells need it, so that it is there from the start.
    const holed = strata(
      [],
      decks.strata[0].content.placement.filter(({ id }) => id !== 'p4' && id !== 'p5'),
    );
    const { findings } = makeRehearsal(input({ ...scene, content: holed }), context);
    expect(findings).toMatchObject([{ code: 'PATH_OFF_FLOOR', place: { position: [40.25, 0, 5] } }]);
    // On blocks first: what carries stands in a kit that comes later than its cell.
    const late = strata(row.strata[0].content.block.slice(0, 5), decks.strata[0].content.placement.slice(5));
    const slow = { ...device, diskBytesPerSecond: 40000 };
    const { gaps } = makeRehearsal(input({ ...scene, content: late, device: slow }), context);
    expect(gaps[0]).toMatchObject({ cause: 'late', cell: '5,0', from: [50.25, 0, 5] });
    expect(() => makeRehearsal(input({ ...scene, floors: {} }), context)).toThrow(
      'the collision of stack is not in its kit',
    );
    // The key knows the collision by its digest alone.
    const keyed = (over: Partial<Walked>) => {
      const { rehearsal, device: on, ...rest } = input({ ...scene, ...over });
      const whole = { ...rest, view: DEFAULT_VIEW, rehearsals: [rehearsal], devices: { [on.id]: on } };
      return bakeKey('rehearsal', BAKES.rehearsal.reads(whole, rehearsal.id));
    };
    expect(keyed({ floors: {} })).toBe(keyed({}));
    const other = { ...deck, collision: { ...collision, digest: 'another' } };
    expect(keyed({ pieces: { stack: other } })).not.toBe(keyed({}));
  });

  it('finds a hole of a metre at any speed: what is crossed between two frames counts', () => {
    const holed = strata([tile('a', 20, 5, [40, 1, 10]), tile('b', 71, 5, [60, 1, 10])]);
    for (const speedMetresPerSecond of [4, 40, 80]) {
      const { findings } = makeRehearsal(
        input({ content: holed, rehearsal: { ...walk, speedMetresPerSecond } }),
        context,
      );
      expect(findings.filter(({ code }) => code === 'PATH_OFF_FLOOR')).toHaveLength(1);
    }
  });

  it('reads a kit as soon as its nearest cell asks for it, though other cells wait as well', () => {
    // Cell 5 needs the kit and is asked for first; cell 6 of the same moment's end must not go before the kit.
    const slow = { ...device, diskBytesPerSecond: 40000 };
    const heavy = strata(row.strata[0].content.block, row.strata[0].content.placement);
    const { loads } = makeRehearsal(
      input({ content: heavy, grid: { ...grid, loadMetres: 25, dropMetres: 40 }, device: slow }),
      context,
    );
    const read = (name: string): number => loads.find((load) => load.name === name)?.readStartMs ?? NaN;
    expect(read('Yard kit')).toBeLessThan(read('6,0'));
    expect(read('Yard kit')).toBeLessThan(read('7,0'));
  });

  it('is over the memory of the device when what is resident is', () => {
    const { findings } = makeRehearsal(
      input({ device: { ...device, budget: { ...device.budget, memoryBytes: 400000 } } }),
      context,
    );
    expect(findings.map(({ code }) => code)).toContain('CELLS_OVER_MEMORY');
  });

  it('is the same twice, and stops when it is cancelled', () => {
    expect(makeRehearsal(input(), context)).toEqual(makeRehearsal(input(), context));
    expect(() => makeRehearsal(input(), createRunContext({ cancel: { aborted: true } }))).toThrow('cancelled');
  });

  it.each([
    [
      'a path of no length',
      {
        rehearsal: {
          ...walk,
          knots: [
            [3, 3],
            [3, 3],
          ] as const,
        },
      },
      'rehearsal: the path has no length, its 2 knots must be at least 2 and apart; draw one on the plan',
    ],
    [
      'no knots',
      { rehearsal: { ...walk, knots: [] } },
      'rehearsal: the path has no length, its 0 knots must be at least 2 and apart; draw one on the plan',
    ],
    [
      'a knot that is no place',
      {
        rehearsal: {
          ...walk,
          knots: [
            [3, 3],
            [NaN, 3],
          ] as const,
        },
      },
      'rehearsal: knot 2 of the path is at NaN, 3, must be finite',
    ],
    ['speed 0', { rehearsal: { ...walk, speedMetresPerSecond: 0 } }, 'rehearsal: the speed must be above 0 m/s, is 0'],
    [
      'a disk speed of 0',
      { device: { ...device, diskBytesPerSecond: 0 } },
      'rehearsal: diskBytesPerSecond of Handheld must be above 0, is 0; nothing would ever load',
    ],
    [
      'a walk of a year',
      {
        rehearsal: {
          ...walk,
          knots: [
            [0, 0],
            [90000, 0],
          ] as const,
          speedMetresPerSecond: 0.001,
        },
      },
      /takes at most 5200000 frames, 90000 m at 0.001 m\/s are/,
    ],
  ])('refuses %s', (_what, over, message) => {
    expect(() => makeRehearsal(input(over), context)).toThrow(message);
  });

  it('keeps resident bytes between nothing and everything, and at the end adds up', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: 0, max: 30 }),
        (speed, load, more) => {
          const result = makeRehearsal(
            input({
              grid: { ...grid, loadMetres: load, dropMetres: load + more },
              rehearsal: { ...walk, speedMetresPerSecond: speed },
            }),
            context,
          );
          const all = result.cut.cells.reduce((sum, { memoryBytes }) => sum + memoryBytes, 400000);
          for (const bytes of result.residentBytes) {
            expect(bytes).toBeGreaterThanOrEqual(0);
            expect(bytes).toBeLessThanOrEqual(all);
          }
          expect([...result.timesMs]).toEqual([...result.timesMs].sort((a, b) => a - b));
          for (const one of result.loads) {
            expect(one.readStartMs).toBeGreaterThanOrEqual(one.askedMs);
            expect(one.readyMs).toBeGreaterThanOrEqual(one.unpackEndMs);
          }
          const reads = [...result.loads].sort((a, b) => a.readStartMs - b.readStartMs);
          for (let i = 1; i < reads.length; i++)
            expect(reads[i].readStartMs).toBeGreaterThanOrEqual(reads[i - 1].readEndMs);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('a path', () => {
  it('gives points by distance, back and forth, and clamps', () => {
    const path = walkPath([
      [0, 0],
      [3, 4],
      [3, 10],
    ]);
    expect(path.lengthMetres).toBe(11);
    expect([path.at(8), path.at(2.5), path.at(-1), path.at(99)]).toEqual([
      [3, 7],
      [1.5, 2],
      [0, 0],
      [3, 10],
    ]);
  });
});
