import { Document, WebIO } from '@gltf-transform/core';
import { strToU8 } from 'fflate';
import { validateBytes } from 'gltf-validator';
import { createRunContext } from '../context/run-context';
import { readGlb } from '../formats/glb/read-glb';
import { positionsOf } from '../mesh/kit-meshes';
import { smallPng } from '../testing/small-png';
import type { DroppedFile } from '../formats/dropped-file';
import { readPieces } from './read-pieces';
import type { ReadPieces } from './sound-pieces';

const context = createRunContext();
const read = (
  files: readonly DroppedFile[],
  over: Partial<Parameters<typeof readPieces>[0]> = {},
): Promise<ReadPieces> => readPieces({ files, unitMetres: 1, isZUp: false, ...over }, context);
const file = (name: string, content: string | Uint8Array): DroppedFile => ({
  name,
  bytes: typeof content === 'string' ? strToU8(content) : content,
});
const faultsOf = ({ report }: ReadPieces): string[] =>
  report.faults.map(({ severity, where, message }) => `${severity} ${where}: ${message}`);

async function glb(
  build: (
    document: Document,
    mesh: (
      name: string,
      positions: number[],
      indices?: number[],
      normals?: boolean,
    ) => ReturnType<Document['createNode']>,
  ) => void,
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  build(document, (name, positions, indices, normals = true) => {
    const primitive = document
      .createPrimitive()
      .setAttribute(
        'POSITION',
        document.createAccessor().setType('VEC3').setArray(Float32Array.from(positions)).setBuffer(buffer),
      );
    if (normals) {
      const up = positions.map((_value, i) => (i % 3 === 2 ? 1 : 0));
      primitive.setAttribute(
        'NORMAL',
        document.createAccessor().setType('VEC3').setArray(Float32Array.from(up)).setBuffer(buffer),
      );
    }
    if (indices)
      primitive.setIndices(
        document.createAccessor().setType('SCALAR').setArray(Uint32Array.from(indices)).setBuffer(buffer),
      );
    const node = document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive));
    scene.addChild(node);
    return node;
  });
  return new WebIO().writeBinary(document);
}
const triangle = [0, 0, 0, 1, 0, 0, 0, 1, 0];

const OBJ = `mtllib yard.mtl
o Crate, large
v 0 0 0
v 2 0 0
v 2 1 0
v 0 1 0
vt 0 0
vt 1 0
vt 1 1
vt 0 1
usemtl plank
f 1/1 2/2 3/3 4/4
usemtl iron
f -4 -3 -2
o lid
v 0 2 0
v 1 2 0
v 0 2 1
f 5 6 7
`;
const MTL = `# yard
newmtl plank
Kd 1 0.5 0
Ns 98
map_Kd -s 2 2 1 textures\\plank grain.png
newmtl iron
Kd 0.2 0.2 0.2
d 0.5
`;

describe('strips and fans', () => {
  it('are read as their triangles, every second of a strip wound the other way about, without those that only lead it on', async () => {
    // The strip goes back to its beginning: the last triangle is its eighth.
    const corners = [0, 0, 0, 0, 0, 1, 1, 0, 0, 1, 0, 1, 2, 0, 0];
    const bytes = await glb((_document, mesh) => {
      mesh('strip', corners, [0, 1, 2, 3, 4, 4, 0, 0, 1, 2]).getMesh()?.listPrimitives()[0].setMode(5);
      mesh('fan', corners, [0, 1, 3, 2]).getMesh()?.listPrimitives()[0].setMode(6);
      mesh('lines', corners, [0, 1, 2, 3]).getMesh()?.listPrimitives()[0].setMode(1);
    });
    const result = await read([file('modes.glb', bytes)]);
    expect(faultsOf(result)).toEqual([
      'note lines: a part of points or lines is left out: only triangles are drawn',
      'error lines: has no triangles; the piece is left out',
    ]);
    const { meshes } = await readGlb(result.glb ?? new Uint8Array());
    expect(meshes.pieces.map(({ name, parts: [{ indices }] }) => [name, [...indices]])).toEqual([
      ['strip', [0, 1, 2, 1, 3, 2, 2, 3, 4, 0, 2, 1]],
      ['fan', [0, 1, 3, 0, 3, 2]],
    ]);
  });
});

