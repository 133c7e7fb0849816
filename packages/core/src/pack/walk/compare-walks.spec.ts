import { compareWalks, figuresAtStops } from './compare-walks';
import { DrawnChanges, lodsAtStop, stopFrames, type RunLoad, type WalkRun } from './walk-run';

const load = (key: string, askedMs: number, readyMs: number, diskBytes = 100000): RunLoad => ({
  key,
  name: key,
  diskBytes,
  memoryBytes: 1000,
  askedMs,
  readStartMs: askedMs,
  readEndMs: readyMs - 100,
  unpackEndMs: readyMs - 50,
  readyMs,
  droppedMs: null,
});

/** Ten seconds at 10 frames a second and 1 m/s: a stop each second. */
const run = (change: Partial<WalkRun> = {}): WalkRun => ({
  lengthMetres: 10,
  durationMs: 10000,
  frameMs: 100,
  frames: 100,
  start: { files: 3, loadMs: 500 },
  timesMs: [0],
  residentBytes: [1000],
  loads: [],
  late: [],
  stops: Array.from({ length: 10 }, (_, i) => ({ frame: i * 10, metres: i, eye: [i, 1.6, 0] as const })),
  objects: ['a', 'b'],
  changes: [[0, 0], ...Array.from({ length: 9 }, (): number[] => [])],
  triangles: new Array<number>(10).fill(1000),
  drawCalls: new Array<number>(10).fill(100),
  ...change,
});

describe('comparing walks', () => {
  it('finds no difference in equal runs', () => {
    expect(compareWalks(run(), run())).toEqual({ differences: [], sameObjects: 10, agreeing: 10, stops: 10 });
  });

  it('names the object and LOD where triangles are more than 3 % apart, and joins what lies close together', () => {
    const measured = run({
      // b comes at second 3, goes at 5, comes again at 6.
      changes: [[0, 0], [], [], [1, 1], [], [1, -1], [1, 1], [1, -1], [], []],
      triangles: [1000, 1000, 1000, 1040, 1050, 1000, 1040, 1000, 1000, 1029],
    });
    const { differences, sameObjects, agreeing } = compareWalks(run(), measured);
    expect(differences).toEqual([
      {
        what: 'triangles',
        fromMs: 3000,
        toMs: 6000,
        atMs: 4000,
        at: [4, 1.6, 0],
        forecast: 1000,
        measured: 1050,
        objects: [{ id: 'b', forecastLod: -1, measuredLod: 1 }],
        objectCount: 1,
      },
    ]);
    expect([sameObjects, agreeing]).toEqual([7, 7]);
  });

  it('tells objects that are drawn otherwise though the figures agree', () => {
    const { differences, agreeing } = compareWalks(run(), run({ objects: ['b', 'a'] }));
    expect(differences.map(({ what, measured, objects }) => [what, measured, objects.length])).toEqual([
      ['objects', 2, 2],
    ]);
    expect(agreeing).toBe(0);
  });

  it('counts a cell as later from a frame on, and one that is late in one run alone', () => {
    const late = (key: string, lateMs: number): WalkRun['late'][number] => ({
      key,
      neededMs: 2000,
      readyMs: 2000 + lateMs,
      lateMs,
      at: [2, 0, 0],
    });
    const forecast = run({ late: [late('0,0', 600), late('1,0', 300)] });
    const measured = run({ late: [late('0,0', 700), late('1,0', 401), late('2,0', 150)] });
    const { differences } = compareWalks(forecast, measured);
    expect(differences.map(({ cell, forecast: a, measured: b }) => [cell, a, b])).toEqual([
      ['1,0', 300, 401],
      ['2,0', 0, 150],
    ]);
  });

  it('holds memory and what waits for the disk beside each other, but no few bytes', () => {
    const forecast = run({ timesMs: [0, 4000], residentBytes: [1000, 2000], loads: [load('0,0', 3000, 5200)] });
    const same = run({ timesMs: [0, 4000], residentBytes: [1000, 2000], loads: [load('0,0', 3000, 5200, 103900)] });
    expect(figuresAtStops(forecast).memory).toEqual([1000, 1000, 1000, 1000, ...new Array<number>(6).fill(2000)]);
    expect(figuresAtStops(forecast).disk).toEqual([0, 0, 0, 100000, 100000, 100000, 0, 0, 0, 0]);
    expect(compareWalks(forecast, same).differences).toEqual([]);
    const other = run({ timesMs: [0, 5000], residentBytes: [1000, 2000], loads: [load('0,0', 3000, 6200)] });
    expect(compareWalks(forecast, other).differences.map(({ what, fromMs, toMs }) => [what, fromMs, toMs])).toEqual([
      ['memory', 4000, 4000],
      ['disk', 6000, 6000],
    ]);
  });

  it('tells the load before the first step from a frame and 3 % on', () => {
    const measured = (loadMs: number): WalkRun => run({ start: { files: 3, loadMs } });
    expect(compareWalks(run(), measured(590)).differences).toEqual([]);
    expect(compareWalks(run(), measured(610)).differences).toMatchObject([
      { what: 'start', forecast: 500, measured: 610 },
    ]);
  });
});

describe('the stops of a walk', () => {
  it('are the first frames after each metre, at most 2,000', () => {
    expect(stopFrames(3.5, 1, 400)).toEqual([0, 3, 5, 8]);
    expect(stopFrames(0.1, 5, 33)).toEqual([0]);
    expect(stopFrames(1e5, 50, 100).length).toBeLessThanOrEqual(2000);
    // At 60 m a frame every frame is one.
    expect(stopFrames(600, 600, 100)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
  });

  it('keep what is drawn by what differs', () => {
    const drawn = new DrawnChanges(3);
    const stops = [
      [[0, 1]],
      [
        [0, 1],
        [2, 0],
      ],
      [],
      [[2, 3]],
    ];
    for (const stop of stops) {
      for (const [object, lod] of stop) drawn.draw(object, lod);
      drawn.stop();
    }
    expect(drawn.changes).toEqual([
      [0, 1],
      [2, 0],
      [0, -1, 2, -1],
      [2, 3],
    ]);
    const kept = { objects: ['a', 'b', 'c'], changes: drawn.changes };
    expect([...lodsAtStop(kept, 1)]).toEqual([1, -1, 0]);
    expect([...lodsAtStop(kept, 3)]).toEqual([-1, -1, 3]);
  });
});
