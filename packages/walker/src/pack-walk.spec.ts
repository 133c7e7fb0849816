import fc from 'fast-check';
import { createRunContext, type Device, type PlanPoint, type Target, PLAIN_TARGET } from '@stravel/core';
import { compareWalks, forecastWalk, type WalkForecast } from '@stravel/core/pack-walk';
import { StratumBuilder } from '../../../demo/builder';
import { exampleCollection } from '../../../demo/example/example-collection';
import { ALL_SAVINGS, type Savings } from './draw-pack';
import { PackWalk, type MeasuredRun } from './pack-walk';
import { packedLevel, type PackedLevel } from './testing/packed-level';

const context = createRunContext();
/** West, north, east, south. */
type Plan = [number, number, number, number];
/** So slow that cells of a few kilobytes come late. */
const device: Device = {
  id: 'slow',
  name: 'Slow',
  order: 'a',
  budget: { triangles: 1, drawCalls: 1, memoryBytes: 1, loadMs: 1, diskBytes: 1 },
  seekMs: 400,
  diskBytesPerSecond: 4000,
  unpackBytesPerSecond: 50000,
  activationSliceMs: 2,
  activationBytesPerMs: 200,
  framesPerSecond: 30,
};

const quicker: Device = { ...device, id: 'quicker', seekMs: 30, diskBytesPerSecond: 40000, unpackBytesPerSecond: 3e5 };

async function bothOf(
  level: PackedLevel,
  knots: readonly PlanPoint[],
  floorMetres: number,
  speedMetresPerSecond = 6,
  on = device,
): Promise<{ forecast: WalkForecast; measured: MeasuredRun; walk: PackWalk }> {
  const way = { knots, floorMetres, speedMetresPerSecond, device: on.id };
  const forecast = forecastWalk({ scene: level.scene, way, sections: [], sight: level.sight }, context);
  const walk = await PackWalk.open(level.read, level.key, context);
  const route = { knots, speedMetresPerSecond, floors: forecast.floors };
  return { forecast, walk, measured: await walk.run(route, on, ALL_SAVINGS, context) };
}

const targets: readonly (readonly [string, Target])[] = [
  ['JSON', PLAIN_TARGET],
  ['one file a kit', { ...PLAIN_TARGET, meshFiles: 'perKit' }],
  ['exact columns', { ...PLAIN_TARGET, placements: 'exact' }],
];