describe('normals', () => {
  it('without a direction are computed, others get length 1, and sound ones stay as they are', async () => {
    const normalsOf = async (values: readonly number[]): Promise<[string[], number[]]> => {
      const text = `v 0 0 0\nv 1 0 0\nv 0 0 1\nvn ${values.join(' ')}\nf 3//1 2//1 1//1\n`;
      const result = await read([file('x.obj', text)]);
      const { meshes } = await readGlb(result.glb ?? new Uint8Array());
      const normal = meshes.pieces[0].parts[0].attributes.find(({ semantic }) => semantic === 'NORMAL');
      return [faultsOf(result), [...(normal?.values.slice(0, 3) ?? [])]];
    };
    expect(await normalsOf([0, 1, 0])).toEqual([[], [0, 1, 0]]);
    expect(await normalsOf([0, 0, 4])).toEqual([
      ['warning x: has normals that are not of length 1; they were scaled'],
      [0, 0, 1],
    ]);
    expect(await normalsOf([0, 0, 0])).toEqual([
      ['warning x: has normals without a direction; smooth normals were computed'],
      [0, 1, 0],
    ]);
  });
});

describe('triangles without area', () => {
  it('are left out and told, a piece of nothing else with them', async () => {
    const positions = [...triangle, 2, 0, 0];
    // Two equal corners, three corners in a line, and one twice over: doubles may be meant.
    const mixed = await glb((_document, mesh) => {
      mesh('mixed', positions, [0, 1, 2, 0, 0, 1, 0, 1, 3, 0, 1, 2]);
      mesh('flat', positions, [1, 1, 1, 0, 1, 3]);
    });
    const result = await read([file('mixed.glb', mixed)]);
    expect(result.report.pieces.map(({ name, triangles }) => [name, triangles])).toEqual([['mixed', 2]]);
    expect(faultsOf(result)).toEqual([
      'warning mixed: has 2 triangles without area; they are left out',
      'warning flat: has 2 triangles without area; they are left out',
      'error flat: has no triangles; the piece is left out',
    ]);
  });
});

