import { Document, WebIO } from '@gltf-transform/core';
import { validateBytes } from 'gltf-validator';
import { createRunContext } from '../../context/run-context';
import { readGlb } from '../../formats/glb/read-glb';
import { writeGlb } from '../../formats/glb/write-glb';
import { plainMaterial, type KitMeshes, type MeshOfPiece } from '../../mesh/kit-meshes';
import { meshBounds } from '../../mesh/mesh-cost';
import { COLLISION_SHAPES, type CollisionShape, type Piece, type PieceCollision } from '../../model/kit';
import { addToKit, removePieceFromKit } from '../add-to-kit';
import { buildChains } from '../kit-steps';
import { readPieces } from '../read-pieces';
import { renamePieces } from '../rename-pieces';
import { COLLISION_MAKERS } from './makers';
import type { CollisionMesh } from './collision-spec';
import { kitFloors } from './kit-floors';
import { setCollisions } from './set-collisions';

const context = createRunContext();

/** A ball with a point at either pole, of a material. */
function ball(name: string, rings: number, material = 0, radius = 1): MeshOfPiece {
  const positions: number[] = [];
  const indices: number[] = [];
  const around = rings * 2;
  for (let ring = 0; ring <= rings; ring++)
    for (let i = 0; i <= around; i++) {
      const [up, turn] = [(Math.PI * ring) / rings, (2 * Math.PI * i) / around];
      positions.push(
        radius * Math.sin(up) * Math.cos(turn),
        radius * Math.cos(up),
        -radius * Math.sin(up) * Math.sin(turn),
      );
    }
  for (let ring = 0; ring < rings; ring++)
    for (let i = 0; i < around; i++) {
      const [a, b] = [ring * (around + 1) + i, (ring + 1) * (around + 1) + i];
      if (ring > 0) indices.push(a, b, a + 1);
      if (ring < rings - 1) indices.push(a + 1, b, b + 1);
    }
  return part(name, positions, indices, material);
}
const part = (
  name: string,
  positions: readonly number[],
  indices: readonly number[],
  material: number | null,
): MeshOfPiece => ({
  name,
  parts: [
    {
      material,
      attributes: [{ semantic: 'POSITION', size: 3, values: Float32Array.from(positions) }],
      indices: Uint32Array.from(indices),
    },
  ],
});
const sheet = (name: string, material = 0): MeshOfPiece =>
  part(name, [0, 0, 0, 0, 0, 2, 2, 0, 2, 2, 0, 0], [0, 1, 2, 0, 2, 3], material);
const kitOf = (...pieces: MeshOfPiece[]): KitMeshes => ({
  pieces,
  materials: [plainMaterial('clay'), plainMaterial('cloth', { doubleSided: true })],
  textures: [],
});
const make = (shape: CollisionShape, mesh: MeshOfPiece, own?: MeshOfPiece): CollisionMesh | undefined =>
  COLLISION_MAKERS[shape].make({ mesh, own, bounds: meshBounds(mesh), materials: kitOf().materials }, context);
const wanted = (mesh: MeshOfPiece, shape: CollisionShape | null) => ({
  name: mesh.name,
  bounds: meshBounds(mesh),
  shape,
});
const namesOf = async (glb: Uint8Array): Promise<string[]> =>
  (await readGlb(glb)).meshes.pieces.map(({ name }) => name);
const sizes = (one: CollisionMesh | undefined): number[] =>
  one ? [one.positions.length / 3, one.indices.length / 3] : [];