describe('a walk with a pack', () => {
  it.each(targets)('loads in the same order and draws the same as forecast: %s', async (_name, target) => {
    const level = await packedLevel(await exampleCollection(), 'long-jetty', { [device.id]: device }, target);
    const ways: (readonly PlanPoint[])[] = [
      [
        [1, 0],
        [198, 0],
      ],
      [
        [190, 1],
        [40, -1],
        [150, 2],
      ],
      [
        [90, 0],
        [91, 0.5],
        [10, 0],
      ],
    ];
    for (const knots of ways) {
      const { forecast, measured } = await bothOf(level, knots, 0.2);
      expect(measured.stops).toEqual(forecast.stops);
      expect(measured.loads.map(({ key }) => key)).toEqual(forecast.loads.map(({ key }) => key));
      expect(measured.loads.length).toBeGreaterThan(3);
      expect(measured.late.length).toBe(forecast.late.length);
      for (const [i, { key, lateMs }] of measured.late.entries()) {
        expect(key).toBe(forecast.late[i].key);
        expect(Math.abs(lateMs - forecast.late[i].lateMs)).toBeLessThanOrEqual(forecast.frameMs + 1e-6);
      }
      const { sameObjects, stops, differences } = compareWalks(forecast, measured);
      expect([sameObjects, stops]).toEqual([forecast.stops.length, forecast.stops.length]);
      expect(differences.filter(({ what }) => what !== 'start')).toEqual([]);
      expect(measured.triangles).toEqual(forecast.triangles);
      expect(measured.drawCalls).toEqual(forecast.drawCalls);
    }
  });

  it('draws the visible sets of rooms, and all where no pocket has the eye', async () => {
    const level = await packedLevel(await exampleCollection(), 'cistern', { [device.id]: device });
    const { forecast, measured } = await bothOf(
      level,
      [
        [-14, 0],
        [-5, -2.5],
        [5, 2.5],
        [14, 0],
        [30, 0],
      ],
      0,
      4,
    );
    expect(measured.loads).toEqual([]);
    expect(measured.drawCalls).toEqual(forecast.drawCalls);
    const { differences, sameObjects } = compareWalks(forecast, measured);
    expect(sameObjects).toBe(forecast.stops.length);
    expect(differences.filter(({ what }) => what !== 'start')).toEqual([]);
    // From the first room less is seen than from the doors, and all of it from outside.
    expect(measured.triangles[0]).toBeLessThan(measured.trianglesUnseen[0]);
    expect(measured.triangles.at(-1)).toBe(measured.trianglesUnseen.at(-1));
  });

  it('does so in any level, cut anyhow, on any way', async () => {
    const collection = await exampleCollection();
    const at = fc.double({ min: -70, max: 70, noNaN: true });
    const scale = fc.constantFrom(1, 0.5, 3, -1, -2);
    const placement = fc.record({
      x: at,
      y: fc.constantFrom(0, 0, 0.5),
      z: at,
      piece: fc.constantFrom('piece-crate', 'piece-buoy'),
      turn: fc.tuple(fc.integer({ min: 0, max: 359 }), fc.constantFrom(0, 0, 17), fc.constantFrom(0, 0, -60)),
      scale: fc.tuple(scale, scale, scale),
    });
    // From side to side, with a door that may be no wider than nothing.
    const wall = fc.record({
      isAcross: fc.boolean(),
      at,
      door: at,
      width: fc.constantFrom(0, 1, 3),
      material: fc.constantFrom('slate', 'brick'),
    });
    const grid = fc.record({
      sizeMetres: fc.integer({ min: 8, max: 40 }),
      origin: fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })),
      loadMetres: fc.integer({ min: 0, max: 30 }),
      more: fc.integer({ min: 0, max: 20 }),
      readyMetres: fc.integer({ min: 0, max: 30 }),
    });
    let [late, loads, hidden] = [0, 0, 0];
    await fc.assert(
      fc.asyncProperty(
        fc.array(placement, { minLength: 1, maxLength: 40 }),
        fc.array(wall, { maxLength: 5 }),
        fc.option(grid, { freq: 5 }),
        fc.array(fc.tuple(at, at), { minLength: 3, maxLength: 6 }),
        async (placements, walls, cut, knots) => {
          fc.pre(knots.some(([x, z]) => Math.hypot(x - knots[0][0], z - knots[0][1]) > 1));
          const structure = new StratumBuilder('rnd-own').wall('floor', -72, -72, 72, 72, -1, 0, 'salt');
          structure.wall('ceiling', -72, -72, 72, 72, 4, 5).wall('west', -73, -72, -72, 72, 0, 4);
          structure.wall('east', 72, -72, 73, 72, 0, 4).wall('north', -72, -73, 72, -72, 0, 4);
          structure.wall('south', -72, 72, 72, 73, 0, 4);
          for (const { isAcross, at: place, door, width, material } of walls)
            for (const [from, to] of [
              [-72, Math.max(-72, door - width / 2)],
              [Math.min(72, door + width / 2), 72],
            ])
              if (to - from > 0.1)
                structure.wall(
                  'wall',
                  ...((isAcross ? [from, place, to, place + 0.3] : [place, from, place + 0.3, to]) as Plan),
                  0,
                  4,
                  material,
                );
          structure.marker('spawn', [knots[0][0], 0, knots[0][1]]);
          const content = {
            ...structure.build(),
            placement: placements.map(({ x, y, z, ...rest }, i) => ({
              id: `p${i}`,
              position: [x, y, z] as const,
              ...rest,
            })),
          };
          collection.records.stratum['rnd-own'] = { id: 'rnd-own', name: 'Own', role: 'structure', owner: 'rnd' };
          collection.strata.set('rnd-own', content);
          collection.records.level['rnd'] = {
            ...collection.records.level['cistern'],
            id: 'rnd',
            key: 'rnd',
            name: 'Rnd',
            strata: [{ stratum: 'rnd-own', switchedOff: false }],
          };
          delete collection.records.cellGrid['rnd'];
          if (cut) {
            const { more, ...rest } = cut;
            const readyMetres = Math.min(cut.readyMetres, cut.loadMetres);
            const dropMetres = cut.loadMetres + more;
            collection.records.cellGrid['rnd'] = { id: 'rnd', ...rest, readyMetres, dropMetres, resident: [] };
          }
          const level = await packedLevel(collection, 'rnd', { [quicker.id]: quicker });
          const { forecast, measured } = await bothOf(level, knots, 0, 8, quicker);
          const { differences, sameObjects, stops } = compareWalks(forecast, measured);
          expect(differences.filter(({ what }) => what !== 'start' && what !== 'disk')).toEqual([]);
          expect(sameObjects).toBe(stops);
          expect(measured.triangles).toEqual(forecast.triangles);
          expect(measured.drawCalls).toEqual(forecast.drawCalls);
          expect(measured.loads.map(({ key }) => key)).toEqual(forecast.loads.map(({ key }) => key));
          late += measured.late.length;
          loads += measured.loads.length;
          hidden += measured.triangles.filter((value, i) => value < measured.trianglesUnseen[i]).length;
        },
      ),
      { numRuns: 25 },
    );
    expect(Math.min(late, loads, hidden)).toBeGreaterThan(20);
  }, 120000);

  it('measures what each saving is worth as the walk without it does', async () => {
    const level = await packedLevel(await exampleCollection(), 'cistern', { [device.id]: device });
    const knots: readonly PlanPoint[] = [
      [-14, 0],
      [14, 0],
    ];
    const { measured, walk, forecast } = await bothOf(level, knots, 0);
    const route = { knots, speedMetresPerSecond: 6, floors: forecast.floors };
    const without = (saving: keyof Savings): Promise<MeasuredRun> =>
      walk.run(route, device, { ...ALL_SAVINGS, [saving]: false }, context);
    expect((await without('visibleSets')).triangles).toEqual(measured.trianglesUnseen);
    expect((await without('lods')).triangles).toEqual(measured.trianglesFull);
    expect((await without('instances')).drawCalls).toEqual(measured.drawCallsAlone);
    const jetty = await packedLevel(await exampleCollection(), 'long-jetty', { [device.id]: device });
    const whole = await PackWalk.open(jetty.read, jetty.key, context);
    const all = await whole.run(
      { ...route, knots: [knots[0], [190, 0]] },
      device,
      { ...ALL_SAVINGS, cells: false },
      context,
    );
    expect([all.loads, all.late, [...new Set(all.residentBytes)]]).toEqual([[], [], [all.wholeBytes]]);
  });

  it('steers as it walks: the same is in memory and drawn, frame by frame', async () => {
    const level = await packedLevel(await exampleCollection(), 'long-jetty', { [device.id]: device });
    const knots: readonly PlanPoint[] = [
      [1, 0],
      [37, 0],
    ];
    const { measured, walk } = await bothOf(level, knots, 0.2);
    expect(walk.start).toEqual([1, 0.2, 0]);
    const live = await walk.steer([1, 0.2, 0], 6, device);
    for (const [i, { frame }] of measured.stops.entries()) {
      if (frame > 0) live.step([1, 0], frame - measured.stops[i - 1].frame);
      const { triangles, drawCalls, cells, memoryBytes, floorMetres } = live.now();
      // A run looks before it draws, a step afterwards: what a frame asks for and drops is there a frame later.
      expect([frame, floorMetres]).toEqual([frame, 0.2]);
      if (
        measured.loads.every(
          ({ readyMs, askedMs }) =>
            Math.min(...[readyMs, askedMs].map((ms) => Math.abs(ms - frame * measured.frameMs))) > 40,
        )
      )
        expect([frame, triangles, drawCalls, cells, memoryBytes > 0]).toEqual([
          frame,
          measured.triangles[i],
          measured.drawCalls[i],
          measured.cellsThere[i],
          true,
        ]);
    }
    live.step([0, 1], 3);
    expect(live.way.map(([x, z]) => [Math.round(x), Math.round(z * 10) / 10])).toEqual([
      [1, 0],
      [1, 0],
      [36, 0],
      [36, 0.6],
    ]);
  });

  it('names the file that is missing, and the node that a GLB lacks', async () => {
    const level = await packedLevel(await exampleCollection(), 'cistern', { [device.id]: device });
    const crate = 'kits/example-kit/crate.glb';
    const glb = level.files.get(crate) ?? new Uint8Array();
    level.files.delete(crate);
    await expect(PackWalk.open(level.read, level.key, context)).rejects.toThrow(`${crate}: cannot be read`);
    level.files.set(crate, level.files.get('kits/example-kit/buoy.glb') ?? glb);
    await expect(PackWalk.open(level.read, level.key, context)).rejects.toThrow(
      `${crate}: nodes: has no node crate, which the kit names for crate`,
    );
  });

  it('has the ways of the level: straight, and along its paths', async () => {
    const level = await packedLevel(await exampleCollection(), 'cistern', { [device.id]: device });
    const { ways, bounds } = await PackWalk.open(level.read, level.key, context);
    expect(ways.map(({ name, knots, floorMetres }) => [name, knots.length, knots.at(-1), floorMetres])).toEqual([
      ['Spawn to exit', 2, [14, 0], 0],
      ['Round', 33, [14, 0], 0],
    ]);
    expect(bounds.flat().map((value) => Math.round(value * 10) / 10)).toEqual([-16.4, -5.4, 16.4, 5.4]);
  });
});
