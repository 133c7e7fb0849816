import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import type { Device } from '../model/device';
import type { Block } from '../model/block';
import type { Level } from '../model/level';
import { EMPTY_CONTENT } from '../items';
import type { Piece } from '../model/kit';
import { DEFAULT_VIEW } from '../model/view-settings';
import { bakeSight } from '../sight/bake-sight';
import { levelSightInput } from '../sight/level-sight-input';
import { bakeKey } from '../bakes/bake-key';
import { levelLoad } from '../pack/level-load';
import { loadTime } from './cost-model';
import { figuresInput } from './figures-input';
import { countLevel, type LevelCount } from './count-level';
import { budgetFindings, holdAgainst, type LevelCosts } from './hold-against';
import { levelFigures } from './level-figures';

const device: Device = {
  id: 'd',
  name: 'Test device',
  order: 'a0',
  budget: { triangles: 50, drawCalls: 3, memoryBytes: 1e6, loadMs: 1000, diskBytes: 1e6 },
  seekMs: 10,
  diskBytesPerSecond: 1000,
  unpackBytesPerSecond: 2000,
  activationSliceMs: 2,
  activationBytesPerMs: 50,
  framesPerSecond: 50,
};
const wall = (id: string, x: number, y: number, z: number, sx: number, sy: number, sz: number): Block => ({
  id,
  name: id,
  position: [x, y, z + 10],
  turn: [0, 0, 0],
  planes: boxPlanes([sx, sy, sz]),
  sight: 'hides',
  material: 'brick',
});
const piece: Piece = {
  id: 'pin',
  kit: 'kit',
  name: 'pin',
  bounds: { min: [-0.5, 0, -0.5], max: [0.5, 1, 0.5] },
  steps: [{ triangles: 20, vertices: 60, materials: 2, bytes: 1000 }],
};
const level = {
  id: 'l',
  name: 'Two rooms',
  openSky: false,
  bounds: null,
  strata: [],
  values: {},
  purpose: 'play',
  code: '',
  key: 'rooms',
} as unknown as Level;

/** Two closed rooms of 4 by 4 with a wall between them and no door; one pin in each, two in the second. */
const rooms = {
  level,
  strata: [
    {
      stratum: { id: 's', name: 'Structure', role: 'structure' as const, owner: 'l' },
      content: {
        ...EMPTY_CONTENT,
        block: [
          wall('floor', 0, -1, 0, 12, 1, 6),
          wall('roof', 0, 3, 0, 12, 1, 6),
          wall('n', 0, 0, -2.5, 12, 3, 1),
          wall('s', 0, 0, 2.5, 12, 3, 1),
          wall('w', -5.5, 0, 0, 1, 3, 4),
          wall('e', 5.5, 0, 0, 1, 3, 4),
          wall('mid', 0, 0, 0, 1, 3, 4),
        ],
        placement: [
          [-2.5, 0, 10],
          [2, 0, 10],
          [3.5, 0, 11],
        ].map((position, i) => ({
          id: `p${i}`,
          piece: 'pin',
          position: position as unknown as readonly [number, number, number],
          turn: [0, 0, 0] as const,
          scale: [1, 1, 1] as const,
        })),
        marker: [
          { id: 'm', kind: 'spawn' as const, position: [-3, 0, 10] as const, turn: 0 },
          { id: 'm2', kind: 'spawn' as const, position: [3, 0, 11.5] as const, turn: 0 },
        ],
      },
    },
  ],
};

describe('load time', () => {
  it('adds seek, read, unpack and activation in whole slices, by hand', () => {
    // 3 files · 10 ms; 500 B at 1000 B/s; 1050 B at 2000 B/s; slices of 100 B: 11 frames of 20 ms.
    expect(loadTime({ files: 3, diskBytes: 500, memoryBytes: 1050 }, device)).toEqual({
      seekMs: 30,
      readMs: 500,
      unpackMs: 525,
      activateMs: 220,
      totalMs: 1275,
    });
    expect(loadTime({ files: 0, diskBytes: 0, memoryBytes: 0 }, device).totalMs).toBe(0);
  });
});

