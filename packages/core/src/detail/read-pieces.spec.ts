import { Document, WebIO } from '@gltf-transform/core';
import { strToU8 } from 'fflate';
import { validateBytes } from 'gltf-validator';
import { createRunContext } from '../context/run-context';
import { readGlb } from '../formats/glb/read-glb';
import { positionsOf } from '../mesh/kit-meshes';
import { smallPng } from '../testing/small-png';
import { readPieces, type DroppedFile, type ReadPieces } from './read-pieces';

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
      ['Crate, large', 'Crate, large', 'lid'].map(
        (name) => `warning ${name}: has no normals; smooth normals were computed`,
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
      'error material plank: its picture plank grain.png is neither a PNG nor a JPEG that can be read',
    );
    const huge = await read([...withMaterials, file('plank grain.png', smallPng(4, 4, [20000, 64]))]);
    expect(faultsOf(huge)).toContain(
      'error plank grain.png: is 20000 by 64 pixels, at most 8192 are taken; the material is imported without it',
    );
    expect([huge.pieces.length, huge.report.textures]).toEqual([2, []]);
  });
});

describe('reading a GLB', () => {
  it('gives a piece a mesh, with turn and scale of its node in its vertices', async () => {
    const bytes = await glb((document, mesh) => {
      const first = mesh('stack', triangle, [0, 1, 2]).setScale([2, 2, -2]).setTranslation([50, 0, 0]);
      const shown = first.getMesh();
      document.createNode('again').setMesh(shown);
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
      'error empty.glb: is empty. Choose a GLB mesh or an OBJ mesh (.glb, .obj).',
      'error text.glb: is text. Choose a GLB mesh or an OBJ mesh (.glb, .obj).',
      'warning notes.pdf: is a PDF document. Choose a GLB mesh, an OBJ mesh, an MTL file of materials, a PNG picture or a JPEG picture (.glb, .obj, .mtl, .png, .jpg, .jpeg).',
      `error claims.glb: glb: claims 2147483648 bytes, has ${good.length}`,
    ]);
    await expect(read([file('a.png', smallPng(1, 1))])).rejects.toThrow(
      'import: a.png is a PNG picture. Choose a GLB mesh or an OBJ mesh (.glb, .obj).',
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
      'error texture rust: is neither a PNG nor a JPEG that can be read (image/png); the material is imported without it',
    ]);
    const fine = await read([file('a.glb', await textured(smallPng(8, 4)))]);
    expect(fine.report).toMatchObject({
      materials: ['iron'],
      textures: [{ name: 'rust', widthPixels: 8, heightPixels: 4 }],
      faults: [],
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
    // Three vertices of 24 bytes, three indices of 4, and 8 · 4 pixels of 4 bytes with a third more for the mips.
    expect(fine.pieces[0].step.bytes).toBe(3 * 24 + 3 * 4 + Math.ceil((8 * 4 * 16) / 3));
  });
});
