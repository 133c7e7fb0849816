import { Document, WebIO, type Accessor, type Material, type Node, type Primitive } from '@gltf-transform/core';
import {
  ALL_EXTENSIONS,
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  EXTTextureWebP,
  KHRDracoMeshCompression,
  KHRLightsPunctual,
  KHRMaterialsAnisotropy,
  KHRMaterialsClearcoat,
  KHRMaterialsDispersion,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsIOR,
  KHRMaterialsIridescence,
  KHRMaterialsSheen,
  KHRMaterialsSpecular,
  KHRMaterialsTransmission,
  KHRMaterialsUnlit,
  KHRMaterialsVolume,
  KHRMeshQuantization,
  KHRTextureBasisu,
  KHRTextureTransform,
} from '@gltf-transform/extensions';
import draco from 'draco3dgltf';
import { validateBytes } from 'gltf-validator';
import { createDefaultContainer, write } from 'ktx-parse';
import { MeshoptEncoder } from 'meshoptimizer/encoder';
import { createRunContext } from '../../context/run-context';
import { readPieces } from '../../detail/read-pieces';
import type { ReadPieces } from '../../detail/sound-pieces';
import { glbOf } from '../../testing/glb-of';
import { smallPng } from '../../testing/small-png';
import { openGlb } from './open-glb';
import { readGlb } from './read-glb';

type Json = Record<string, unknown>;

const context = createRunContext();
const io = new WebIO().registerExtensions(ALL_EXTENSIONS);
const read = (bytes: Uint8Array): Promise<ReadPieces> =>
  readPieces({ files: [{ name: 'a.glb', bytes }], unitMetres: 1, isZUp: false }, context);
const told = ({ report }: ReadPieces): string[] => report.faults.map(({ where, message }) => `${where}: ${message}`);
const boxOf = ({ pieces }: ReadPieces): number[][] =>
  pieces.flatMap(({ bounds }) => [[...bounds.min], [...bounds.max]]);
const jsonOf = (bytes: Uint8Array | null): Json => openGlb(bytes ?? new Uint8Array()).json as Json;
const isClean = async (bytes: Uint8Array | null): Promise<void> => {
  const { issues } = await validateBytes(bytes ?? new Uint8Array());
  expect(issues.messages.filter(({ severity }) => severity < 2)).toEqual([]);
};

/** A square of 2 m by 1 m over the ground, with normals and two sets of coordinates. */
const CORNERS = [0, 0, 0, 2, 0, 0, 2, 0, 1, 0, 0, 1];
const BOX = [
  [0, 0, 0],
  [2, 0, 1],
];

interface Scene {
  readonly document: Document;
  readonly node: Node;
  readonly primitive: Primitive;
  readonly material: Material;
}

function square(): Scene {
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint16Array): Accessor =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const texture = document
    .createTexture('grain')
    .setMimeType('image/png')
    .setImage(new Uint8Array(smallPng(8, 4)));
  const material = document.createMaterial('glaze').setBaseColorTexture(texture);
  const coordinates = accessor('VEC2', Float32Array.from([0, 0, 1, 0, 1, 1, 0, 1]));
  const primitive = document
    .createPrimitive()
    .setMaterial(material)
    .setAttribute('POSITION', accessor('VEC3', Float32Array.from(CORNERS)))
    .setAttribute('NORMAL', accessor('VEC3', Float32Array.from([0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1, 0])))
    .setAttribute('TEXCOORD_0', coordinates)
    .setAttribute('TEXCOORD_1', coordinates)
    .setIndices(accessor('SCALAR', Uint16Array.from([0, 2, 1, 0, 3, 2])));
  const node = document.createNode('slab').setMesh(document.createMesh('slab').addPrimitive(primitive));
  document.createScene().addChild(node);
  return { document, node, primitive, material };
}