describe('a collision', () => {
  it('by its bounds is a box of 12 triangles that look outward', () => {
    const box = make('box', part('a', [0, 0, 0, 2, 0, 0, 0, 3, 4], [0, 1, 2], 0));
    expect(sizes(box)).toEqual([8, 12]);
    let volume = 0;
    for (let t = 0; box && t < 36; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => [
        ...box.positions.subarray(box.indices[t + k] * 3, box.indices[t + k] * 3 + 3),
      ]);
      volume +=
        a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
    }
    expect(volume / 6).toBe(24);
  });

  it('as a hull has at most 64 corners, and says how far the mesh sticks out', () => {
    const few = make('hull', ball('a', 4));
    expect([few?.outsideMetres, (few?.positions.length ?? 0) / 3]).toEqual([0, 26]);
    const many = make('hull', ball('a', 40));
    expect(sizes(many)).toEqual([64, 124]);
    expect(many?.outsideMetres).toBeGreaterThan(0.01);
    expect(many?.outsideMetres).toBeLessThan(0.15);
    expect(make('hull', sheet('a'))).toBeUndefined();
    // A vertex that no triangle uses is none of its corners.
    const [{ attributes, indices }] = ball('a', 4).parts;
    const stray = part('a', [...attributes[0].values, 90, 90, 90], [...indices], 0);
    expect(Math.max(...(make('hull', stray)?.positions ?? []))).toBeLessThanOrEqual(1);
  });

  it('as its mesh has each place once, and both sides where its material has', () => {
    const two = sheet('a').parts[0];
    // The second half has vertices of its own, as another material would.
    const split: MeshOfPiece = {
      name: 'a',
      parts: [
        { ...two, indices: two.indices.slice(0, 3) },
        {
          ...two,
          material: 1,
          attributes: [{ semantic: 'POSITION', size: 3, values: Float32Array.of(2, 0, 2, 2, -0, 0, -0, 0, 0) }],
          indices: Uint32Array.of(2, 0, 1),
        },
      ],
    };
    const mesh = make('mesh', split);
    expect([sizes(mesh), [...(mesh?.indices ?? [])], [...(mesh?.backs ?? [])]]).toEqual([
      [4, 2],
      [0, 1, 2, 0, 2, 3],
      [0, 3, 2],
    ]);
    expect(make('own', split)).toBeUndefined();
    expect(sizes(make('own', split, sheet('b')))).toEqual([4, 2]);
  });
});

