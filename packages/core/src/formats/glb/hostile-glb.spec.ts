import { createRunContext } from '../../context/run-context';
import { readPieces } from '../../detail/read-pieces';
import type { ReadPieces } from '../../detail/sound-pieces';
import { glbOf } from '../../testing/glb-of';
import { smallPng } from '../../testing/small-png';

type Json = Record<string, unknown>;

/** One triangle of 36 bytes, then 16 bytes that a sparse accessor changes it with: elements 1 and 2, and a value for each. */
const BINARY = new Uint8Array(
  Buffer.concat([
    Buffer.from(Float32Array.from([0, 0, 0, 1, 0, 0, 0, 0, 1]).buffer),
    Buffer.from(Uint16Array.from([1, 2]).buffer),
    Buffer.from(Float32Array.from([3, 0, 0, 0, 0, 4]).buffer),
  ]),
);
const SPARSE = { count: 2, indices: { bufferView: 1, componentType: 5123 }, values: { bufferView: 2 } };

/** A scene of one triangle. @param accessor, node, more what is otherwise */
function scene(accessor: Json = {}, node: Json = {}, more: Json = {}): Json {
  return {
    asset: { version: '2.0' },
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0, name: 'slab', ...node }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
    accessors: [
      { bufferView: 0, componentType: 5126, type: 'VEC3', count: 3, min: [0, 0, 0], max: [1, 0, 1], ...accessor },
    ],
    bufferViews: [
      { buffer: 0, byteLength: 36 },
      { buffer: 0, byteOffset: 36, byteLength: 4 },
      { buffer: 0, byteOffset: 40, byteLength: 24 },
    ],
    buffers: [{ byteLength: BINARY.length }],
    ...more,
  };
}

const read = (json: Json, binary = BINARY): Promise<ReadPieces> =>
  readPieces(
    { files: [{ name: 'a.glb', bytes: glbOf(JSON.stringify(json), binary) }], unitMetres: 1, isZUp: false },
    createRunContext(),
  );
const told = async (json: Json): Promise<string[]> =>
  (await read(json)).report.faults
    .map(({ where, message }) => `${where}: ${message}`)
    .filter((text) => !text.includes('has no normals'));
const sizeOf = async (json: Json): Promise<readonly number[] | undefined> =>
  (await read(json)).pieces.at(0)?.bounds.max;

describe('a sparse accessor', () => {
  it('changes the elements that it names, also where there are none to begin with', async () => {
    expect(await sizeOf(scene())).toEqual([1, 0, 1]);
    expect(await sizeOf(scene({ sparse: SPARSE }))).toEqual([3, 0, 4]);
    expect(await sizeOf(scene({ sparse: SPARSE, bufferView: undefined }))).toEqual([3, 0, 4]);
  });

  it('is refused with the element that is not there, and where it claims more than its views have', async () => {
    const fault = async (sparse: Json): Promise<string[]> => told(scene({ sparse: { ...SPARSE, ...sparse } }));
    expect(await told(scene({ sparse: SPARSE, count: 2 }))).toEqual([
      'a.glb: glb: accessors[0].sparse.indices[1] is 2, must be below 2',
    ]);
    expect(await fault({ count: 4 })).toEqual(['a.glb: glb: accessors[0].sparse claims 4 of 3 elements']);
    expect(await fault({ count: 1e15 })).toEqual([
      'a.glb: glb: accessors[0].sparse claims 1000000000000000 of 3 elements',
    ]);
    expect(await fault({ count: 3 })).toEqual([
      'a.glb: glb: accessors[0].sparse.indices claims 3 elements, bufferViews[1] has 4 bytes',
    ]);
    expect(await fault({ values: { bufferView: 1 } })).toEqual([
      'a.glb: glb: accessors[0].sparse.values claims 2 elements, bufferViews[1] has 4 bytes',
    ]);
    expect(await fault({ indices: { bufferView: 1, componentType: 5126 } })).toEqual([
      'a.glb: glb: accessors[0].sparse.indices has the type 5126',
    ]);
    expect(await fault({ indices: 7, values: null })).toEqual([
      'a.glb: glb: accessors[0].sparse.indices has the type undefined',
    ]);
    expect(await fault({ indices: { bufferView: -1, componentType: 5121 } })).toEqual([
      'a.glb: glb: accessors[0].sparse.indices claims 2 elements, bufferViews[-1] has undefined bytes',
    ]);
  });
});

