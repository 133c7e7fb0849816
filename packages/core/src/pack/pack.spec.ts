import { strFromU8 } from 'fflate';
import fc from 'fast-check';
import { validateBytes } from 'gltf-validator';
import { createRunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import { turnMatrix } from '../geometry/turn';
import { turnQuaternion } from '../geometry/turn-quaternion';
import { readGlb } from '../formats/glb/read-glb';
import type { CollectionContent } from '../model/collection-content';
import type { Block } from '../model/block';
import type { Target } from '../model/target';
import { DEFAULT_VIEW } from '../model/view-settings';
import { bakeSight } from '../sight/bake-sight';
import { levelSightInput } from '../sight/level-sight-input';
import { smallCollection } from '../testing';
import { meshOfBlocks } from './block-meshes';
import { blockRanges } from './block-ranges';
import { checkPack } from './check-pack';
import { inspectKit } from './inspect-kit';
import { packKit } from './pack-kit';
import { packLevel, type PackLevelInput } from './pack-level';
import { EMPTY_CONTENT } from '../items';
import { manifestPaths, manifestText } from './pack-manifest';
import { PLAIN_TARGET } from './pack-target';

const context = createRunContext();
let content: CollectionContent;

beforeEach(async () => {
  content = await smallCollection();
});

const inspections = () => ({
  kit: inspectKit(content.assets.get(content.records.kit['kit'].mesh) ?? new Uint8Array()),
});
const codes = (over: Partial<Parameters<typeof checkPack>[0]> = {}): string[] =>
  checkPack({ content, inspections: inspections(), choice: { withAllPurposes: false }, ...over }, context).map(
    ({ code, subject }) => `${code} ${subject}`,
  );
/** What a target of the collection's own finds. */
const found = (target: Partial<Target>) => {
  content.records.target['own'] = { ...PLAIN_TARGET, ...target, id: 'own' };
  return checkPack({ content, inspections: inspections(), choice: {} }, context);
};
const codesFor = (target: Partial<Target>): string[] => found(target).map(({ code, subject }) => `${code} ${subject}`);
const levelInput = (): PackLevelInput => {
  const level = content.records.level['one'];
  const strata = level.strata.map(({ stratum }) => ({
    stratum: content.records.stratum[stratum],
    content: content.strata.get(stratum) ?? never(),
  }));
  const sight = bakeSight(levelSightInput({ level, strata }), {}, context);
  return {
    content: { level, strata },
    pieces: content.records.piece,
    kits: content.records.kit,
    kitLoads: { kit: { files: 2, memoryBytes: 900, diskBytes: 800 } },
    grid: null,
    sight,
    sections: [],
    number: 1,
    sets: ['Works'],
  };
};

describe('the check of a pack', () => {
  it('has nothing against a sound collection', () => {
    expect(codes()).toEqual([]);
  });

  it('packs levels of any name under their keys, and finds a key that is too long for the target', async () => {
    const glassHeart = { ...content.records.level['one'], name: '硝子', key: 'glass-heart' };
    content.records.level['one'] = glassHeart;
    expect(codes()).toEqual([]);
    expect(codesFor({ rules: { levelKeys: { isOn: true, max: 10 } } })).toEqual(['PACK_FILE_NAME one']);
    expect(codesFor({ rules: { levelKeys: { isOn: false, max: 10 } } })).toEqual([]);
    const before = await packLevel(levelInput(), context);
    content.records.level['one'] = { ...glassHeart, name: 'Heart of glass' };
    const renamed = await packLevel(levelInput(), context);
    expect(renamed.map(({ path }) => path)).toEqual(before.map(({ path }) => path));
    expect(before.at(-1)?.path).toBe('levels/glass-heart.json');
  });

  it('finds scales, sizes and counts beyond the target’s, each with its place', () => {
    const own = content.strata.get('own') ?? never();
    content.strata.set('own', { ...own, placement: [{ ...own.placement[0], scale: [1, 250, 1] }] });
    content.records.piece['pin'] = {
      ...content.records.piece['pin'],
      bounds: { min: [0, 0, 0], max: [4000, 1, 1] },
      steps: [{ triangles: 2000000, vertices: 3, materials: 20, bytes: 1 }],
    };
    const findings = found({ counts: { block: { isOn: true, max: 0 } } });
    expect(findings.map(({ code }) => code)).toEqual([
      'PACK_SCALE',
      'PACK_COUNT',
      'PACK_COUNT',
      'PACK_PIECE_SIZE',
      'PACK_PIECE_TRIANGLES',
      'PACK_PIECE_MATERIALS',
    ]);
    expect(findings[0].place).toEqual({ level: 'one', stratum: 'own', item: 'p1', position: [1.25, 0, -2] });
    expect(findings[1].message).toBe('one has 1 blocks; Plain glTF takes 0');
  });

  it('finds nodes that are missing or moved, and textures that are missing or large', () => {
    const bad = {
      nodes: ['pin'],
      movedNodes: ['pin'],
      textures: [{ name: 'rust 1', widthPixels: 8192, heightPixels: 16 }],
      missingTextures: ['moss'],
      repeats: new Map<string, number>(),
      extensions: [],
      memoryBytes: 0,
      fileBytes: 0,
    };
    expect(codes({ inspections: { kit: bad } })).toEqual([
      'PACK_NODE_MOVED pin',
      'PACK_TEXTURE_MISSING kit.moss',
      'PACK_TEXTURE_LARGE kit.rust-1',
    ]);
    expect(
      codes({ inspections: { kit: { ...bad, nodes: [], movedNodes: [], textures: [], missingTextures: [] } } }),
    ).toEqual(['PACK_NODE_MISSING pin']);
  });

  it('finds a level in which nothing stands, takes one without a block, and passes over one without strata', () => {
    content.records.level['one'] = {
      ...content.records.level['one'],
      bounds: null,
      strata: [{ stratum: 'own', switchedOff: false }],
    };
    content.records.level['two'] = { ...content.records.level['two'], strata: [] };
    expect(codes()).toEqual([]);
    content.strata.set('own', EMPTY_CONTENT);
    expect(codes()).toEqual(['PACK_EMPTY one']);
  });

  it('leaves trial and tool levels out unless asked', () => {
    content.records.level['two'] = {
      ...content.records.level['two'],
      bounds: null,
      strata: [{ stratum: 'own', switchedOff: false }],
      purpose: 'test',
    };
    content.strata.set('own', EMPTY_CONTENT);
    expect(codes()).toEqual([]);
    expect(codes({ choice: { withAllPurposes: true } })).toEqual(['PACK_EMPTY two']);
    expect(codes({ choice: { withAllPurposes: true, without: ['two', 'gone'] } })).toEqual([]);
  });
});

describe('the files of a pack', () => {
  it('hold a level: blocks as sound glTF, placements, markers, what is seen', async () => {
    const files = await packLevel(levelInput(), context);
    expect(files.map(({ path }) => path)).toEqual([
      'levels/one/resident.glb',
      'levels/one/sight.json',
      'levels/one.json',
    ]);
    const { issues } = await validateBytes(files[0].bytes);
    expect(issues).toMatchObject({ numErrors: 0, numWarnings: 0 });
    const level = JSON.parse(strFromU8(files[2].bytes)) as {
      chunks: { placements: unknown[] }[];
      markers: unknown[];
      cells: unknown;
    };
    expect(level.chunks[0].placements).toEqual([
      {
        id: 'p1',
        piece: 'pin',
        translation: [1.25, 0, -2],
        rotation: [0, expect.closeTo(0.130526, 5), 0, expect.closeTo(0.991445, 5)],
        scale: [1, 1, 1],
      },
    ]);
    expect([level.markers, level.cells]).toEqual([
      [{ id: 'm1', kind: 'spawn', translation: [0, 0, 0], rotation: [0, 0, 0, 1] }],
      null,
    ]);
    const sight = JSON.parse(strFromU8(files[1].bytes)) as {
      objects: string[];
      pockets: { visible: number[]; objects: number[] }[];
    };
    expect(sight.objects).toEqual(['slab', 'p1']);
    expect(sight.pockets.some(({ visible, objects }) => visible.length > 0 && objects.length > 0)).toBe(true);
    expect((await packLevel(levelInput(), context)).map(({ bytes }) => bytes)).toEqual(files.map(({ bytes }) => bytes));
  });

  it('hold a level that is cut, a file a cell', async () => {
    const grid = {
      id: 'one',
      sizeMetres: 50,
      origin: [-25, -25] as const,
      loadMetres: 10,
      dropMetres: 20,
      readyMetres: 0,
      resident: ['own'],
    };
    const files = await packLevel({ ...levelInput(), grid }, context);
    expect(files.map(({ path }) => path)).toEqual([
      'levels/one/cell-0-0.glb',
      'levels/one/sight.json',
      'levels/one/cells.json',
      'levels/one.json',
    ]);
    expect(JSON.parse(strFromU8(files[2].bytes))).toMatchObject({
      sizeMetres: 50,
      loadMetres: 10,
      cells: [{ cell: '0,0', min: [-25, -25], max: [25, 25] }],
    });
  });

  it('hold a kit with node and switch distance of every step', async () => {
    const kit = content.records.kit['kit'];
    const glb = content.assets.get(kit.mesh) ?? never();
    const steps = [
      content.records.piece['pin'].steps[0],
      { triangles: 1, vertices: 3, materials: 1, bytes: 1, deviationMetres: 0.01 },
    ];
    const pieces = [{ ...content.records.piece['pin'], steps }];
    const [mesh, description] = await packKit({ kit, pieces, glb, view: DEFAULT_VIEW, meshFiles: 'perKit' }, context);
    expect([mesh.path, description.path, mesh.bytes]).toEqual(['kits/kit.glb', 'kits/kit.json', glb]);
    // 1080 pixels ÷ (2 · tan 30°) = 935.3 pixels at 1 m; one pixel is 0.01 m at 9.353 m.
    expect(JSON.parse(strFromU8(description.bytes))).toMatchObject({
      pieces: [
        {
          meshes: 'kits/kit.glb',
          steps: [
            { node: 'pin', fromMetres: 0 },
            { node: 'pin.step1', fromMetres: expect.closeTo(9.353, 3) as number },
          ],
        },
      ],
    });
  });

  it('are named by a manifest that names no other', () => {
    const files = [
      { path: 'levels/b.json', bytes: 2, sha256: 'b' },
      { path: 'kits/a.glb', bytes: 1, sha256: 'a' },
    ];
    const text = manifestText({
      target: PLAIN_TARGET,
      collection: { id: 'small', name: 'Small' },
      edit: 7,
      levels: ['levels/b.json'],
      kits: ['kits/a.json'],
      stale: [],
      files,
    });
    expect(manifestPaths(text)).toEqual(['kits/a.glb', 'levels/b.json']);
    expect(() => manifestPaths('{}')).toThrow('its manifest.json is not that of a pack');
    expect(() => manifestPaths(text.replace('kits/a.glb', 'kits/../../etc'))).toThrow(
      'its manifest names the file "kits/../../etc", which no pack has',
    );
  });
});

describe('blocks as a mesh', () => {
  it('keep every face with its normal outwards, a part a material', () => {
    const block = (id: string, material: string): Block => ({
      id,
      name: '',
      position: [0, 0, 0],
      turn: [30, 0, 0],
      planes: boxPlanes([2, 1, 2]),
      sight: 'hides',
      material,
    });
    const meshes =
      meshOfBlocks('blocks', blockRanges([block('a', 'salt'), block('b', 'iron'), block('c', 'salt')])) ?? never();
    expect(meshes.materials.map(({ name }) => name)).toEqual(['iron', 'salt']);
    expect(meshes.pieces[0].parts.map(({ indices }) => indices.length / 3)).toEqual([12, 24]);
    const [{ attributes }] = meshes.pieces[0].parts;
    for (let v = 0; v < attributes[0].values.length; v += 3) {
      // The middle of the box is at y = 0.5: every corner lies on the outer side of its face.
      const out = [0, 1, 2].reduce(
        (sum, k) => sum + attributes[1].values[v + k] * (attributes[0].values[v + k] - (k === 1 ? 0.5 : 0)),
        0,
      );
      expect(out).toBeGreaterThan(0);
    }
    expect(meshOfBlocks('none', blockRanges([]))).toBeUndefined();
  });
});

describe('turns as quaternions', () => {
  it('turn as the matrix does', () => {
    const angle = fc.double({ min: -720, max: 720, noNaN: true });
    fc.assert(
      fc.property(angle, angle, angle, (yaw, pitch, roll) => {
        const [x, y, z, w] = turnQuaternion([yaw, pitch, roll]);
        const m = turnMatrix([yaw, pitch, roll]);
        const q = [
          1 - 2 * (y * y + z * z),
          2 * (x * y - z * w),
          2 * (x * z + y * w),
          2 * (x * y + z * w),
          1 - 2 * (x * x + z * z),
          2 * (y * z - x * w),
          2 * (x * z - y * w),
          2 * (y * z + x * w),
          1 - 2 * (x * x + y * y),
        ];
        q.forEach((value, i) => expect(value).toBeCloseTo(m[i], 9));
      }),
    );
  });
});

describe('the inspection of a kit', () => {
  it('tells which nodes are moved', async () => {
    const bytes = content.assets.get(content.records.kit['kit'].mesh) ?? never();
    expect(inspectKit(bytes)).toEqual({
      nodes: ['pin'],
      movedNodes: [],
      textures: [],
      missingTextures: [],
      repeats: new Map(),
      extensions: [],
      memoryBytes: expect.any(Number),
      fileBytes: bytes.length,
    });
    expect((await readGlb(bytes)).faults).toEqual([]);
  });
});

function never(): never {
  throw new Error('not there');
}