describe('figures of a level', () => {
  const sight = bakeSight(levelSightInput(rooms), {}, createRunContext());
  const kitLoads = { [piece.kit]: { files: 2, memoryBytes: 5000, diskBytes: 3000 } };
  const count: LevelCount = {
    ...countLevel(figuresInput(rooms, { pin: piece }, DEFAULT_VIEW), createRunContext()),
    load: levelLoad(
      {
        content: rooms,
        pieces: { pin: piece },
        kits: { [piece.kit]: { id: piece.kit, name: 'Kit', key: 'kit', mesh: '' } },
        kitLoads,
        grid: null,
      },
      createRunContext(),
    ),
  };
  const figures = {
    sightFileBytes: 700,
    ...levelFigures({ ...figuresInput(rooms, { pin: piece }, DEFAULT_VIEW), sight }, createRunContext()),
  };

  it('draw a mirrored placement apart from those of its piece that are not', () => {
    const [{ stratum, content }] = rooms.strata;
    const calls = (scales: readonly number[]): number[] => {
      const placement = content.placement.map((one, i) => ({ ...one, scale: [scales[i], 1, 1] as const }));
      const strata = [{ stratum, content: { ...content, placement } }];
      const counted = countLevel(figuresInput({ level, strata }, { pin: piece }, DEFAULT_VIEW), createRunContext());
      return [counted.strata[0].drawCalls, counted.bound.drawCalls];
    };
    const plain = calls([1, 1, 1]);
    // Two materials a piece.
    expect(calls([1, -1, 1])).toEqual(plain.map((one) => one + 2));
    expect(calls([-1, -2, -3])).toEqual(plain);
  });

  it('draw the faces of a block that have a material of their own apart, as no object by themselves', () => {
    const [{ stratum, content }] = rooms.strata;
    const block = content.block.map((one) =>
      one.id === 'mid'
        ? {
            ...one,
            faces: [
              { plane: 0, surface: 'glass', tileMetres: [1, 1], offsetMetres: [0, 0] } as const,
              { plane: 1, surface: 'tar', tileMetres: [1, 1], offsetMetres: [0, 0] } as const,
              { plane: 2, surface: 'brick', tileMetres: [1, 1], offsetMetres: [0, 0] } as const,
            ],
          }
        : one,
    );
    const input = figuresInput(
      { level, strata: [{ stratum, content: { ...content, block } }] },
      { pin: piece },
      DEFAULT_VIEW,
    );
    const plain = countLevel(figuresInput(rooms, { pin: piece }, DEFAULT_VIEW), createRunContext());
    const counted = countLevel(input, createRunContext());
    expect(counted.strata[0].drawCalls).toBe(plain.strata[0].drawCalls + 2);
    expect([counted.things, counted.triangles, counted.bound.triangles]).toEqual([
      plain.things,
      plain.triangles,
      plain.bound.triangles,
    ]);
    const [worst] = levelFigures({ ...input, sight }, createRunContext()).worst;
    expect([worst.things, worst.triangles]).toEqual([figures.worst[0].things, figures.worst[0].triangles]);
    expect(worst.drawCalls).toBeGreaterThanOrEqual(figures.worst[0].drawCalls + 2);
    expect(worst.causes.find(({ name }) => name === 'glass')).toMatchObject({ count: 1, triangles: 2 });
    expect(worst.causes.find(({ name }) => name === 'brick')).toMatchObject({ count: 6, triangles: 68 });
  });

  it('count what each room sees: its own pins and the blocks about it', () => {
    expect(sight.figures.reachedPockets).toBe(2);
    const worst = figures.worst[0];
    // Second room: 2 pins of 20, floor, roof, n, s, e and mid of 12 triangles each.
    expect(worst.triangles).toBe(2 * 20 + 6 * 12);
    expect(worst.causes.map(({ name, count, triangles, drawCalls }) => [name, count, triangles, drawCalls])).toEqual([
      ['brick', 6, 72, expect.any(Number)],
      ['pin', 2, 40, 2],
    ]);
    expect(figures.worst[1].triangles).toBe(20 + 6 * 12);
    expect(worst.strata.reduce((sum, { triangles }) => sum + triangles, 0)).toBe(worst.triangles);
  });

  it('count one by one what stands in the level', () => {
    expect(figures.tally).toEqual({ markers: { spawn: 2 }, pieces: { pin: 3 }, blocks: { hides: 7 } });
  });

  it('count memory by strata and the kit once', () => {
    const { kits, memoryBytes, strata } = count.load;
    // The kit whole, whatever the level uses of it.
    expect(kits).toEqual(kitLoads.kit);
    expect(memoryBytes).toBe(5000 + figures.strata[0].memoryBytes);
    expect(strata.map(({ stratum }) => stratum)).toEqual(['s']);
    // The level's file, what is seen, one of blocks, two of the kit.
    expect(count.load.files).toBe(5);
  });

  it('are held against a device, and every broken budget is a finding', () => {
    const costs: LevelCosts = { count, baked: { figures, isFresh: true } };
    const held = holdAgainst(costs, device);
    expect(held.over).toContain('triangles');
    expect(held.figures.triangles).toEqual({ state: 'known', value: 112, share: 112 / 50 });
    const codes = budgetFindings(level, costs, device).map(({ code }) => code);
    expect(codes).toContain('OVER_TRIANGLES');
    expect(codes).not.toContain('OVER_MEMORY_BYTES');
  });

  it('are known without a bake as far as they need none, and bounded as far as that is enough', () => {
    expect(count.tally).toEqual(figures.tally);
    // The file of what is seen is known with the bake.
    expect(holdAgainst({ count, baked: { figures, isFresh: false } }, device).figures.diskBytes.value).toBe(
      count.load.diskBytes + 700,
    );
    expect(holdAgainst({ count, baked: undefined }, device).figures.diskBytes.value).toBe(count.load.diskBytes);
    // 3 pins of 20, 7 blocks of 12; a pin of 2 materials, one material of blocks in one lattice cell on either side of 0.
    expect(count.bound.triangles).toBe(144);
    const states = (costs: LevelCosts, triangles: number) => {
      const held = holdAgainst(costs, { ...device, budget: { ...device.budget, triangles } });
      return [
        held.figures.triangles.state,
        held.figures.triangles.value,
        held.figures.memoryBytes.state,
        held.over.includes('triangles'),
        held.undecided.includes('triangles'),
      ];
    };
    const stale = { figures, isFresh: false };
    expect(states({ count, baked: undefined }, 144)).toEqual(['bound', 144, 'known', false, false]);
    expect(states({ count, baked: undefined }, 143)).toEqual(['not known', 144, 'known', false, true]);
    expect(states({ count, baked: stale }, 144)).toEqual(['bound', 144, 'known', false, false]);
    expect(states({ count, baked: stale }, 100)).toEqual(['stale', 112, 'known', false, true]);
    expect(states({ count, baked: { figures, isFresh: true } }, 100)).toEqual(['known', 112, 'known', true, false]);
    // Of a level that is cut all of it is the most that can be there at one time; on the disk it is all there.
    const cut = { count: { ...count, load: { ...count.load, isCut: true } }, baked: undefined };
    const ofCut = (memoryBytes: number) => holdAgainst(cut, { ...device, budget: { ...device.budget, memoryBytes } });
    const { memoryBytes } = count.load;
    expect([memoryBytes, memoryBytes - 1].map((limit) => ofCut(limit).figures.memoryBytes.state)).toEqual([
      'bound',
      'not known',
    ]);
    expect([
      ofCut(1).over.includes('memoryBytes'),
      ofCut(1).undecided.includes('memoryBytes'),
      ofCut(1).figures.diskBytes.state,
    ]).toEqual([false, true, 'known']);
    // What can't be counted is not known, or as it was.
    expect(states({ count: undefined, baked: undefined }, 100)).toEqual([
      'not known',
      undefined,
      'not known',
      false,
      true,
    ]);
    expect(states({ count: undefined, baked: stale }, 200)).toEqual(['stale', 112, 'not known', false, true]);
    // A bake that reached no pocket has counted nothing.
    expect(states({ count, baked: { figures: { ...figures, worst: [] }, isFresh: true } }, 100)[0]).toBe('not known');
  });

  it('never show more from a place than the bound', () => {
    const steps = [20, 6].map((triangles, i) => ({
      triangles,
      vertices: 9,
      materials: 2 - i,
      bytes: 100,
      deviationMetres: i * 0.01,
    }));
    const at = fc.tuple(
      fc.double({ min: -150, max: 150, noNaN: true }),
      fc.double({ min: -150, max: 150, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(at, { maxLength: 12 }), fc.array(at, { maxLength: 12 }), (walls, pins) => {
        const content = {
          ...EMPTY_CONTENT,
          block: walls.map(([x, z], i) => wall(`w${i}`, x, 0, z, 3 + i, 4, 2)),
          placement: pins.map(([x, z], i) => ({
            id: `p${i}`,
            piece: 'pin',
            position: [x, 0, z] as const,
            turn: [0, 0, 0] as const,
            scale: [1, 1, 1] as const,
          })),
        };
        if (walls.length + pins.length === 0) return;
        const made = { level, strata: [{ ...rooms.strata[0], content }] };
        const input = figuresInput(made, { pin: { ...piece, steps } }, DEFAULT_VIEW);
        const seen = levelFigures(
          { ...input, sight: bakeSight(levelSightInput(made), {}, createRunContext()) },
          createRunContext(),
        );
        const { bound, triangles } = countLevel(input, createRunContext());
        expect(bound.triangles).toBe(triangles);
        for (const one of seen.pocketTriangles) expect(one).toBeLessThanOrEqual(bound.triangles);
        for (const one of seen.pocketDrawCalls) expect(one).toBeLessThanOrEqual(bound.drawCalls);
        // Without a block that hides all is seen from everywhere, at its nearest step.
        if (walls.length === 0) expect(seen.worst[0].triangles).toBe(bound.triangles);
      }),
      { numRuns: 30, examples: [[[], [[0, 0]]]] },
    );
  });

  it('bound a block of a hundred kilometres without listing its cells', () => {
    const vast = {
      level,
      strata: [
        {
          ...rooms.strata[0],
          content: { ...EMPTY_CONTENT, block: [wall('plain', 0, 0, 0, 1e5, 1, 1e5), wall('hut', 0, 0, 0, 2, 2, 2)] },
        },
      ],
    };
    const { bound } = countLevel(figuresInput(vast, {}, DEFAULT_VIEW), createRunContext());
    expect(bound.triangles).toBe(24);
    expect(bound.drawCalls).toBeGreaterThan(1e6);
  });

  it('name a placement whose piece is gone', () => {
    expect(() => levelFigures({ ...figuresInput(rooms, {}, DEFAULT_VIEW), sight }, createRunContext())).toThrow(
      /the placement p0 uses the piece pin/,
    );
  });
});

describe('bake keys', () => {
  it('change with a hiding block and stay with decor or a placement', () => {
    const key = (content: typeof rooms) => bakeKey('sight', levelSightInput(content));
    const [{ stratum, content }] = rooms.strata;
    const withContent = (over: Partial<typeof content>) => ({
      level,
      strata: [{ stratum, content: { ...content, ...over } }],
    });
    expect(key(withContent({ placement: [] }))).toBe(key(rooms));
    expect(key(withContent({ block: [...content.block, { ...wall('d', 1, 0, 1, 1, 1, 1), sight: 'decor' }] }))).toBe(
      key(rooms),
    );
    expect(key(withContent({ block: content.block.slice(1) }))).not.toBe(key(rooms));
    expect(key(withContent({ block: [...content.block].reverse() }))).toBe(key(rooms));
    const figures = (over: Partial<typeof content>) =>
      bakeKey('figures', figuresInput(withContent(over), { pin: piece }, DEFAULT_VIEW), []);
    expect(figures({ placement: [] })).not.toBe(figures({}));
  });
});
