import fc from 'fast-check';
import { cutLevel } from '../cells/cut-level';
import { createRunContext } from '../context/run-context';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { boxPlanes } from '../geometry/block-solid';
import { plainMaterial, type KitMeshes, type MeshPart } from '../mesh/kit-meshes';
import { stepCost } from '../mesh/mesh-cost';
import { placementsOf } from '../layout/level-placements';
import type { Block } from '../model/block';
import type { CellGrid } from '../model/cell-grid';
import type { Kit, Piece } from '../model/kit';
import type { Placement } from '../model/placement';
import { EMPTY_CONTENT } from '../items';
import type { Stratum } from '../model/stratum';
import { DEFAULT_VIEW } from '../model/view-settings';
import { bakeSight } from '../sight/bake-sight';
import type { PlacedFiles } from '../layout/placed-columns/placed-files';
import { levelSightInput } from '../sight/level-sight-input';
import { smallCollection, smallPng } from '../testing';
import { plainLevel } from '../testing/plain-level';
import { meshOfBlocks } from './block-meshes';
import { blockRanges } from './block-ranges';
import { inspectKit } from './inspect-kit';
import type { KitLoad } from '../budget/mesh-files';
import type { Compression, MeshFiles } from '../model/target';
import { kitLoad } from './kit-load';
import { meshLoads } from './split-kit';
import { levelLoad, type LevelLoadInput } from './level-load';
import { packKit } from './pack-kit';
import { packLevel } from './pack-level';
import { sightFile } from '../sight/sight-file';

const context = createRunContext();
const kits: Record<string, Kit> = { yard: { id: 'yard', name: 'Yard kit', key: 'yard', mesh: '' } };
const pieces: Record<string, Piece> = {
  post: {
    id: 'post',
    kit: 'yard',
    name: 'post',
    bounds: { min: [0, 0, 0], max: [1, 2, 1] },
    steps: [{ triangles: 4, vertices: 8, materials: 1, bytes: 300 }],
  },
};
const kitLoads = { yard: { files: 2, memoryBytes: 9000, diskBytes: 4000 } };
const own: Stratum = { id: 'own', name: 'Own', role: 'base', owner: 'one' };
const grid: CellGrid = {
  id: 'one',
  sizeMetres: 20,
  origin: [0, 0],
  loadMetres: 10,
  dropMetres: 20,
  readyMetres: 5,
  resident: [],
};

async function packed(input: LevelLoadInput): Promise<{ files: number; bytes: number; seenBytes: number }> {
  const sight = bakeSight(levelSightInput(input.content), {}, context);
  const files = await packLevel({ ...input, sight, sections: [], number: 12, sets: ['Works'] }, context);
  return {
    files: files.length,
    bytes: files.reduce((sum, { bytes }) => sum + bytes.length, 0),
    seenBytes: sightFile(
      input.content.strata.map((one) => ({ blocks: one.content.block, placements: placementsOf(one) })),
      sight,
      new Map(Object.entries(input.pieces)),
    ).length,
  };
}