/** Positions as whole numbers of a sixteenth, moved by a half: the node puts them back. */
function quantise({ node, primitive, document }: Scene): void {
  document.createExtension(KHRMeshQuantization).setRequired(true);
  const position = primitive.getAttribute('POSITION');
  position?.setArray(Int16Array.from(CORNERS, (value) => (value - 0.5) * 16));
  primitive
    .getAttribute('NORMAL')
    ?.setArray(Int8Array.from([0, 127, 0, 0, 127, 0, 0, 127, 0, 0, 127, 0]))
    .setNormalized(true);
  node.setScale([1 / 16, 1 / 16, 1 / 16]).setTranslation([0.5, 0.5, 0.5]);
}

describe('a GLB that others packed', () => {
  it('may hold whole numbers for positions: the node that shows them says where they begin', async () => {
    const scene = square();
    quantise(scene);
    const result = await read(await io.writeBinary(scene.document));
    expect(boxOf(result)).toEqual(BOX);
    const [part] = (await readGlb(result.glb ?? new Uint8Array())).meshes.pieces[0].parts;
    expect([...part.attributes[1].values.subarray(0, 3)]).toEqual([0, 1, 0]);
    // Where the node itself hangs on another, that one's place is not the piece's.
    const hung = square();
    quantise(hung);
    const parent = hung.document.createNode('row').setTranslation([100, 0, 0]).addChild(hung.node);
    hung.document.getRoot().listScenes()[0].addChild(parent);
    expect(boxOf(await read(await io.writeBinary(hung.document)))).toEqual(BOX);
    await isClean(result.glb);
  });

  it.each([EXTMeshoptCompression.EncoderMethod.QUANTIZE, EXTMeshoptCompression.EncoderMethod.FILTER])(
    'may be packed by meshopt (%s)',
    async (method) => {
      await MeshoptEncoder.ready;
      const scene = square();
      quantise(scene);
      scene.document.createExtension(EXTMeshoptCompression).setRequired(true).setEncoderOptions({ method });
      const packed = await io.registerDependencies({ 'meshopt.encoder': MeshoptEncoder }).writeBinary(scene.document);
      expect(JSON.stringify(jsonOf(packed))).toContain('EXT_meshopt_compression');
      const result = await read(packed);
      expect(boxOf(result)).toEqual(BOX);
      expect(result.pieces[0].step).toMatchObject({ triangles: 2, vertices: 4 });
      await isClean(result.glb);
    },
  );

  it('is refused where what is packed claims more than is there, or more than memory has', async () => {
    await MeshoptEncoder.ready;
    const scene = square();
    quantise(scene);
    scene.document.createExtension(EXTMeshoptCompression).setRequired(true);
    const packed = await io.registerDependencies({ 'meshopt.encoder': MeshoptEncoder }).writeBinary(scene.document);
    const views = (jsonOf(packed)['bufferViews'] as Json[]).map(({ extensions }) => Boolean(extensions));
    const at = views.indexOf(true);
    for (const [change, rule] of [
      [{ count: 1e9 }, 'claims to be unpacked to'],
      [{ byteStride: 0 }, 'claims to be unpacked to'],
      [{ count: 2 ** 40, byteStride: 4 }, 'claims to be unpacked to'],
      [{ byteLength: 1e7 }, 'claims bytes'],
      [{ byteOffset: -4 }, 'claims bytes'],
      [{ mode: 'NONE' }, 'glb:'],
    ] as const) {
      const { json, resources } = await io.binaryToJSON(packed);
      const view = json.bufferViews?.[at] as { byteLength: number; extensions: Record<string, Json> };
      Object.assign(view.extensions['EXT_meshopt_compression'], change);
      const text = JSON.stringify(json);
      const buffers = Object.entries(resources).map(([, bytes]) => bytes);
      const bytes = glbOf(text, buffers[0]);
      const result = await read(bytes).catch((error: Error) => error);
      const message = result instanceof Error ? result.message : told(result).join();
      expect(message).toContain(rule);
      expect(result instanceof Error ? 0 : result.pieces.length).toBe(0);
    }
  });

  it('may be packed by Draco, whose decoder is loaded when it is met', async () => {
    const { document } = square();
    document.createExtension(KHRDracoMeshCompression).setRequired(true);
    const encoder = await draco.createEncoderModule();
    const packed = await io.registerDependencies({ 'draco3d.encoder': encoder }).writeBinary(document);
    expect(JSON.stringify(jsonOf(packed))).toContain('KHR_draco_mesh_compression');
    const decode = (createDecoder?: () => Promise<unknown>, bytes: Uint8Array = packed): Promise<ReadPieces> =>
      readPieces(
        { files: [{ name: 'a.glb', bytes }], unitMetres: 1, isZUp: false },
        context,
        createDecoder ? { draco: createDecoder } : {},
      );
    const result = await decode(() => draco.createDecoderModule());
    const [min, max] = boxOf(result);
    // To within what its encoder rounds to by itself.
    [...min, ...max].forEach((value, i) => expect(value).toBeCloseTo(BOX.flat()[i], 3));
    expect(result.pieces[0].step).toMatchObject({ triangles: 2, vertices: 4 });
    await isClean(result.glb);
    expect(told(await decode())).toEqual([
      'a.glb: glb: it is packed with Draco, which is not read here; export it without',
    ]);
    expect(told(await decode(() => Promise.reject(new Error('away'))))).toEqual([
      'a.glb: glb: it is packed with Draco, and the decoder could not be loaded; try again, or export it without',
    ]);
    const { json, binary } = openGlb(packed);
    const damaged = binary.slice();
    const at = Buffer.from(damaged).indexOf('DRACO');
    damaged.fill(0x5a, at + 11, at + 60);
    const broken = await decode(() => draco.createDecoderModule(), glbOf(JSON.stringify(json), damaged));
    expect([broken.pieces, told(broken).length]).toEqual([[], 1]);
  });

  it('counts what is placed many times as one', async () => {
    const { document, node } = square();
    const places = document
      .createAccessor()
      .setType('VEC3')
      .setArray(Float32Array.from([0, 0, 0, 5, 0, 0, 9, 0, 0]))
      .setBuffer(document.getRoot().listBuffers()[0]);
    const extension = document.createExtension(EXTMeshGPUInstancing).setRequired(true);
    node.setExtension('EXT_mesh_gpu_instancing', extension.createInstancedMesh().setAttribute('TRANSLATION', places));
    const result = await read(await io.writeBinary(document));
    expect([boxOf(result), told(result)]).toEqual([
      BOX,
      ['slab: is used 3 times in the file and is imported once; place it in Layout'],
    ]);
  });

  it('keeps how pictures lie, what kind they are, and how they are looked up', async () => {
    const { document, material } = square();
    const webp = document
      .createTexture('film')
      .setMimeType('image/webp')
      .setImage(new Uint8Array(Buffer.from('UklGRhoAAABXRUJQVlA4TA0AAAAvAAAAEAcQERGIiP4HAA==', 'base64')));
    document.createExtension(EXTTextureWebP).setRequired(true);
    material.setEmissiveTexture(webp).setEmissiveFactor([1, 1, 1]);
    const transforms = document.createExtension(KHRTextureTransform);
    material
      .getBaseColorTextureInfo()
      ?.setWrapS(33071)
      .setMinFilter(9984)
      .setTexCoord(0)
      .setExtension(
        'KHR_texture_transform',
        transforms.createTransform().setOffset([0.25, 0.5]).setRotation(1.5).setScale([4, -2]).setTexCoord(1),
      );
    const result = await read(await io.writeBinary(document));
    const out = jsonOf(result.glb) as {
      materials: { pbrMetallicRoughness: { baseColorTexture: Json } }[];
      images: { mimeType: string }[];
      samplers: Json[];
      extensionsRequired: string[];
    };
    expect(out.materials[0].pbrMetallicRoughness.baseColorTexture).toMatchObject({
      texCoord: 1,
      extensions: { KHR_texture_transform: { offset: [0.25, 0.5], rotation: 1.5, scale: [4, -2] } },
    });
    expect(out.images.map(({ mimeType }) => mimeType).sort()).toEqual(['image/png', 'image/webp']);
    expect(out.samplers).toContainEqual({ wrapS: 33071, wrapT: 10497, minFilter: 9984 });
    expect(out.extensionsRequired).toEqual(['EXT_texture_webp']);
    expect(result.report.textures.map(({ name, widthPixels }) => [name, widthPixels])).toEqual([
      ['grain', 8],
      ['film', 1],
    ]);
  });

  it('passes a KTX2 texture through as it is, and counts it by its header', async () => {
    const { document, material } = square();
    const bytes = ktx2(16, 8);
    document.createExtension(KHRTextureBasisu).setRequired(true);
    material.setBaseColorTexture(document.createTexture('packed').setMimeType('image/ktx2').setImage(bytes));
    const result = await read(await io.writeBinary(document));
    const plain = square();
    plain.material.setBaseColorTexture(null);
    const bare = await read(await io.writeBinary(plain.document));
    // Eight bytes a block of four by four pixels: 4 by 2 blocks.
    expect(result.pieces[0].step.bytes - bare.pieces[0].step.bytes).toBe(64);
    expect(result.report.textures).toEqual([{ name: 'packed', widthPixels: 16, heightPixels: 8, bytes: bytes.length }]);
    const again = await readGlb(result.glb ?? new Uint8Array());
    expect(Buffer.compare(again.meshes.textures[0].bytes, bytes)).toBe(0);
    expect(jsonOf(result.glb)['extensionsRequired']).toEqual(['KHR_texture_basisu']);
    const broken = square();
    broken.document.createExtension(KHRTextureBasisu).setRequired(true);
    broken.material.setBaseColorTexture(
      broken.document.createTexture('packed').setMimeType('image/ktx2').setImage(bytes.slice(0, 40)),
    );
    expect(told(await read(await io.writeBinary(broken.document)))).toContainEqual(
      expect.stringContaining('is no PNG, JPEG, WebP or KTX2 that can be read'),
    );
  });

  it('keeps all that its extensions say of a material, with their pictures', async () => {
    const { document, material, primitive } = square();
    const png = (name: string): ReturnType<Document['createTexture']> =>
      document
        .createTexture(name)
        .setMimeType('image/png')
        .setImage(new Uint8Array(smallPng(4, 4)));
    const clearcoat = document.createExtension(KHRMaterialsClearcoat).createClearcoat();
    clearcoat.setClearcoatFactor(0.5).setClearcoatTexture(png('coat')).setClearcoatNormalTexture(png('bumps'));
    clearcoat.setClearcoatNormalScale(0.25).getClearcoatTextureInfo()?.setTexCoord(1);
    const lies = document.createExtension(KHRTextureTransform).createTransform().setScale([3, 3]);
    clearcoat.getClearcoatNormalTextureInfo()?.setExtension('KHR_texture_transform', lies);
    const sheen = document.createExtension(KHRMaterialsSheen).createSheen().setSheenColorFactor([0.1, 0.2, 0.3]);
    const specular = document.createExtension(KHRMaterialsSpecular).createSpecular().setSpecularFactor(0.4);
    const volume = document.createExtension(KHRMaterialsVolume).createVolume().setThicknessFactor(2);
    const iridescence = document.createExtension(KHRMaterialsIridescence).createIridescence();
    const extensions = [
      clearcoat,
      sheen.setSheenColorTexture(png('sheen')),
      specular.setSpecularColorTexture(png('tint')),
      volume.setAttenuationColor([0.5, 0.25, 1]).setAttenuationDistance(3),
      iridescence.setIridescenceFactor(1).setIridescenceThicknessTexture(png('film')),
      document.createExtension(KHRMaterialsTransmission).createTransmission().setTransmissionFactor(0.75),
      document.createExtension(KHRMaterialsIOR).createIOR().setIOR(1.3),
      document.createExtension(KHRMaterialsDispersion).createDispersion().setDispersion(0.2),
      document.createExtension(KHRMaterialsEmissiveStrength).createEmissiveStrength().setEmissiveStrength(8),
      document.createExtension(KHRMaterialsAnisotropy).createAnisotropy().setAnisotropyStrength(0.6),
    ];
    // What the extensions ask for: light to strengthen, and tangents.
    material.setEmissiveFactor([1, 1, 1]);
    const tangents = Float32Array.from([1, 0, 0, 1, 1, 0, 0, 1, 1, 0, 0, 1, 1, 0, 0, 1]);
    primitive.setAttribute(
      'TANGENT',
      document.createAccessor().setType('VEC4').setArray(tangents).setBuffer(document.getRoot().listBuffers()[0]),
    );
    for (const one of extensions) material.setExtension(one.extensionName, one);
    const unlit = document
      .createMaterial('sign')
      .setExtension('KHR_materials_unlit', document.createExtension(KHRMaterialsUnlit).createUnlit());
    const sign = document.createNode('sign').setMesh(document.getRoot().listMeshes()[0].clone());
    sign
      .getMesh()
      ?.listPrimitives()
      .forEach((old) => {
        sign.getMesh()?.removePrimitive(old).addPrimitive(old.clone().setMaterial(unlit));
      });
    document.getRoot().listScenes()[0].addChild(sign);
    const bytes = await io.writeBinary(document);
    const result = await read(bytes);
    expect(told(result)).toEqual([]);
    const said = (json: Json): unknown =>
      (json['materials'] as { name: string; extensions: Record<string, Json> }[]).map(({ name, extensions: all }) => [
        name,
        named(all, json),
      ]);
    expect(said(jsonOf(result.glb))).toEqual(said(jsonOf(bytes)));
    // What was written is read and written again as it is.
    const again = await read(result.glb ?? new Uint8Array());
    expect(Buffer.compare(again.glb ?? new Uint8Array(), result.glb ?? new Uint8Array())).toBe(0);
    await isClean(result.glb);
  });

  it('tells what it leaves out, one by one', async () => {
    const { document, node, material } = square();
    const scene = document.getRoot().listScenes()[0];
    const light = document.createExtension(KHRLightsPunctual).createLight('lamp');
    scene.addChild(document.createNode('lamp').setExtension('KHR_lights_punctual', light));
    scene.addChild(document.createNode('eye').setCamera(document.createCamera('eye')));
    scene.addChild(document.createNode('here'));
    document.createNode('lost').setMesh(node.getMesh());
    material.setExtras({ rust: 2 });
    const bytes = withUsed(await io.writeBinary(document), 'X_private');
    expect(told(await read(bytes))).toEqual([
      'file: 1 camera is left out',
      'file: 1 light is left out',
      'file: 1 empty node is left out',
      'file: 1 node with a mesh is left out: in no scene',
      'file: 1 table of extras is left out',
      'file: the extension X_private is left out',
    ]);
    const needed = withUsed(await io.writeBinary(document), 'X_private', 'X_private');
    expect(told(await read(needed))).toEqual(['a.glb: glb: it needs X_private, which is not read; export it without']);
  });

  it('reads meshes that no scene or no node shows, where the file has nothing else', async () => {
    const { document } = square();
    document.getRoot().listScenes()[0].dispose();
    expect((await read(await io.writeBinary(document))).pieces).toHaveLength(1);
    document.getRoot().listNodes()[0].dispose();
    const result = await read(await io.writeBinary(document));
    expect(result.pieces.map(({ name }) => name)).toEqual(['slab']);
  });
});