describe('reading an OBJ', () => {
  it('gives a piece an object and a part a material, with materials and pictures dropped along', async () => {
    const result = await read([file('yard.obj', OBJ), file('yard.mtl', MTL), file('plank grain.png', smallPng(4, 2))]);
    expect(
      result.report.pieces.map(({ name, parts, vertices, triangles, materials }) => [
        name,
        parts,
        vertices,
        triangles,
        materials,
      ]),
    ).toEqual([
      ['Crate- large', 2, 7, 3, ['plank', 'iron']],
      ['lid', 1, 3, 1, ['iron']],
    ]);
    expect(result.report.textures).toEqual([
      { name: 'plank grain.png', widthPixels: 4, heightPixels: 2, bytes: expect.any(Number) },
    ]);
    expect(faultsOf(result)).toEqual(
      ['note Crate, large: is called “Crate- large” in the kit'].concat(
        ['Crate, large', 'Crate, large', 'lid'].map(
          (name) => `warning ${name}: has no normals; smooth normals were computed`,
        ),
      ),
    );
    const { meshes } = await readGlb(result.glb ?? new Uint8Array());
    expect(
      meshes.materials.map(({ name, alphaMode, roughness }) => [name, alphaMode, Math.round(roughness * 1000) / 1000]),
    ).toEqual([
      ['plank', 'OPAQUE', 0.141],
      ['iron', 'BLEND', 1],
    ]);
    const coordinates = meshes.pieces[0].parts[0].attributes.find(({ semantic }) => semantic === 'TEXCOORD_0');
    expect([...(coordinates?.values ?? [])]).toEqual([0, 1, 1, 1, 1, 0, 0, 0]);
    expect((await validateBytes(result.glb ?? new Uint8Array())).issues).toMatchObject({
      numErrors: 0,
      numWarnings: 0,
    });
  });

  it('reads what others write: remarks, lines that go on, old line ends, names with a #, UTF-16', async () => {
    const text = [
      '# a yard',
      'mtllib',
      'o Crate #1',
      'v 0 0 0 # the corner',
      'v 1 \\',
      '  0 0',
      'v 1 0 1',
      'f 1 2 \\',
      '3 # up',
      'f 1 2 905',
    ];
    const told = [
      'warning Crate #1: has no normals; smooth normals were computed',
      'error yard.obj, line 10: the corner “905” is not among 3 positions',
    ];
    for (const end of ['\n', '\r\n', '\r']) {
      const result = await read([file('yard.obj', text.filter((line) => line !== 'mtllib').join(end))]);
      expect(result.report.pieces.map(({ name, triangles }) => [name, triangles])).toEqual([['Crate -1', 1]]);
      expect(faultsOf(result).sort()).toEqual(
        [told[1].replace('10', '9'), told[0], 'note Crate #1: is called “Crate -1” in the kit'].sort(),
      );
    }
    const wide = Uint8Array.from(
      `\ufeff${text.filter((line) => line !== 'mtllib').join('\n')}`
        .split('')
        .flatMap((letter) => [letter.charCodeAt(0) & 255, letter.charCodeAt(0) >> 8]),
    );
    expect((await read([{ name: 'yard.obj', bytes: wide }])).report.pieces).toMatchObject([{ name: 'Crate -1' }]);
  });

  it('takes several files of materials, in one statement or in many, and one whose name has spaces', async () => {
    const meshes = 'v 0 0 0\nv 1 0 0\nv 0 0 1\nusemtl a\nf 3 2 1\nusemtl b\nf 3 2 1\nusemtl c\nf 3 2 1\n';
    const materials = ['a', 'b', 'c'].map((name) => `newmtl ${name}\nKd 1 0 0 # red\n`);
    const result = await read([
      file('x.obj', `mtllib kit/one.mtl two.mtl # both\nmtllib our third.mtl\n${meshes}`),
      file('one.mtl', materials[0]),
      file('two.mtl', materials[1]),
      file('our third.mtl', materials[2]),
    ]);
    expect(result.report.materials).toEqual(['a', 'b', 'c']);
    expect([...new Set(faultsOf(result))]).toEqual(['warning x: has no normals; smooth normals were computed']);
  });

  it('keeps colours of vertices, as sRGB from 0 to 1 or to 255; a part of which some have none has none', async () => {
    const triangle = (first: string, others: string, name: string): string =>
      `o ${name}\nv 0 0 0 ${first}\nv 1 0 0 ${others}\nv 0 0 1 ${others}\nf -1 -2 -3\n`;
    const coloursOf = async (text: string): Promise<(number[] | undefined)[]> => {
      const result = await read([file('x.obj', text)]);
      const { meshes } = await readGlb(result.glb ?? new Uint8Array());
      return meshes.pieces.map(({ parts: [{ attributes }] }) => {
        const colour = attributes.find(({ semantic }) => semantic === 'COLOR_0');
        return colour && [...colour.values.slice(-3)].map((value) => Math.round(value * 100) / 100);
      });
    };
    expect(
      await coloursOf(triangle('', '', 'plain') + triangle('0.5 0 1', '1 1 1', 'all') + triangle('', '1 1 1', 'some')),
    ).toEqual([undefined, [0.21, 0, 1], undefined]);
    expect(await coloursOf(triangle('128 0 255', '255 255 255', 'bytes'))).toEqual([[0.22, 0, 1]]);
    // Four numbers are a place and its weight.
    expect(await coloursOf(triangle('1', '1', 'weighted'))).toEqual([undefined]);
  });

  it('cuts concave faces as they are, not as a fan', async () => {
    // An L: a fan from its first corner would fill what the L leaves open.
    const result = await read([file('x.obj', 'v 2 0 0\nv 2 0 1\nv 1 0 1\nv 1 0 2\nv 0 0 2\nv 0 0 0\nf 1 2 3 4 5 6\n')]);
    const { meshes } = await readGlb(result.glb ?? new Uint8Array());
    const [{ attributes, indices }] = meshes.pieces[0].parts;
    let area = 0;
    for (let i = 0; i < indices.length; i += 3) {
      const [a, b, c] = [...indices.slice(i, i + 3)].map((k) => [...attributes[0].values.slice(k * 3, k * 3 + 3)]);
      const twice = (b[0] - a[0]) * (c[2] - a[2]) - (b[2] - a[2]) * (c[0] - a[0]);
      expect(twice).toBeGreaterThan(0);
      area += twice / 2;
    }
    expect([indices.length / 3, area]).toEqual([4, 3]);
  });

  it('turns Z up into Y up and units into metres', async () => {
    const { pieces } = await read([file('a.obj', 'v 0 0 0\nv 100 0 0\nv 0 0 300\nf 1 2 3\n')], {
      unitMetres: 0.01,
      isZUp: true,
    });
    expect(pieces).toMatchObject([{ name: 'a', bounds: { min: [0, 0, 0], max: [1, 3, 0] } }]);
  });

  it('names line and value of what is wrong, leaves out what it spoils, and keeps the rest', async () => {
    const broken = `v 0 0 0\nv 1 0 zero\nv 0 1 0\no good\nv 5 0 0\nv 6 0 0\nv 5 1 0\nf 4 5 6\no holed\nf 1 2 3\nf 4 5 905\nf 1 2\nl 1 2\n`;
    const result = await read([file('bad.obj', broken)]);
    expect(result.pieces.map(({ name }) => name)).toEqual(['good']);
    expect(faultsOf(result)).toEqual([
      'error bad.obj, line 2: “zero” is not a number',
      'error bad.obj, line 11: the corner “905” is not among 6 positions',
      'error bad.obj, line 12: a face needs three corners, has 2',
      'note bad.obj, line 13: l is left out: only triangles and polygons are drawn',
      'warning good: has no normals; smooth normals were computed',
      'error holed: POSITION of vertex 1 is NaN, must be finite; the piece is left out',
    ]);
  });

  it('tells of materials and pictures that are missing, damaged or huge, and brings the piece in without', async () => {
    const without = await read([file('yard.obj', OBJ)]);
    expect(faultsOf(without)).toContain(
      'error yard.obj: its materials yard.mtl are missing; drop that file along with it',
    );
    expect(without.pieces).toHaveLength(2);
    const withMaterials = [file('yard.obj', OBJ), file('yard.mtl', MTL)];
    expect(faultsOf(await read(withMaterials))).toContain(
      'error material plank: its picture plank grain.png is missing; drop it along with the OBJ',
    );
    expect(faultsOf(await read([...withMaterials, file('plank grain.png', strToU8('no picture'))]))).toContain(
      'error material plank: its picture plank grain.png is no PNG, JPEG or WebP that can be read',
    );
    const huge = await read([...withMaterials, file('plank grain.png', smallPng(4, 4, [20000, 64]))]);
    expect(faultsOf(huge)).toContain(
      'error plank grain.png: is 20000 by 64 pixels, at most 8192 are taken; the material is imported without it',
    );
    expect([huge.pieces.length, huge.report.textures]).toEqual([2, []]);
  });
});