describe('what a game loads for a level', () => {
  const at = fc.double({ min: -200, max: 200, noNaN: true });
  const blocks = fc.array(
    fc.record({
      x: at,
      z: at,
      size: fc.double({ min: 0.5, max: 30, noNaN: true }),
      material: fc.constantFrom('brick', 'a plaster of sixty letters, which is longer than most names', 'öl'),
    }),
    { maxLength: 40 },
  );
  const placements = fc.array(fc.record({ x: at, y: at, turn: fc.integer({ min: 0, max: 359 }) }), { maxLength: 60 });

  const anyFiles = fc.constantFrom<PlacedFiles | undefined>(
    undefined,
    { form: 'exact', withJson: false },
    { form: 'millimetre', withJson: true },
    { form: 'centimetre', withJson: false },
  );

  it('is the files of its pack: as many, and of as many bytes within 2 % and a few hundred', async () => {
    const { records } = await smallCollection();
    await fc.assert(
      fc.asyncProperty(blocks, placements, fc.boolean(), anyFiles, async (walls, posts, isCut, placed) => {
        fc.pre(walls.length + posts.length > 0);
        const block = walls.map(({ x, z, size, material }, i): Block => ({
          id: `b${i}`,
          name: '',
          position: [x, 0, z],
          turn: [0, 0, 0],
          planes: boxPlanes([size, size, 1]),
          sight: 'decor',
          material,
        }));
        const placement = posts.map(({ x, y, turn }, i): Placement => ({
          id: `p${i}`,
          piece: 'post',
          position: [x, 0, y],
          turn: [turn, 0, 0],
          scale: [1, 1, 1],
          ...(i % 3 === 0 ? { values: { note: 'überall' } } : {}),
        }));
        const content = {
          level: { ...records.level['one'], bounds: null },
          strata: [{ stratum: own, content: { ...EMPTY_CONTENT, block, placement } }],
        };
        const input = { content, pieces, kits, kitLoads, grid: isCut ? grid : null, placed };
        const load = levelLoad(input, context);
        const pack = await packed(input);
        const isKitUsed = posts.length > 0;
        expect(load.files - (isKitUsed ? 2 : 0)).toBe(pack.files);
        expect(load.kits).toEqual(isKitUsed ? kitLoads.yard : { files: 0, memoryBytes: 0, diskBytes: 0 });
        const bytes = load.diskBytes - load.kits.diskBytes + pack.seenBytes;
        expect(Math.abs(bytes - pack.bytes)).toBeLessThanOrEqual(0.02 * pack.bytes + 300);
        expect(
          load.own.diskBytes + load.kits.diskBytes + load.strata.reduce((sum, { diskBytes }) => sum + diskBytes, 0),
        ).toBe(load.diskBytes);
        expect(load.own.diskBytes).toBeGreaterThan(0);
        const cut = cutLevel({ ...input, grid }, context);
        expect(load.memoryBytes - load.kits.memoryBytes).toBe(
          [cut.resident, ...cut.cells].reduce((sum, { memoryBytes }) => sum + memoryBytes, 0),
        );
      }),
      { numRuns: 25 },
    );
  });
});