describe('collisions of a kit', () => {
  const [dune, cloth] = [ball('dune', 12), sheet('cloth', 1)];
  const set = async (glb: Uint8Array, ...pieces: ReturnType<typeof wanted>[]) =>
    setCollisions({ kit: glb, pieces }, context);

  it('stand in its GLB as nodes of their own where they need one, and are sound', async () => {
    const kit = await writeGlb(kitOf(dune, cloth));
    const { glb, collisions } = await set(kit, wanted(dune, 'hull'), wanted(cloth, 'hull'));
    expect(await namesOf(glb)).toEqual(['dune', 'dune.collision', 'cloth']);
    expect(collisions).toMatchObject([
      { name: 'dune', why: '', collision: { shape: 'hull', vertices: 64, triangles: 124, bytes: 64 * 12 + 124 * 12 } },
      { name: 'cloth', why: 'is flat', collision: { shape: 'mesh', vertices: 4, triangles: 2 } },
    ]);
    const report = await validateBytes(glb);
    expect(report.issues.messages.filter(({ severity }) => severity < 2)).toEqual([]);
    // Equal input gives equal bytes; another shape another digest; none takes the node away.
    expect((await set(kit, wanted(dune, 'hull'), wanted(cloth, 'hull'))).glb).toEqual(glb);
    const digests = await Promise.all(
      COLLISION_SHAPES.map(async (shape) => (await set(kit, wanted(dune, shape))).collisions[0].collision?.digest),
    );
    expect(new Set(digests).size).toBe(4);
    expect(digests[2]).toBeUndefined();
    const none = await set(glb, wanted(dune, null));
    expect([none.glb, none.collisions]).toEqual([kit, [{ name: 'dune', collision: null, why: '' }]]);
    await expect(set(kit, { ...wanted(dune, 'box'), name: 'gone' })).rejects.toThrow('no piece named gone');
  });

  it('stay when LODs are built, follow a new name, and go with their piece', async () => {
    const { glb } = await set(await writeGlb(kitOf(dune, cloth)), wanted(dune, 'hull'));
    const built = await buildChains({ glb, names: ['dune'], options: { steps: 2 } }, context);
    const again = await buildChains({ glb: built.glb, names: ['dune'], options: { steps: 1 } }, context);
    expect((await namesOf(again.glb)).sort()).toEqual(['cloth', 'dune', 'dune.collision', 'dune.step1']);
    const renamed = await renamePieces({ kit: again.glb, names: [{ from: 'dune', to: 'hill' }] });
    expect((await namesOf(renamed)).sort()).toEqual(['cloth', 'hill', 'hill.collision', 'hill.step1']);
    expect(await namesOf(await removePieceFromKit({ kit: renamed, name: 'hill' }))).toEqual(['cloth']);
  });

  it('are made again for what is replaced; a mesh of its own stays where the file has no other', async () => {
    const own = sheet('dune.collision');
    const kit = await writeGlb(kitOf(dune, own, cloth));
    const added = await writeGlb(kitOf(ball('dune', 6)));
    const replaced = async (collision?: CollisionShape) => {
      const pieces = [{ name: 'dune', as: 'dune', ...(collision ? { collision } : {}) }];
      return addToKit({ kit, added, pieces }, context);
    };
    const [hull, kept, none] = [await replaced('hull'), await replaced('own'), await replaced()];
    expect(hull.collisions).toMatchObject([{ collision: { shape: 'hull', vertices: 62 } }]);
    expect(kept.collisions).toMatchObject([{ collision: { shape: 'own', triangles: 2 } }]);
    expect(none.collisions).toEqual([{ name: 'dune', collision: null, why: '' }]);
    expect(await namesOf(none.glb)).toEqual(['cloth', 'dune']);
    const brought = await writeGlb(
      kitOf(ball('rock', 6), part('rock.collision', [0, 0, 0, 1, 0, 0, 0, 1, 0], [0, 1, 2], null)),
    );
    const pieces = [{ name: 'rock', as: 'dune', move: [1, 0, 0] as const, collision: 'own' as const }];
    const { glb, collisions } = await addToKit({ kit, added: brought, pieces }, context);
    expect(collisions).toMatchObject([{ name: 'dune', collision: { shape: 'own', triangles: 1 } }]);
    const { meshes } = await readGlb(glb);
    const moved = meshes.pieces.find(({ name }) => name === 'dune.collision');
    expect([...(moved?.parts[0].attributes[0].values ?? [])]).toEqual([1, 0, 0, 2, 0, 0, 1, 1, 0]);
  });

  it('are the floors of rehearsals as they were made', async () => {
    const { glb, collisions } = await set(
      await writeGlb(kitOf(dune, cloth)),
      wanted(dune, 'hull'),
      wanted(cloth, 'mesh'),
    );
    const record = (mesh: MeshOfPiece, collision: PieceCollision | null): Piece => ({
      id: `the ${mesh.name}`,
      kit: 'k',
      name: mesh.name,
      bounds: meshBounds(mesh),
      steps: [],
      collision,
    });
    const pieces = [
      record(dune, collisions[0].collision),
      record(cloth, collisions[1].collision),
      record(sheet('gone'), null),
    ];
    const floors = await kitFloors({ glb, pieces }, context);
    expect(Object.keys(floors)).toEqual(['the dune', 'the cloth']);
    expect(floors['the cloth']).toEqual(make('mesh', cloth));
    const hull = make('hull', dune);
    expect(sizes(floors['the dune'])).toEqual(sizes(hull));
    const box = await kitFloors(
      { glb, pieces: [record(dune, { shape: 'box', triangles: 12, vertices: 8, bytes: 1, digest: '' })] },
      context,
    );
    expect(sizes(box['the dune'])).toEqual([8, 12]);
  });
});

