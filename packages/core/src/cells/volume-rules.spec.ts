import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import { EMPTY_CONTENT } from '../items';
import type { StandingLevel } from '../layout/standing-level';
import type { CellGrid, VolumeRule } from '../model/cell-grid';
import type { Device } from '../model/device';
import type { Group } from '../model/group';
import type { Volume } from '../model/volume';
import { plainLevel } from '../testing/plain-level';
import { cellsFile } from './cells-file';
import { cutLevel } from './cut-level';
import { rehearse, type Walk } from './rehearse';
import { heldCells, volumeRuleFindings } from './volume-rules';
import { walkPath } from './walk-path';

const context = createRunContext();
/** Reads what is asked in the same frame. */
const device: Device = {
  id: 'd',
  name: 'Quick',
  order: 'a0',
  budget: { triangles: 1e6, drawCalls: 1000, memoryBytes: 1e9, loadMs: 1e4, diskBytes: 1e9 },
  seekMs: 0,
  diskBytesPerSecond: 1e15,
  unpackBytesPerSecond: 1e15,
  activationSliceMs: 20,
  activationBytesPerMs: 1e12,
  framesPerSecond: 50,
};
const SPEED = 4;
const plainGrid: CellGrid = {
  id: 'l',
  sizeMetres: 10,
  origin: [0, 0],
  loadMetres: 5,
  dropMetres: 8,
  readyMetres: 0,
  resident: [],
};
/** Over the path along x, from one x to another. */
const over = (id: string, from: number, to: number, more: Partial<Volume> = {}): Volume => ({
  id,
  name: id,
  kind: '',
  position: [(from + to) / 2, -1, 5],
  turn: [0, 0, 0],
  shape: { form: 'box', size: [to - from, 4, 4] },
  ...more,
});
/** Ten tiles along x. */
const level = (volume: readonly Volume[], group: readonly Group[] = []): StandingLevel => ({
  level: plainLevel({ name: 'Row', strata: [{ stratum: 'own', switchedOff: false }], openSky: true }),
  strata: [
    {
      stratum: { id: 'own' },
      content: {
        ...EMPTY_CONTENT,
        volume,
        group,
        block: Array.from({ length: 10 }, (_unused, i) => ({
          id: `t${i}`,
          name: '',
          position: [i * 10 + 5, -1, 5],
          turn: [0, 0, 0],
          planes: boxPlanes([10, 1, 10]),
          sight: 'hides',
          material: 'sand',
        })),
      },
    },
  ],
});
const cutOf = (content: StandingLevel, grid: CellGrid) =>
  cutLevel({ content, pieces: {}, kits: {}, kitLoads: {}, grid }, context);
const walked = (content: StandingLevel, volumeRules: readonly VolumeRule[], from = 2, to = 98): Walk => {
  const grid = { ...plainGrid, volumeRules };
  const cut = cutOf(content, grid);
  const path = walkPath([
    [from, 5],
    [to, 5],
  ]);
  const heights = new Float64Array(1000);
  const held = heldCells(content, grid, cut, { path, heights, speedMetresPerSecond: SPEED }, context);
  return rehearse(
    { cut, grid, path, speedMetresPerSecond: SPEED, device, levelFiles: { files: 0, diskBytes: 0 }, held },
    context,
  );
};
const loadsOf = (walk: Walk, cell: string): (readonly [number, number | null])[] =>
  walk.loads
    .filter(({ name }) => name === cell)
    .map(({ askedMs, droppedMs }) => [Math.round(askedMs), droppedMs === null ? null : Math.round(droppedMs)]);