describe('a cell with columns', () => {
  it('loads the file of its placements: what a pack writes of it, to the byte', async () => {
    const place = fc.double({ min: -70, max: 70, noNaN: true });
    const placements = fc.array(
      fc.record({ x: place, y: place, turn: fc.integer({ min: 0, max: 90 }), group: fc.boolean() }),
      { minLength: 1, maxLength: 60 },
    );
    await fc.assert(
      fc.asyncProperty(
        placements,
        fc.constantFrom<PlacedFiles['form']>('exact', 'millimetre', 'centimetre'),
        async (posts, form) => {
          const placement = posts.map(({ x, y, turn, group }, i): Placement => ({
            id: `post-${i}`,
            piece: 'post',
            position: [x, 0, y],
            turn: [turn, 0, 0],
            scale: [1, turn > 45 ? -1 : 1, 1],
            ...(group ? { group: 'north' } : {}),
          }));
          const content = {
            level: { ...plainLevel({ name: 'Yard' }), key: 'yard' },
            strata: [{ stratum: own, content: { ...EMPTY_CONTENT, placement } }],
          };
          const input = { content, pieces, kits, kitLoads, grid, placed: { form, withJson: false } };
          const { cells } = cutLevel(input, context);
          const sight = bakeSight(levelSightInput(content), {}, context);
          const files = await packLevel({ ...input, sight, sections: [], number: null, sets: [] }, context);
          const columns = files.filter(({ path }) => path.endsWith('.bin'));
          expect(cells.map(({ key, files: count, diskBytes }) => [key, count, diskBytes])).toEqual(
            cells.map(({ key }) => [
              key,
              1,
              columns.find(({ path }) => path.endsWith(`cell-${key.replace(',', '-')}.bin`))?.bytes.length,
            ]),
          );
          expect(columns).toHaveLength(cells.length);
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('the file of many blocks', () => {
  it('has longer indices from 65,536 vertices a material', async () => {
    const { records } = await smallCollection();
    const block = Array.from({ length: 3000 }, (_unused, i): Block => ({
      id: `b${i}`,
      name: '',
      position: [i, 0, 0],
      turn: [0, 0, 0],
      planes: boxPlanes([1, 1, 1]),
      sight: 'decor',
      material: 'brick',
    }));
    const content = {
      level: { ...records.level['one'], bounds: null },
      strata: [{ stratum: own, content: { ...EMPTY_CONTENT, block } }],
    };
    const glb = await writeGlb(meshOfBlocks('resident', blockRanges(block)) as KitMeshes);
    const { own: rest, strata } = levelLoad({ content, pieces, kits, kitLoads, grid: null }, context);
    const [text] = await packLevel(
      {
        content,
        pieces,
        kits,
        kitLoads,
        grid: null,
        sight: bakeSight(levelSightInput(content), {}, context),
        sections: [],
        number: null,
        sets: [],
      },
      context,
    ).then((files) => files.slice(-1));
    expect(Math.abs(rest.diskBytes + strata[0].diskBytes - text.bytes.length - glb.length)).toBeLessThan(
      0.02 * glb.length,
    );
  });
});

describe('what a game loads of a kit', () => {
  const triangle = (material: number): MeshPart => ({
    material,
    attributes: [
      { semantic: 'POSITION', size: 3, values: Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]) },
      { semantic: 'TEXCOORD_0', size: 2, values: Float32Array.from([0, 0, 1, 0, 0, 1]) },
    ],
    indices: Uint32Array.from([0, 1, 2]),
  });
  const use = { texture: 0, coordinates: 0, wrapS: 10497, wrapT: 10497, magFilter: null, minFilter: null };

  it('holds a texture that forty pieces share once, and every piece whether it is used or not', async () => {
    const picture = smallPng(1, 1);
    const meshes: KitMeshes = {
      pieces: Array.from({ length: 40 }, (_unused, i) => ({ name: `piece ${i}`, parts: [triangle(i % 2)] })),
      materials: [
        plainMaterial('rust', { maps: { baseColour: use } }),
        plainMaterial('soot', { maps: { baseColour: use } }),
      ],
      textures: [{ name: 'grain', mimeType: 'image/png', bytes: picture, widthPixels: 1, heightPixels: 1 }],
    };
    const glb = await writeGlb(meshes);
    const inspection = inspectKit(glb);
    // Three vertices of five numbers and three indices, four bytes each; one pixel of four bytes and a third more, rounded up.
    expect(inspection).toMatchObject({ memoryBytes: 40 * (15 + 3) * 4 + 6, fileBytes: glb.length });
    expect(meshes.pieces.reduce((sum, mesh) => sum + stepCost(mesh, meshes, 0).bytes, 0)).toBe(40 * ((15 + 3) * 4 + 6));
    const of = meshes.pieces.map(({ name }, i): Piece => ({ ...pieces['post'], id: `p${i}`, name }));
    const packed = { kit: kits['yard'], pieces: of, glb, view: DEFAULT_VIEW };
    const loadOf = async (meshFiles: MeshFiles, compression?: Compression): Promise<KitLoad> =>
      kitLoad(kits['yard'], of, DEFAULT_VIEW, meshFiles, await meshLoads({ glb, meshFiles, compression }, context));
    for (const compression of [undefined, 'none', 'meshopt'] as const) {
      const files = await packKit({ ...packed, meshFiles: 'perKit', compression }, context);
      expect(await loadOf('perKit', compression)).toEqual({
        files: files.length,
        memoryBytes: inspection.memoryBytes,
        diskBytes: files.reduce((sum, { bytes }) => sum + bytes.length, 0),
      });
    }
    // Apart, each piece has the material and the picture that it uses.
    const apart = await packKit({ ...packed, meshFiles: 'perPiece' }, context);
    const split = await loadOf('perPiece');
    expect(apart.map(({ path }) => path).sort()).toEqual(
      [...of.map(({ name }) => `kits/yard/${name.replace(' ', '-')}.glb`), 'kits/yard.json'].sort(),
    );
    for (const { path, bytes } of apart) {
      const piece = of.find(({ name }) => path.endsWith(`/${name.replace(' ', '-')}.glb`));
      const { diskBytes, memoryBytes } = piece ? (split.pieces?.[piece.id] ?? split) : split;
      expect([path, diskBytes, memoryBytes]).toEqual([path, bytes.length, piece ? (15 + 3) * 4 + 6 : 0]);
      if (!piece) continue;
      const { meshes: read, faults } = await readGlb(bytes);
      expect([faults, read.pieces.map(({ name }) => name), read.materials.length, read.textures.length]).toEqual([
        [],
        [piece.name],
        1,
        1,
      ]);
    }
  });
});