describe('nodes of a GLB', () => {
  const withNodes = async (nodes: readonly Json[], roots: readonly number[]): Promise<Uint8Array> => {
    const { json, binary } = openGlb(await io.writeBinary(square().document));
    return glbOf(JSON.stringify({ ...json, nodes, scenes: [{ nodes: roots }] }), binary);
  };

  it('that stand in themselves are refused with the first of them, as is a child that is not there', async () => {
    const fault = async (nodes: readonly Json[]): Promise<string[]> => told(await read(await withNodes(nodes, [0])));
    expect(await fault([{ mesh: 0, children: [0] }])).toEqual(['a.glb: glb: nodes[0] is inside itself']);
    expect(await fault([{ children: [1] }, { children: [2, 3] }, { mesh: 0 }, { children: [1] }])).toEqual([
      'a.glb: glb: nodes[1] is inside itself',
    ]);
    expect(await fault([{ mesh: 0, children: [9] }])).toEqual([
      'a.glb: glb: nodes[0] has the child 9, there are 1 nodes',
    ]);
    expect(await fault([{ mesh: 0, children: ['0'] }])).toEqual([
      'a.glb: glb: nodes[0] has the child "0", there are 1 nodes',
    ]);
  });

  it('may stand in a chain of a hundred thousand, each turned a little', async () => {
    const count = 100000;
    const half = Math.PI / count / 2;
    const rotation = [0, 0, Math.sin(half), Math.cos(half)];
    const chain = Array.from({ length: count }, (_unused, i) =>
      i === count - 1 ? { mesh: 0, rotation, name: 'end' } : { rotation, children: [i + 1] },
    );
    const result = await read(await withNodes(chain, [0]));
    // Half a turn about z in all.
    const [min, max] = boxOf(result);
    expect(min[0]).toBeCloseTo(-2, 5);
    expect(max[0]).toBeCloseTo(0, 5);
  });
});

