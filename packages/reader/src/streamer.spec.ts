import fc from 'fast-check';
import { cutLevel } from '../../core/src/cells/cut-level';
import { rehearse } from '../../core/src/cells/rehearse';
import { walkPath } from '../../core/src/cells/walk-path';
import { createRunContext } from '../../core/src/context/run-context';
import { EMPTY_CONTENT } from '../../core/src/items';
import type { LevelContent } from '../../core/src/layout/level-content';
import type { CellGrid } from '../../core/src/model/cell-grid';
import type { Device } from '../../core/src/model/device';
import type { Kit, Piece } from '../../core/src/model/kit';
import { packLevel } from '../../core/src/pack/pack-level';
import { manifestText } from '../../core/src/pack/pack-manifest';
import { PLAIN_TARGET } from '../../core/src/pack/pack-target';
import { plainLevel } from '../../core/src/testing/plain-level';
import { createStreamer, openPack, type Streamer } from './index';

const context = createRunContext();
const names = ['post', 'gate', 'lamp'];
const piece = (name: string): Piece => ({
  id: name,
  kit: 'yard',
  name,
  bounds: { min: [-1, 0, -1], max: [1, 2, 1] },
  steps: [{ triangles: 1, vertices: 3, materials: 1, bytes: 100 }],
});
const pieces = Object.fromEntries(names.map((name) => [name, piece(name)]));
const kits: Record<string, Kit> = { yard: { id: 'yard', name: 'Yard kit', key: 'yard', mesh: '' } };
const load = { files: 1, diskBytes: 1, memoryBytes: 1 };
const kitLoads = { yard: { ...load, pieces: Object.fromEntries(names.map((name) => [name, load])) } };
/** So fast that what is asked for comes in the same frame. */
const device: Device = {
  id: 'd',
  name: 'Fast',
  order: 'a',
  budget: { triangles: 1, drawCalls: 1, memoryBytes: 1, loadMs: 1, diskBytes: 1 },
  seekMs: 0,
  diskBytesPerSecond: 1e15,
  unpackBytesPerSecond: 1e15,
  activationSliceMs: 1e6,
  activationBytesPerMs: 1e12,
  framesPerSecond: 20,
};
const SPEED = 8;
/** What a rehearsal calls a file that several chunks need. */
const CALLED: Readonly<Record<string, string>> = {
  'kits/yard.json': 'Yard kit',
  ...Object.fromEntries(names.map((name) => [`kits/yard/${name}.glb`, name])),
};

async function streamerOf(content: LevelContent, grid: CellGrid): Promise<Streamer> {
  const sight = null;
  const input = { content, pieces, kits, kitLoads, grid, sight, sections: [], number: 1, sets: [] };
  const files = await packLevel(input, context);
  const manifest = manifestText({
    collection: { id: 'c', name: 'Yard' },
    target: PLAIN_TARGET,
    edit: 0,
    levels: ['levels/yard.json'],
    kits: ['kits/yard.json'],
    stale: [],
    files: [],
  });
  const named = new Map(files.map(({ path, bytes }) => [path, bytes]));
  named.set('manifest.json', new TextEncoder().encode(manifest));
  const pack = await openPack((path) => Promise.resolve(named.get(path) ?? new Uint8Array()));
  return createStreamer(await pack.level('yard'));
}

describe('the streamer', () => {
  it('asks for the same files in the same frame as a rehearsal, on any grid and way', async () => {
    const at = fc.double({ min: -60, max: 60, noNaN: true });
    const placements = fc.array(fc.record({ x: at, z: at, name: fc.constantFrom(...names) }), {
      minLength: 1,
      maxLength: 40,
    });
    const way = fc.array(fc.tuple(at, at), { minLength: 2, maxLength: 5 });
    const rule = fc.record({
      sizeMetres: fc.integer({ min: 8, max: 50 }),
      loadMetres: fc.integer({ min: 0, max: 40 }),
      more: fc.integer({ min: 0, max: 30 }),
    });
    let asked = 0;
    await fc.assert(
      fc.asyncProperty(placements, way, rule, async (all, knots, { sizeMetres, loadMetres, more }) => {
        fc.pre(knots.some(([x, z]) => Math.hypot(x - knots[0][0], z - knots[0][1]) > 1));
        const grid: CellGrid = {
          id: 'yard',
          sizeMetres,
          origin: [3, -7],
          loadMetres,
          dropMetres: loadMetres + more,
          readyMetres: 0,
          resident: [],
        };
        const content: LevelContent = {
          level: { ...plainLevel({ name: 'Yard' }), id: 'yard', key: 'yard' },
          strata: [
            {
              stratum: { id: 'own', name: 'Own', role: 'base', owner: 'yard' },
              content: {
                ...EMPTY_CONTENT,
                placement: all.map(({ x, z, name }, i) => ({
                  id: `p${i}`,
                  piece: name,
                  position: [x, 0, z] as const,
                  turn: [0, 0, 0] as const,
                  scale: [1, 1, 1] as const,
                })),
              },
            },
          ],
        };
        const path = walkPath(knots);
        const cut = cutLevel({ content, pieces, kits, kitLoads, grid }, context);
        const { loads, figures } = rehearse(
          { cut, grid, path, speedMetresPerSecond: SPEED, device, levelFiles: { files: 1, diskBytes: 1 } },
          context,
        );
        const streamer = await streamerOf(content, grid);
        const frameMs = 1000 / device.framesPerSecond;
        for (let frame = 0; frame < figures.frames; frame++) {
          const nowMs = frame * frameMs;
          const [x, z] = path.at((nowMs / 1000) * SPEED);
          streamer.update(x, 0, z);
          if (frame === 0) continue;
          const found = [...streamer.asked.subarray(0, streamer.askedCount)].map((unit) => {
            const { chunk, paths } = streamer.units[unit];
            return chunk ?? CALLED[paths[0]];
          });
          const wanted = loads.filter(({ askedMs }) => askedMs === nowMs).map(({ name }) => name);
          expect([frame, found.sort()]).toEqual([frame, wanted.sort()]);
          asked += found.length;
        }
      }),
      {
        numRuns: 60,
        // A cell that ends just as far as one is loaded, to the west of a frame.
        examples: [
          [
            [
              { x: -5.000000000000002, z: 0, name: 'post' },
              { x: 0, z: 0, name: 'post' },
            ],
            [
              [0, 0],
              [-2, 0],
              [0, 0],
              [0, 0],
            ],
            { sizeMetres: 8, loadMetres: 3, more: 0 },
          ],
        ],
      },
    );
    expect(asked).toBeGreaterThan(100);
  });
});