describe('meshes that are named as collisions', () => {
  /** A crate 10 m off, turned about, and two boxes of one mesh beside it as its collision. */
  async function scene(): Promise<Uint8Array> {
    const document = new Document();
    const buffer = document.createBuffer();
    const mesh = (name: string, positions: readonly number[]) =>
      document
        .createMesh(name)
        .addPrimitive(
          document
            .createPrimitive()
            .setAttribute(
              'POSITION',
              document.createAccessor().setType('VEC3').setArray(Float32Array.from(positions)).setBuffer(buffer),
            ),
        );
    const shared = mesh('wedge', [0, 0, 0, 1, 0, 0, 0, 1, 0]);
    const root = document.createScene();
    const crate = document
      .createNode('crate')
      .setMesh(mesh('crate', [0, 0, 0, 3, 0, 0, 0, 3, 0]))
      .setTranslation([10, 0, 0]);
    root.addChild(crate);
    crate.addChild(document.createNode('crate_collision').setMesh(shared).setTranslation([0, 1, 0]));
    root.addChild(
      document.createNode('crate_collision2').setMesh(shared).setTranslation([12, 0, 0]).setScale([2, 1, 1]),
    );
    root.addChild(document.createNode('lid_collision').setMesh(shared));
    return new WebIO().writeBinary(document);
  }
  const read = async (over: Partial<Parameters<typeof readPieces>[0]> = {}) =>
    readPieces({ files: [{ name: 'a.glb', bytes: await scene() }], unitMetres: 1, isZUp: false, ...over }, context);

  it('become the collision of the piece, each where it stands to it, though they share a mesh', async () => {
    const { pieces, report, glb } = await read({ unitMetres: 0.5 });
    expect(pieces.map(({ name, collisionTriangles }) => [name, collisionTriangles])).toEqual([
      ['crate', 2],
      ['lid_collision', undefined],
    ]);
    expect(report.pieces.map(({ name }) => name)).toEqual(['crate', 'lid_collision']);
    const { meshes } = await readGlb(glb ?? new Uint8Array());
    const own = meshes.pieces.find(({ name }) => name === 'crate.collision');
    expect([...(own?.parts[0].attributes[0].values ?? [])]).toEqual([
      ...[0, 0.5, 0, 0.5, 0.5, 0, 0, 1, 0],
      ...[1, 0, 0, 2, 0, 0, 1, 0.5, 0],
    ]);
    expect(report.faults.map(({ where, message }) => `${where} ${message}`)).toEqual(
      expect.arrayContaining([
        'crate_collision is the collision of “crate”',
        'crate_collision2 is the collision of “crate”',
        'lid_collision is named as a collision, but no mesh is called “lid”; it comes in as a piece',
      ]),
    );
  });

  it('are pieces where the pattern is another, and a pattern at fault is refused', async () => {
    const { pieces } = await read({ collisionPattern: 'solid {name}' });
    expect(pieces.map(({ name }) => name)).toEqual(['crate', 'crate_collision']);
    await expect(read({ collisionPattern: '{name}' })).rejects.toThrow(
      'import: A pattern needs something beside {name}',
    );
  });

  it('are those of the first use, where a scene shows the piece with its collision again and again', async () => {
    const document = new Document();
    const buffer = document.createBuffer();
    const mesh = (name: string) =>
      document.createMesh(name).addPrimitive(
        document.createPrimitive().setAttribute(
          'POSITION',
          document
            .createAccessor()
            .setType('VEC3')
            .setArray(Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0))
            .setBuffer(buffer),
        ),
      );
    const [tree, trunk] = [mesh('tree'), mesh('trunk')];
    const root = document.createScene();
    for (let i = 0; i < 300; i++) {
      const number = i === 0 ? '' : `.${String(i).padStart(3, '0')}`;
      const node = document
        .createNode(`tree${number}`)
        .setMesh(tree)
        .setTranslation([i * 4, 0, 0]);
      node.addChild(document.createNode(`tree_collision${number}`).setMesh(trunk).setTranslation([0.5, 0, 0]));
      root.addChild(node);
    }
    const files = [{ name: 'a.glb', bytes: await new WebIO().writeBinary(document) }];
    const { pieces, report } = await read({ files });
    expect(pieces.map(({ name, collisionTriangles }) => [name, collisionTriangles])).toEqual([['tree', 1]]);
    expect(report.faults.map(({ where, message }) => `${where} ${message}`)).toContain(
      'tree 299 collision meshes stand by other uses of it; left out',
    );
  });

  it('without a triangle that has area are left out, told, and keep nothing else out', async () => {
    const obj = 'o crate\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\no crate_collision\nv 0 0 0\nv 1 0 0\nv 2 0 0\nf 4 5 6\n';
    const files = [{ name: 'a.obj', bytes: Uint8Array.from(obj, (letter) => letter.charCodeAt(0)) }];
    const { pieces, report } = await read({ files });
    expect(pieces.map(({ name, collisionTriangles }) => [name, collisionTriangles])).toEqual([['crate', undefined]]);
    expect(report.faults.map(({ message }) => message)).toContain('has a collision without triangles; it is left out');
  });
});