describe('a GLB that moves', () => {
  it('comes in with the morph targets that it shows at rest', async () => {
    const { document, primitive, node } = square();
    const lifted = (up: number): Accessor =>
      document
        .createAccessor()
        .setType('VEC3')
        .setArray(Float32Array.from(CORNERS, (_value, i) => (i % 3 === 1 ? up : 0)))
        .setBuffer(document.getRoot().listBuffers()[0]);
    primitive
      .addTarget(document.createPrimitiveTarget().setAttribute('POSITION', lifted(4)))
      .addTarget(document.createPrimitiveTarget().setAttribute('POSITION', lifted(100)));
    node.getMesh()?.setWeights([0.25, 0]);
    const result = await read(await io.writeBinary(document));
    expect([boxOf(result), told(result)]).toEqual([
      [
        [0, 1, 0],
        [2, 1, 1],
      ],
      ['slab: 2 morph targets are left out: it comes in as it stands at rest'],
    ]);
    node.setWeights([0.5, 0]);
    expect(boxOf(await read(await io.writeBinary(document)))[0]).toEqual([0, 2, 0]);
  });

  it('leaves the file as it is, and what another mesh shows of the same numbers', async () => {
    const { document, primitive, node } = square();
    // Moved by a target, placed by its node, in another unit: the second shows the numbers as they are.
    const still = document
      .createPrimitive()
      .setIndices(primitive.getIndices())
      .setAttribute('POSITION', primitive.getAttribute('POSITION'));
    const other = document.createNode('still').setMesh(document.createMesh('still').addPrimitive(still));
    document.getRoot().listScenes()[0].addChild(other);
    const lifted = Float32Array.from(CORNERS, (_value, i) => (i % 3 === 1 ? 4 : 0));
    const accessor = document
      .createAccessor()
      .setType('VEC3')
      .setArray(lifted)
      .setBuffer(document.getRoot().listBuffers()[0]);
    primitive.addTarget(document.createPrimitiveTarget().setAttribute('POSITION', accessor));
    node.setWeights([1]).setScale([2, 2, 2]);
    const bytes = await io.writeBinary(document);
    const before = bytes.slice();
    const [moved, same] = (
      await readPieces({ files: [{ name: 'a.glb', bytes }], unitMetres: 10, isZUp: true }, context)
    ).pieces;
    expect(bytes).toEqual(before);
    expect([moved.name, same.name]).toEqual(['slab', 'still']);
    const heights = ({ min, max }: typeof moved.bounds): number[] => [
      max[0] - min[0],
      max[1] - min[1],
      max[2] - min[2],
    ];
    expect(heights(moved.bounds)).toEqual(heights(same.bounds).map((value) => value * 2));
    expect(
      (await readPieces({ files: [{ name: 'a.glb', bytes }], unitMetres: 1, isZUp: false }, context)).pieces[1].bounds,
    ).toEqual({
      min: [0, 0, 0],
      max: [2, 0, 1],
    });
  });

  it('comes in as its joints hold it at rest, whatever its own node says', async () => {
    const { document, primitive, node } = square();
    const buffer = document.getRoot().listBuffers()[0];
    const accessor = (type: 'VEC4' | 'MAT4', array: Float32Array | Uint8Array): Accessor =>
      document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
    // Two corners each at a joint; the second joint is 3 m up and was bound 1 m up.
    primitive.setAttribute(
      'JOINTS_0',
      accessor('VEC4', Uint8Array.from([0, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0])),
    );
    primitive.setAttribute(
      'WEIGHTS_0',
      accessor('VEC4', Float32Array.from([1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0])),
    );
    const [root, top] = [document.createNode('root'), document.createNode('top').setTranslation([0, 3, 0])];
    root.addChild(top);
    document.getRoot().listScenes()[0].addChild(root);
    const unit = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
    const bound = [...unit.slice(0, 13), -1, ...unit.slice(14)];
    const skin = document.createSkin().addJoint(root).addJoint(top);
    node.setSkin(skin.setInverseBindMatrices(accessor('MAT4', Float32Array.from([...unit, ...bound]))));
    node.setTranslation([50, 50, 50]).setScale([7, 7, 7]);
    const result = await read(await io.writeBinary(document));
    expect([boxOf(result), told(result)]).toEqual([
      [
        [0, 0, 0],
        [2, 2, 1],
      ],
      ['file: 1 skin is left out: pieces come in as they stand at rest'],
    ]);
    // A joint that the skin does not have: as the mesh stands.
    primitive.setAttribute('JOINTS_0', accessor('VEC4', Uint8Array.from(Array.from({ length: 16 }, () => 9))));
    expect(boxOf(await read(await io.writeBinary(document)))).toEqual(BOX);
  });
});