describe('a small file that claims much', () => {
  it('is refused before anything is made of it', async () => {
    // One mesh of 20 million triangles.
    expect(await told(scene({ count: 6e7 }))).toEqual([
      'a.glb: glb: accessors[0] claims 60000000 elements, bufferViews[0] has 36 bytes',
    ]);
    expect(await told(scene({ count: 9e7, bufferView: undefined }))).toEqual([
      'a.glb: glb: accessors[0] claims 90000000 elements of VEC3 in no view',
    ]);
    const lying = { buffer: 0, byteLength: 36, byteStride: 0 };
    expect(await told(scene({ count: 9e7 }, {}, { bufferViews: [lying] }))).toEqual([
      'a.glb: glb: accessors[0] claims 90000000 elements, bufferViews[0] has 36 bytes',
    ]);
  });

  it('may have ten thousand pictures, each in its material, but no piece of more than a thousand', async () => {
    const picture = smallPng(1, 1);
    const binary = new Uint8Array(Buffer.concat([BINARY, picture]));
    const [pieces, each] = [20, 500];
    const all = <T>(count: number, make: (i: number) => T): T[] =>
      Array.from({ length: count }, (_unused, i) => make(i));
    const parts = (from: number, count: number): Json => ({
      primitives: all(count, (i) => ({ attributes: { POSITION: 0 }, material: from + i })),
    });
    const json = scene(
      {},
      {},
      {
        scenes: [{ nodes: all(pieces + 1, (i) => i) }],
        nodes: all(pieces + 1, (mesh) => ({ mesh, name: `n${mesh}` })),
        meshes: [...all(pieces, (i) => parts(i * each, each)), parts(0, 1001)],
        materials: all(pieces * each, (i) => ({
          name: `m${i}`,
          pbrMetallicRoughness: { metallicFactor: i / (pieces * each), baseColorTexture: { index: i } },
        })),
        images: all(pieces * each, (i) => ({ name: `p${i}`, mimeType: 'image/png', bufferView: 3 })),
        textures: all(pieces * each, (source) => ({ source })),
        bufferViews: [
          ...(scene()['bufferViews'] as Json[]),
          { buffer: 0, byteOffset: BINARY.length, byteLength: picture.length },
        ],
        buffers: [{ byteLength: binary.length }],
      },
    );
    const result = await read(json, binary);
    expect(new Set(result.pieces.map(({ step }) => `${step.triangles} ${step.materials}`))).toEqual(
      new Set(['500 500']),
    );
    expect(result.pieces).toHaveLength(pieces);
    expect(result.report.faults.filter(({ severity }) => severity === 'error')).toEqual([
      {
        severity: 'error',
        where: 'n20',
        message: 'has 1001 materials, a piece has at most 1000; the piece is left out',
      },
    ]);
  });
});

describe('a rotation', () => {
  it('that is none, or scales, is put right and told', async () => {
    expect(await told(scene({}, { rotation: [0, 0, 0, 0] }))).toEqual([
      'slab: its rotation has length 0 and is read as none',
    ]);
    expect(await sizeOf(scene({}, { rotation: [0, 0, 0, 0] }))).toEqual([1, 0, 1]);
    // A quarter turn about x, twice as long.
    const turned = scene({}, { rotation: [Math.SQRT2, 0, 0, Math.SQRT2] });
    expect((await told(turned)).at(0)).toBe('slab: its rotation has length 2 and is read as of length 1');
    const [piece] = (await read(turned)).pieces;
    expect([...piece.bounds.min, ...piece.bounds.max].map((value) => Math.round(value * 1e6) / 1e6 + 0)).toEqual([
      0, -1, 0, 1, 0, 0,
    ]);
    expect(await told(scene({}, { rotation: [0, 0.00005, 0, 1] }))).toEqual([
      'slab: its rotation and scale are now applied to its vertices',
    ]);
  });
});