describe('reading a glTF as JSON', () => {
  /** A triangle a buffer, as an exporter writes it: buffers and a picture by address. */
  const gltf = (buffers: readonly (string | undefined)[], picture?: string): string =>
    JSON.stringify({
      asset: { version: '2.0' },
      scenes: [{ nodes: buffers.map((_uri, i) => i) }],
      nodes: buffers.map((_uri, i) => ({ name: `post ${i + 1}`, mesh: i })),
      meshes: buffers.map((_uri, i) => ({
        primitives: [{ attributes: { POSITION: i, NORMAL: i }, ...(picture ? { material: 0 } : {}) }],
      })),
      ...(picture
        ? {
            materials: [{ name: 'grain', pbrMetallicRoughness: { baseColorTexture: { index: 0 } } }],
            textures: [{ source: 0 }],
            images: [{ uri: picture }],
          }
        : {}),
      accessors: buffers.map((_uri, i) => ({ bufferView: i, componentType: 5126, count: 3, type: 'VEC3' })),
      bufferViews: buffers.map((_uri, i) => ({ buffer: i, byteLength: 36 })),
      buffers: buffers.map((uri) => ({ uri, byteLength: 36 })),
    });
  const corners = new Uint8Array(Float32Array.of(0, 0, 1, 1, 0, 1, 0, 1, 1).buffer);
  const buffer = (name: string, bytes = corners): DroppedFile => ({ name, bytes });

  it('finds buffers and pictures by their names, whatever folders and encoding the addresses have', async () => {
    const data = `data:application/octet-stream;base64,${Buffer.from(corners).toString('base64')}`;
    const result = await read([
      file('posts.gltf', gltf(['meshes/Salt%20post.bin', '..\\two.bin', data], 'textures/plank%20grain.PNG')),
      buffer('salt post.bin'),
      buffer('TWO.bin'),
      file('plank grain.png', smallPng(4, 2)),
    ]);
    expect(result.pieces.map(({ name, bounds }) => [name, bounds.max])).toEqual(
      ['post 1', 'post 2', 'post 3'].map((name) => [name, [1, 1, 1]]),
    );
    expect(result.report.textures.map(({ widthPixels, heightPixels }) => [widthPixels, heightPixels])).toEqual([
      [4, 2],
    ]);
    // Its normals are its corners, and coordinates it has none: both is told, and what goes out is sound.
    expect(faultsOf(result)).toEqual(
      ['post 1', 'post 2', 'post 3'].flatMap((name) => [
        `warning ${name}: has normals that are not of length 1; they were scaled`,
        `warning ${name}: has no texture coordinates for the pictures of its material; the colour of their corner is used`,
      ]),
    );
    expect((await validateBytes(result.glb ?? new Uint8Array())).issues).toMatchObject({
      numErrors: 0,
      numWarnings: 0,
    });
  });

  it('names the buffer that did not come along, and the claim that does not fit', async () => {
    expect(faultsOf(await read([file('posts.gltf', gltf(['meshes/Salt%20post.bin']))]))).toEqual([
      'error posts.gltf: its buffer salt post.bin is missing; drop that file along with it',
    ]);
    expect(faultsOf(await read([file('posts.gltf', gltf(['a.bin'])), buffer('a.bin', corners.subarray(4))]))).toEqual([
      'error posts.gltf: gltf: bufferViews[0] claims bytes 0 to 0 + 36 of 32',
    ]);
    expect(faultsOf(await read([file('posts.gltf', gltf([undefined]))]))).toEqual([
      'error posts.gltf: gltf: bufferViews[0] claims bytes 0 to 0 + 36 of 0',
    ]);
  });

  it('leaves out a picture that looks up a set of coordinates that nobody has', async () => {
    const text = gltf(['a.bin'], 'a.png').replace('"index":0', '"index":0,"texCoord":4000000000');
    const result = await read([file('posts.gltf', text), buffer('a.bin'), file('a.png', smallPng(4, 2))]);
    expect([result.pieces.length, result.report.textures]).toEqual([1, []]);
    expect(faultsOf(result)[0]).toBe(
      'error grain: its picture looks up set 4000000000 of texture coordinates, at most 8 are read; the material is imported without it',
    );
  });

  it('reads the file beside one that is no glTF, whatever stands in it', async () => {
    const hostile = [
      '{"asset": ',
      '{"asset": {"version": "2.0"}, "buffers": 5, "images": [null, 7, {"uri": 3}], "extensionsUsed": 9}',
      '{"asset": {"version": "2.0"}, "buffers": [null, {"uri": "__proto__"}]}',
      '{"asset": {"version": "2.0"}, "buffers": [{"uri": "%E0%A4%A"}]}',
    ];
    for (const text of hostile) {
      const result = await read([file('bad.gltf', text), file('good.gltf', gltf(['a.bin'])), buffer('a.bin')]);
      expect(result.pieces.map(({ name }) => name)).toEqual(['post 1']);
      expect(({} as { length?: unknown }).length).toBeUndefined();
    }
  });
});