describe('cells that volumes load', () => {
  it('are asked for on entering and dropped on leaving, at the next frame', () => {
    // From 2 m at 4 m/s: 19 m after 4.25 s, 21 m after 4.75 s; frames of 20 ms.
    const walk = walked(level([over('bay', 19, 21)]), [{ volume: 'bay', cells: ['9,0'] }]);
    expect(loadsOf(walk, '9,0').at(0)).toEqual([4260, 4760]);
    // Later it is loaded as all cells are: within 5 m of 90 m, after (85 − 2) / 4 s.
    expect(loadsOf(walk, '9,0').at(1)?.[0]).toBe(20760);
    expect(loadsOf(walk, '5,0')).toHaveLength(1);
  });

  it('stay while one is inside, though they have gone far', () => {
    const rules = [{ volume: 'long', cells: ['0,0'] }];
    // Never loaded on the way: it was there at the start, and goes at 70 m.
    const { loads, figures } = walked(level([over('long', 0, 70)]), rules);
    expect([loads.some(({ name }) => name === '0,0'), figures.drops]).toEqual([false, 8]);
    expect(walked(level([over('long', 0, 99)]), rules).figures.drops).toBe(7);
  });

  it('are loaded before the first step where one starts inside', () => {
    const walk = walked(level([over('start', 0, 4)]), [{ volume: 'start', cells: ['7,0'] }]);
    expect(walk.figures.startFiles).toBe(walked(level([]), []).figures.startFiles + 1);
    expect(loadsOf(walk, '7,0')).toHaveLength(1);
  });

  it('are asked for once by a volume that is crossed between two frames', () => {
    const walk = walked(level([over('wire', 20.01, 20.02)]), [{ volume: 'wire', cells: ['9,0'] }]);
    expect(loadsOf(walk, '9,0').at(0)).toEqual([4520, 4540]);
  });

  it('stay until the last of two volumes is left', () => {
    const walk = walked(level([over('a', 19, 31), over('b', 25, 41)]), [
      { volume: 'a', cells: ['9,0'] },
      { volume: 'b', cells: ['9,0', '8,0'] },
    ]);
    expect([loadsOf(walk, '9,0').at(0), loadsOf(walk, '8,0').at(0)]).toEqual([
      [4260, 9760],
      [5760, 9760],
    ]);
  });

  it('are not loaded by what is switched off, lies beside the path or is above it', () => {
    const group: Group = {
      id: 'g',
      name: 'off',
      parent: null,
      category: '',
      colour: 'none',
      guard: '',
      aside: null,
      switchedOff: true,
    };
    const rules = [{ volume: 'v', cells: ['9,0'] }];
    for (const content of [
      level([over('v', 19, 21, { group: 'g' })], [group]),
      level([over('v', 19, 21, { position: [20, -1, 50] })]),
      level([over('v', 19, 21, { position: [20, 1.1, 5] })]),
    ])
      expect(loadsOf(walked(content, rules), '9,0')).toHaveLength(1);
  });

  it('are found wanting where the volume or the content of a cell is missing, and are not packed', () => {
    const content = level([over('bay', 19, 21)]);
    const volumeRules = [
      { volume: 'gone', cells: ['1,0'] },
      { volume: 'bay', cells: ['9,0', '40,3'] },
    ];
    const grid = { ...plainGrid, volumeRules };
    const cut = cutOf(content, grid);
    expect(volumeRuleFindings('w', content, grid, cut).map(({ code, message }) => [code, message])).toEqual([
      ['CELL_VOLUME_MISSING', 'Cells 1,0 load inside a volume that was deleted or parked'],
      ['CELL_VOLUME_EMPTY', '“bay” loads cell 40,3, where nothing is'],
    ]);
    const many = {
      ...grid,
      volumeRules: [{ volume: 'bay', cells: Array.from({ length: 9 }, (_unused, i) => `${i},7`) }],
    };
    expect(volumeRuleFindings('w', content, many, cut)[0].message).toBe(
      '“bay” loads cells 0,7 · 1,7 · 2,7 · 3,7 · 4,7 and 4 more, where nothing is',
    );
    const file = JSON.parse(new TextDecoder().decode(cellsFile(grid, cut, content))) as Record<string, unknown>;
    expect(file['volumes']).toEqual([{ volume: 'bay', cells: ['9,0'] }]);
    const bare = new TextDecoder().decode(cellsFile(plainGrid, cut, content));
    expect(bare).not.toContain('volumes');
  });

  it('are asked for as a plain account of every frame says, for any volumes', () => {
    const interval = fc.tuple(fc.integer({ min: 0, max: 990 }), fc.integer({ min: 1, max: 300 }));
    const rule = fc.record({
      at: interval,
      cells: fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { maxLength: 4 }),
    });
    fc.assert(
      fc.property(fc.array(rule, { maxLength: 6 }), fc.integer({ min: 0, max: 40 }), (ruled, start) => {
        const volumes = ruled.map(({ at: [from, length] }, i) => over(`v${i}`, from / 10, (from + length) / 10));
        const rules = ruled.map(({ cells }, i) => ({ volume: `v${i}`, cells: cells.map((cell) => `${cell},0`) }));
        const walk = walked(level(volumes), rules, start, 98);
        expect(walk.loads.map(({ askedMs, name }) => `${Math.round(askedMs)} ${name}`).sort()).toEqual(
          plainAsks(ruled, start).sort(),
        );
      }),
      { numRuns: 60 },
    );
  });
});

/** What is asked at each frame, cell by cell and volume by volume; ten cells have content. */
function plainAsks(
  ruled: readonly { readonly at: readonly [number, number]; readonly cells: readonly number[] }[],
  start: number,
): string[] {
  const distance = (cell: number, x: number): number => Math.max(cell * 10 - x, 0, x - cell * 10 - 10);
  const asks: string[] = [];
  const wanted = new Set<number>();
  const durationMs = ((98 - start) / SPEED) * 1000;
  const crossing = (metres: number): number => ((metres - start) / SPEED) * 1000;
  for (let frame = -1; frame < Math.ceil(durationMs / 20 - 1e-9); frame++) {
    const now = Math.max(frame, 0) * 20;
    const before = frame < 0 ? -Infinity : Math.max(frame - 1, 0) * 20 - (frame === 0 ? 1 : 0);
    const x = start + (now / 1000) * SPEED;
    for (let cell = 0; cell < 10; cell++) {
      const holding = ruled.filter(({ cells }) => cells.includes(cell));
      const spans = holding.map(({ at: [from, length] }) => [crossing(from / 10), crossing((from + length) / 10)]);
      // What was left before the walk began, or lies beyond its end, is never entered.
      const real = spans.filter(([enter, leave]) => leave >= 0 && enter <= durationMs);
      const isHeld = real.some(([enter, leave]) => Math.max(0, enter) <= now + 1e-6 && leave > now + 1e-6);
      const isEntered = real.some(([enter]) => Math.max(0, enter) <= now + 1e-6 && Math.max(0, enter) > before + 1e-6);
      if (frame >= 0 && wanted.has(cell) && !isHeld && distance(cell, x) > 8) wanted.delete(cell);
      const isNew = !wanted.has(cell) && (isHeld || isEntered || distance(cell, x) <= 5);
      if (!isNew) continue;
      wanted.add(cell);
      if (frame >= 0) asks.push(`${Math.round(now)} ${cell},0`);
    }
  }
  return asks;
}
