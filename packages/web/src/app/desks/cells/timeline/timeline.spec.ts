import { TestBed } from '@angular/core/testing';
import type { WalkLoad } from '@stravel/core';
import fc from 'fast-check';
import {
  DISK_ROWS,
  diskLanes,
  gatherEvents,
  lateReasons,
  memoryArea,
  packRows,
  placeAtMs,
  residentAt,
  ticksOf,
} from './timeline-lanes';
import { loadsCsvRows } from './loads-csv';
import { WalkPlayer } from '../../../ui/walk-player';

const load = (
  askedMs: number,
  readMs: number,
  unpackMs: number,
  readyMs: number,
  over: Partial<WalkLoad> = {},
): WalkLoad => ({
  what: 'cell',
  number: 0,
  name: '0,0',
  diskBytes: 1,
  memoryBytes: 1,
  askedMs,
  readStartMs: askedMs + readMs,
  readEndMs: askedMs + readMs + unpackMs,
  unpackEndMs: askedMs + readMs + unpackMs,
  readyMs,
  droppedMs: null,
  ...over,
});

describe('lanes of the timeline', () => {
  it('put each load into the first row that is free, and never overlap while a row is free', () => {
    const of = (...spans: [number, number][]) => spans.map(([askedMs, readyMs]) => ({ askedMs, readyMs }));
    expect(packRows(of([0, 10], [5, 15], [20, 30], [21, 22]), 1)).toEqual([0, 1, 0, 1]);
    expect(packRows(of([0, 100], [0, 100], [0, 100], [1, 2]), 1)).toEqual([0, 1, 2, DISK_ROWS - 1]);
    const span = fc.tuple(fc.nat(1000), fc.nat(60)).map(([askedMs, ms]) => ({ askedMs, readyMs: askedMs + ms }));
    fc.assert(
      fc.property(fc.array(span, { maxLength: 40 }), (spans) => {
        const loads = spans.sort((a, b) => a.askedMs - b.askedMs);
        const rows = packRows(loads, 1);
        loads.forEach((one, i) => {
          const before = loads.slice(0, i);
          const busy = new Set(before.flatMap((other, j) => (other.readyMs >= one.askedMs ? [rows[j]] : [])));
          // Plainly: a row that nothing held is taken, whatever was before.
          const overlaps = before.some((other, j) => rows[j] === rows[i] && other.readyMs > one.askedMs);
          if (overlaps) expect(busy.size).toBe(DISK_ROWS);
        });
      }),
      { numRuns: 60 },
    );
  });

  it('draw waiting, reading and unpacking one after the other, and widen what is too short to see', () => {
    const { asked, read, unpacked, ready } = diskLanes([load(1000, 500, 2000, 5000)], 10_000);
    expect(asked).toBe('M1000 0.12H1500V0.88H1000Z');
    expect(read).toBe('M1500 0.12H3500V0.88H1500Z');
    expect(unpacked).toBe('M3500 0.12H5000V0.88H3500Z');
    expect(ready).toBe('M5000 0V1');
    const short = diskLanes([load(1000, 0, 1, 1001)], 260_000);
    expect(short.read).toBe('M1000 0.12H2000V0.88H1000Z');
    expect(diskLanes([], 10)).toEqual({ asked: '', read: '', unpacked: '', ready: '' });
  });

  it('outline what is in memory, and tell it for a moment', () => {
    expect(memoryArea([0, 5], [50, 100], 10, 200)).toBe('M0 1V0.75H5V0.5H10V1Z');
    expect(memoryArea([], [], 10, 200)).toBe('');
    expect(memoryArea([0], [0], 10, 0)).toBe('');
    const at = (ms: number) => residentAt([0, 5, 8], [1, 2, 3], ms);
    expect([at(-1), at(0), at(4.9), at(5), at(7), at(100)]).toEqual([1, 1, 1, 2, 2, 3]);
    expect(residentAt([], [], 3)).toBe(0);
  });

  it('mark at most nine steps of 1, 2 or 5 seconds times a power of ten', () => {
    expect(ticksOf(79_000)).toEqual([0, 10, 20, 30, 40, 50, 60, 70].map((s) => s * 1000));
    expect(ticksOf(9000)).toHaveLength(10);
    expect(ticksOf(0)).toEqual([0]);
    fc.assert(
      fc.property(fc.double({ min: 1, max: 1e9, noNaN: true }), (ms) => {
        const ticks = ticksOf(ms);
        expect(ticks.length).toBeLessThanOrEqual(10);
        if (ticks.length > 1) expect(String(ticks[1] / 1000)).toMatch(/^[125]0*$/);
      }),
    );
  });

  it('find the place between two seconds', () => {
    const track: [number, number][] = [
      [0, 0],
      [10, 4],
    ];
    expect([placeAtMs(track, 250), placeAtMs(track, -5), placeAtMs(track, 9000)]).toEqual([
      [2.5, 1],
      [0, 0],
      [10, 4],
    ]);
    expect(placeAtMs([], 0)).toBeUndefined();
  });

  it('tell events together that are too near to be told apart', () => {
    const event = (ms: number, isFault = false) => ({ ms, text: String(ms), isFault });
    const gathered = gatherEvents([event(0), event(9, true), event(10), event(19), event(20)], 10);
    expect(gathered.map(({ ms, text, isFault }) => [ms, text, isFault])).toEqual([
      [0, '0 · 9', true],
      [10, '10 · 19', false],
      [20, '20', false],
    ]);
    expect(gatherEvents([], 10)).toEqual([]);
  });

  it('say why a cell came late, the longest stage first, or which kit it waited for', () => {
    const own = load(0, 500, 900, 2000, { number: 3 });
    expect(lateReasons({ cell: 3, readyMs: 2000 }, [own])).toEqual([
      { name: 'read', ms: 900 },
      { name: 'activate', ms: 600 },
      { name: 'queue', ms: 500 },
    ]);
    const kit = load(0, 0, 100, 3000, { what: 'meshes', name: 'Wreckage' });
    expect(lateReasons({ cell: 3, readyMs: 3000 }, [own, kit]).at(0)?.name).toBe('activate of the meshes of Wreckage');
    expect(lateReasons({ cell: 3, readyMs: null }, [own])).toEqual([]);
  });
});