describe('reading a GLB', () => {
  it('gives a piece a mesh, with turn and scale of its node in its vertices', async () => {
    const bytes = await glb((document, mesh) => {
      const first = mesh('stack', triangle, [0, 1, 2]).setScale([2, 2, -2]).setTranslation([50, 0, 0]);
      const shown = first.getMesh();
      const again = document.createNode('again').setMesh(shown);
      document.getRoot().listScenes()[0].addChild(again);
      mesh('pot', triangle);
    });
    const result = await read([file('yard.glb', bytes)]);
    expect(result.pieces.map(({ name, bounds }) => [name, bounds.max])).toEqual([
      ['stack', [2, 2, 0]],
      ['pot', [1, 1, 0]],
    ]);
    expect(faultsOf(result)).toEqual([
      'note stack: is used 2 times in the file and is imported once; place it in Layout',
      'note stack: its rotation and scale are now applied to its vertices',
    ]);
    const { meshes } = await readGlb(result.glb ?? new Uint8Array());
    const [part] = meshes.pieces[0].parts;
    // Mirrored: the winding is turned about, so that the outside stays out, and the normal looks along −z.
    expect([
      [...part.indices],
      [...positionsOf(part)].slice(3, 6),
      [...part.attributes[1].values].slice(0, 3).map((v) => v + 0),
    ]).toEqual([
      [2, 1, 0],
      [2, 0, 0],
      [0, 0, -1],
    ]);
    expect((await validateBytes(result.glb ?? new Uint8Array())).issues).toMatchObject({
      numErrors: 0,
      numWarnings: 0,
    });
  });

  it('leaves out meshes with NaN, indices out of range or nothing in them, and keeps the others', async () => {
    const bytes = await glb((document, mesh) => {
      mesh('holed', [0, 0, 0, 1, NaN, 0, 0, 1, 0]);
      mesh('off', triangle, [0, 1, 905]);
      mesh('bare', triangle, undefined, false);
      document
        .getRoot()
        .listScenes()[0]
        .addChild(document.createNode('nothing').setMesh(document.createMesh('nothing')));
    });
    const result = await read([file('bad.glb', bytes)]);
    expect(result.pieces.map(({ name }) => name)).toEqual(['bare']);
    expect(faultsOf(result)).toEqual([
      'error holed: POSITION of vertex 1 is NaN, must be finite; the piece is left out',
      'error off: indices[2] is 905, must be below 3; the piece is left out',
      'warning bare: has no normals; smooth normals were computed',
      'error nothing: has no triangles; the piece is left out',
    ]);
  });

  it('names thousands of meshes that are called the same, long names too, in no longer than others', async () => {
    const long = `${'a/\u0007'.repeat(100)}`;
    const bytes = await glb((_document, mesh) => {
      for (let i = 0; i < 3000; i++) mesh('Mesh', triangle);
      mesh(long, triangle);
      mesh(long, triangle);
    });
    const names = (await read([file('many.glb', bytes)])).pieces.map(({ name }) => name);
    expect([names[0], names[1], names[2999]]).toEqual(['Mesh', 'Mesh 2', 'Mesh 3000']);
    expect(names.slice(3000)).toEqual(['a-'.repeat(50), `${'a-'.repeat(49)} 2`]);
    expect(new Set(names).size).toBe(3002);
  });

  it('refuses a file that claims more than it has, is empty or is no GLB, and reads the file beside it', async () => {
    const good = await glb((_document, mesh) => void mesh('stack', triangle));
    const claims = good.slice();
    new DataView(claims.buffer).setUint32(8, 2 ** 31, true);
    const result = await read([
      file('claims.glb', claims),
      file('empty.glb', new Uint8Array(0)),
      file('text.glb', 'not a mesh at all, not a bit'),
      file('notes.pdf', '%PDF-1.7'),
      // Whatever it is called.
      file('good.bin', good),
    ]);
    expect(result.pieces.map(({ name }) => name)).toEqual(['stack']);
    expect(faultsOf(result)).toEqual([
      'error empty.glb: is empty. Choose a GLB mesh, a glTF mesh or an OBJ mesh (.glb, .gltf, .obj).',
      'error text.glb: is text. Choose a GLB mesh, a glTF mesh or an OBJ mesh (.glb, .gltf, .obj).',
      'warning notes.pdf: is a PDF document. Choose a GLB mesh, a glTF mesh, an OBJ mesh, an MTL file of materials, a PNG picture, a JPEG picture, a WebP picture or a KTX2 texture (.glb, .gltf, .obj, .mtl, .png, .jpg, .jpeg, .webp, .ktx2).',
      `error claims.glb: glb: claims 2147483648 bytes, has ${good.length}`,
    ]);
    await expect(read([file('a.png', smallPng(1, 1))])).rejects.toThrow(
      'import: a.png is a PNG picture. Choose a GLB mesh, a glTF mesh or an OBJ mesh (.glb, .gltf, .obj).',
    );
    await expect(read([file('good.glb', good)], { unitMetres: 0 })).rejects.toThrow(
      'import: a unit must be above 0 metres, is 0',
    );
  });

  it('names a texture that is missing or huge, and keeps the rest of the material', async () => {
    const textured = (image: Uint8Array | undefined): Promise<Uint8Array> =>
      glb((document, mesh) => {
        const texture = document.createTexture('rust');
        if (image) texture.setImage(image).setMimeType('image/png');
        const material = document.createMaterial('iron').setBaseColorTexture(texture).setRoughnessFactor(0.25);
        mesh('stack', triangle).getMesh()?.listPrimitives()[0].setMaterial(material);
      });
    const huge = await read([file('a.glb', await textured(smallPng(2, 2, [16384, 16384])))]);
    expect(faultsOf(huge)).toEqual([
      'error rust: is 16384 by 16384 pixels, at most 8192 are taken; the material is imported without it',
    ]);
    const cut = await read([file('a.glb', await textured(smallPng(8, 4).slice(0, 18)))]);
    expect([cut.pieces.length, faultsOf(cut)[0]]).toEqual([
      1,
      'error texture rust: is no PNG, JPEG, WebP or KTX2 that can be read (image/png); the material is imported without it',
    ]);
    const fine = await read([file('a.glb', await textured(smallPng(8, 4)))]);
    expect(fine.report).toMatchObject({
      materials: ['iron'],
      textures: [{ name: 'rust', widthPixels: 8, heightPixels: 4 }],
      faults: [
        {
          severity: 'warning',
          where: 'stack',
          message: 'has no texture coordinates for the pictures of its material; the colour of their corner is used',
        },
      ],
    });
    const outside = (await textured(smallPng(8, 4))).slice();
    const text = new TextDecoder().decode(outside);
    const inside = /"bufferView":\d+,?"mimeType":"image\/png"|"mimeType":"image\/png","bufferView":\d+/.exec(text);
    const named = '"uri":"rust.png"'.padEnd(inside?.[0].length ?? 0);
    outside.set(new TextEncoder().encode(named), text.slice(0, inside?.index ?? 0).length);
    expect(faultsOf(await read([file('a.glb', outside)]))).toEqual([
      'error texture rust: its picture rust.png is missing; the material is imported without it',
    ]);
    expect((await read([file('a.glb', outside), file('Rust.png', smallPng(8, 4))])).report.textures).toHaveLength(1);
    // Three vertices of 32 bytes with the coordinates that it was given, three indices of 4, and 8 · 4 pixels of 4 bytes with a third more for the mips.
    expect(fine.pieces[0].step.bytes).toBe(3 * 32 + 3 * 4 + Math.ceil((8 * 4 * 16) / 3));
  });
});