/** What extensions say, pictures by name. */
function named(extensions: Record<string, Json>, json: Json): unknown {
  const [textures, images] = [json['textures'] as { source: number }[], json['images'] as { name: string }[]];
  return Object.fromEntries(
    Object.entries(extensions)
      .sort()
      .map(([name, table]) => [
        name,
        Object.fromEntries(
          Object.entries(table).map(([key, value]) => {
            if (typeof value !== 'object' || value === null || !('index' in value)) return [key, value];
            const { index, ...rest } = value as { index: number };
            return [key, { ...rest, picture: images[textures[index].source].name }];
          }),
        ),
      ]),
  );
}

function withUsed(bytes: Uint8Array, name: string, required?: string): Uint8Array {
  const { json, binary } = openGlb(bytes);
  const { extensionsUsed = [], ...rest } = json as { extensionsUsed?: string[] };
  const needed = required ? { extensionsRequired: [required] } : {};
  return glbOf(JSON.stringify({ ...rest, extensionsUsed: [...extensionsUsed, name], ...needed }), binary);
}

/** A KTX2 texture of one level in ETC1S. */
function ktx2(width: number, height: number): Uint8Array<ArrayBuffer> {
  const container = createDefaultContainer();
  Object.assign(container, {
    vkFormat: 0,
    pixelWidth: width,
    pixelHeight: height,
    levelCount: 1,
    supercompressionScheme: 1,
  });
  Object.assign(container.dataFormatDescriptor[0], {
    colorModel: 163,
    samples: [
      {
        bitOffset: 0,
        bitLength: 63,
        channelType: 0,
        samplePosition: [0, 0, 0, 0],
        sampleLower: 0,
        sampleUpper: 0xffffffff,
      },
    ],
  });
  container.levels = [{ levelData: new Uint8Array(40), uncompressedByteLength: 0 }];
  return new Uint8Array(write(container));
}
