import { strToU8, zipSync } from 'fflate';
import { createRunContext } from '../context/run-context';
import type { DroppedFile } from '../formats/dropped-file';
import { openGlb } from '../formats/glb/open-glb';
import { smallPng } from '../testing/small-png';
import { readPieces } from './read-pieces';
import type { ReadPieces } from './sound-pieces';

const read = (files: readonly DroppedFile[]): Promise<ReadPieces> =>
  readPieces({ files, unitMetres: 1, isZUp: false }, createRunContext());
const told = ({ report }: ReadPieces): string[] =>
  report.faults.map(({ severity, where, message }) => `${severity} ${where}: ${message}`);
const sizes = ({ pieces }: ReadPieces): (readonly [string, number])[] =>
  pieces.map(({ name, bounds }) => [name, bounds.max[0]]);
const zip = (name: string, files: Record<string, Uint8Array>): DroppedFile => ({ name, bytes: zipSync(files) });

/** A triangle `width` metres wide, its buffer and picture beside it. */
const buffer = (width: number): Uint8Array =>
  new Uint8Array(Float32Array.from([0, 0, 0, width, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 1, 0, 0, 1]).buffer);
const gltf = (bin: string, picture?: string): Uint8Array =>
  strToU8(
    JSON.stringify({
      asset: { version: '2.0' },
      buffers: [{ uri: bin, byteLength: 72 }],
      bufferViews: [
        { buffer: 0, byteLength: 36 },
        { buffer: 0, byteOffset: 36, byteLength: 36 },
      ],
      accessors: [0, 1].map((bufferView) => ({ bufferView, componentType: 5126, count: 3, type: 'VEC3' })),
      meshes: [{ primitives: [{ attributes: { POSITION: 0, NORMAL: 1 }, ...(picture ? { material: 0 } : {}) }] }],
      nodes: [{ mesh: 0, name: 'flag' }],
      scenes: [{ nodes: [0] }],
      ...(picture
        ? {
            images: [{ uri: picture }],
            textures: [{ source: 0 }],
            materials: [{ name: 'm', pbrMetallicRoughness: { baseColorTexture: { index: 0 } } }],
          }
        : {}),
    }),
  );