describe('playing a walk', () => {
  let frames: FrameRequestCallback[];
  const run = (now: number): void => frames.splice(0).forEach((frame) => frame(now));

  beforeEach(() => {
    frames = [];
    jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((frame) => frames.push(frame));
    jest.spyOn(globalThis, 'cancelAnimationFrame').mockImplementation(() => (frames = []));
    TestBed.configureTestingModule({ providers: [WalkPlayer] });
  });

  afterEach(() => jest.restoreAllMocks());

  it('goes on at its rate, stops at the end, and begins anew from there', () => {
    const player = TestBed.inject(WalkPlayer);
    expect(player.atMs()).toBeUndefined();
    player.toggle(1000);
    run(50);
    run(150);
    expect([player.atMs(), player.isPlaying()]).toEqual([400, true]);
    player.toggle(1000);
    expect([player.isPlaying(), frames.length]).toEqual([false, 0]);
    player.rate.set(16);
    player.toggle(1000);
    run(0);
    run(500);
    expect([player.atMs(), player.isPlaying()]).toEqual([1000, false]);
    player.toggle(1000);
    expect(player.atMs()).toBe(0);
    player.goTo(5000, 1000);
    expect(player.atMs()).toBe(1000);
    player.forget();
    expect([player.atMs(), player.isPlaying()]).toEqual([undefined, false]);
  });
});

describe('loads as a file', () => {
  it('are a row each; a cell that was loaded twice was late only once', () => {
    const loads = [
      load(0, 5, 5, 20),
      load(100, 5, 5, 140, { droppedMs: 400 }),
      load(30, 1, 1, 140, { what: 'meshes' }),
    ];
    const late = [{ cell: 0, key: '0,0', neededMs: 120, readyMs: 140, lateMs: 20, at: [0, 0, 0] as const }];
    const [head, ...rows] = loadsCsvRows({ loads, late });
    expect(rows.map((row) => row.length)).toEqual([head.length, head.length, head.length]);
    expect(rows.map((row) => row.slice(-3))).toEqual([
      ['20', '0', ''],
      ['140', '20', '400'],
      ['140', '0', ''],
    ]);
  });
});