describe('files that come in folders and zips', () => {
  it('are found from where each is named, though others have the same name', async () => {
    const yard = zip('yard.zip', {
      'chair/scene.gltf': gltf('scene.bin', '../shared/Paint%20A.png'),
      'chair/scene.bin': buffer(2),
      'table/scene.gltf': gltf('./parts/../scene.bin', 'paint a.png'),
      'table/scene.bin': buffer(5),
      'table/paint a.png': new Uint8Array(smallPng(2, 2)),
      'shared/paint a.png': new Uint8Array(smallPng(8, 4)),
    });
    const result = await read([yard]);
    expect(sizes(result)).toEqual([
      ['flag', 2],
      ['flag 2', 5],
    ]);
    expect(result.report.textures.map(({ widthPixels }) => widthPixels)).toEqual([8, 2]);
    expect(told(result).filter((line) => !line.includes('texture coordinates'))).toEqual([
      'note flag: is called “flag 2” in the kit',
    ]);
  });

  it('are found by name alone, nearest first, where the path is not the one that came along', async () => {
    const files = {
      'a/scene.gltf': gltf('textures/scene.bin'),
      'b/scene.bin': buffer(3),
      'a/deep/scene.bin': buffer(4),
    };
    expect(sizes(await read([zip('x.zip', files)]))).toEqual([['flag', 4]]);
    // Without their folders, as a page gives them.
    const plain = [
      { name: 'scene.gltf', bytes: gltf('bin/SCENE.bin') },
      { name: 'scene.bin', bytes: buffer(6) },
    ];
    expect(sizes(await read(plain))).toEqual([['flag', 6]]);
  });

  it('are told where nothing uses them; what systems put there is passed over', async () => {
    const result = await read([
      zip('x.zip', {
        'scene.gltf': gltf('scene.bin'),
        'scene.bin': buffer(1),
        'spare.bin': buffer(1),
        'preview.png': new Uint8Array(smallPng(2, 2)),
        'inner.zip': zipSync({ 'deep.gltf': gltf('scene.bin') }),
        'read me.txt': strToU8('hello'),
        '__MACOSX/._scene.gltf': strToU8('x'),
        '.DS_Store': strToU8('x'),
        'empty/': new Uint8Array(),
      }),
    ]);
    expect(told(result).map((line) => line.replace(/Choose .*/, 'Choose …'))).toEqual([
      'warning x.zip/inner.zip: is a zip archive. Choose …',
      'warning x.zip/read me.txt: is text. Choose …',
      'note x.zip/spare.bin: is used by none of the meshes; left out',
      'note x.zip/preview.png: is used by none of the meshes; left out',
    ]);
  });

  it('are refused with the zip and the reason where it is cut off, damaged, or claims too much', async () => {
    const { bytes } = zip('x.zip', { 'scene.gltf': gltf('scene.bin'), 'scene.bin': buffer(1) });
    for (const cut of [bytes.slice(0, bytes.length - 30), bytes.slice(0, 60)])
      await expect(read([{ name: 'x.zip', bytes: cut }])).rejects.toThrow(/^import: x\.zip, .*not a complete zip/);
    const damaged = bytes.slice();
    damaged.fill(0xff, 45, 90);
    await expect(read([{ name: 'x.zip', bytes: damaged }])).rejects.toThrow(/^import: x\.zip, /);
    // 2 GB claimed in the list of files, at the place of the size unpacked.
    const huge = bytes.slice();
    const at = Buffer.from(huge).indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
    new DataView(huge.buffer).setUint32(at + 24, 2e9, true);
    await expect(read([{ name: 'x.zip', bytes: huge }])).rejects.toThrow(
      /at scene\.gltf it claims 1 files of 2000000000/,
    );
    // Several together may not be more than one.
    const half = huge.slice();
    new DataView(half.buffer).setUint32(at + 24, 1.05e9, true);
    await expect(
      read([zip('y.zip', { 'b.txt': new Uint8Array(3e7) }), { name: 'x.zip', bytes: half }]),
    ).rejects.toThrow(
      /^import: x\.zip, at scene\.gltf it claims 1 files of 1050000000 bytes, the limits are 100000 and 1043741824/,
    );
    await expect(read([zip('x.zip', { 'a.txt': strToU8('a') })])).rejects.toThrow(/a\.txt is text/);
    await expect(read([zip('x.zip', {})])).rejects.toThrow('import: there is no file');
  });
});

describe('pictures of an MTL', () => {
  it('lie scaled and moved as its options say, upward there and downward in glTF', async () => {
    const files = (options: string): DroppedFile[] => [
      {
        name: 'a.obj',
        bytes: strToU8('mtllib a.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nvt 0 0\nvt 1 0\nvt 0 1\nusemtl m\nf 1/1 2/2 3/3\n'),
      },
      { name: 'a.mtl', bytes: strToU8(`newmtl m\nmap_Kd ${options}p q.png\n`) },
      { name: 'p q.png', bytes: new Uint8Array(smallPng(2, 2)) },
    ];
    const transform = async (options: string): Promise<unknown> => {
      const { glb } = await read(files(options));
      const { materials } = openGlb(glb ?? new Uint8Array()).json as {
        materials: { pbrMetallicRoughness: { baseColorTexture: { extensions?: Record<string, unknown> } } }[];
      };
      return materials[0].pbrMetallicRoughness.baseColorTexture.extensions?.['KHR_texture_transform'];
    };
    // At the corner u 0, v 0 the picture is looked up at 0.25, 0.5 from below: 0.25, 0.5 from above.
    expect(await transform('-s 2 3 1 -o 0.25 0.5 ')).toEqual({ offset: [0.25, -2.5], scale: [2, 3] });
    expect(await transform('-o .5 ')).toEqual({ offset: [0.5, 0] });
    expect(await transform('-clamp on -s 1 1 1 ')).toBeUndefined();
    expect(await transform('-s 2..1 1 ')).toBeUndefined();
  });
});
