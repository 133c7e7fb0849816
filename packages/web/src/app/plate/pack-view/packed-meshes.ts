import type { PackScene } from '@stravel/walker';
import {
  BufferAttribute,
  BufferGeometry,
  DynamicDrawUsage,
  Group,
  InstancedMesh,
  Matrix4,
  Mesh,
  MeshLambertMaterial,
  Quaternion,
  Vector3,
  type Material,
} from 'three';
import { GLTFLoader } from 'three/addons/loaders/GLTFLoader.js';
import { MeshoptDecoder } from 'three/addons/libs/meshopt_decoder.module.js';
import { letGo, readNodeMeshes, type StepMesh } from '../kit-meshes';
import { MaterialColours } from '../material-colours';

/** Gives the bytes of a file of the pack. */
export type ReadPacked = (path: string) => Promise<ArrayBuffer>;

/** Instances of one LOD of a piece; mirrored ones by themselves. */
interface Instances {
  readonly meshes: readonly InstancedMesh[];
  count: number;
}

/** The blocks of one chunk: whole, and what of them is drawn. */
interface ChunkBlocks {
  readonly primitives: readonly {
    readonly all: BufferAttribute;
    readonly shown: BufferAttribute;
    readonly mesh: Mesh;
    count: number;
  }[];
}

const MIRROR = new Matrix4().makeScale(-1, 1, 1);
/** Files that are read at a time. */
const LANES = 4;

/** What a pack has of a level as three.js objects, of which any may be drawn. */
export class PackedMeshes {
  readonly group = new Group();
  private readonly nodes = new Map<string, ReadonlyMap<string, StepMesh['parts']>>();
  private readonly blocks = new Map<string, ChunkBlocks>();
  private readonly instances = new Map<string, Instances>();
  private readonly colours = new MaterialColours();
  private readonly materials = new Map<string, Material>();
  /** How many objects there are of each piece: more of it are never drawn. */
  private readonly counts: Int32Array;

  constructor(private readonly scene: PackScene) {
    this.counts = new Int32Array(scene.pieces.length);
    for (const piece of scene.piece) if (piece >= 0) this.counts[piece]++;
  }

  /** Reads all meshes. @param onRead after each file @throws Error naming a file that cannot be read */
  async read(read: ReadPacked, onRead: () => void): Promise<void> {
    const meshes = new Set(this.scene.pieces.map((piece) => piece.meshes));
    const chunks = new Set(this.scene.geometry.filter((path, i) => path !== null && this.scene.piece[i] < 0));
    const left = [...meshes, ...chunks] as string[];
    const lane = async (): Promise<void> => {
      for (let path = left.shift(); path !== undefined; path = left.shift()) {
        const loader = new GLTFLoader().setMeshoptDecoder(MeshoptDecoder);
        const nodes = await readNodeMeshes(await read(path), loader);
        if (meshes.has(path)) this.nodes.set(path, nodes);
        else this.addBlocks(path, [...nodes.values()].flat());
        onRead();
      }
    };
    await Promise.all(Array.from({ length: LANES }, lane));
  }

  /** Draws objects at their LODs. @param lods by object; -1 for what is not drawn */
  show(lods: ArrayLike<number>): void {
    const { scene } = this;
    for (const one of this.instances.values()) one.count = 0;
    for (const { primitives } of this.blocks.values()) for (const one of primitives) one.count = 0;
    const [matrix, at, turn, scale] = [new Matrix4(), new Vector3(), new Quaternion(), new Vector3()];
    for (let i = 0; i < lods.length; i++) {
      if (lods[i] < 0) continue;
      if (scene.piece[i] < 0) {
        this.showBlock(i);
        continue;
      }
      at.fromArray(scene.translations, i * 3);
      turn.fromArray(scene.rotations, i * 4);
      scale.fromArray(scene.scales, i * 3);
      const isMirrored = scale.x * scale.y * scale.z < 0;
      const one = this.instancesOf(scene.piece[i], lods[i], isMirrored);
      matrix.compose(at, turn, scale);
      if (isMirrored) matrix.premultiply(MIRROR);
      for (const mesh of one.meshes) mesh.setMatrixAt(one.count, matrix);
      one.count++;
    }
    for (const { meshes, count } of this.instances.values()) {
      for (const mesh of meshes) {
        mesh.count = count;
        mesh.instanceMatrix.needsUpdate = true;
      }
    }
    for (const { primitives } of this.blocks.values()) {
      for (const { mesh, shown, count } of primitives) {
        mesh.geometry.setDrawRange(0, count);
        mesh.visible = count > 0;
        shown.needsUpdate = true;
      }
    }
  }

  dispose(): void {
    for (const { meshes } of this.instances.values()) for (const mesh of meshes) mesh.dispose();
    for (const nodes of this.nodes.values())
      letGo([{ steps: [...nodes.values()].map((parts) => ({ parts, deviationMetres: 0 })) }]);
    for (const { primitives } of this.blocks.values()) for (const { mesh } of primitives) mesh.geometry.dispose();
    for (const material of this.materials.values()) material.dispose();
  }

  private addBlocks(path: string, parts: StepMesh['parts']): void {
    const primitives = parts.map(({ geometry, material }) => {
      const index = geometry.getIndex();
      if (!(index instanceof BufferAttribute)) throw new Error(`${path}: its blocks have no indices.`);
      const shown = new BufferAttribute(index.array.slice(), 1).setUsage(DynamicDrawUsage);
      const drawn = new BufferGeometry();
      for (const [name, attribute] of Object.entries(geometry.attributes)) drawn.setAttribute(name, attribute);
      drawn.setIndex(shown);
      const mesh = new Mesh(drawn, this.materialOf(material.name));
      // What is drawn was chosen before: a bound of all of it says nothing.
      mesh.frustumCulled = false;
      this.group.add(mesh);
      return { all: index, shown, mesh, count: 0 };
    });
    this.blocks.set(path, { primitives });
  }

  private showBlock(object: number): void {
    const chunk = this.blocks.get(this.scene.geometry[object] ?? '');
    if (!chunk) return;
    for (const { primitive, firstIndex, indexCount } of this.scene.ranges[object]) {
      const one = chunk.primitives[primitive];
      one.shown.array.set(one.all.array.subarray(firstIndex, firstIndex + indexCount), one.count);
      one.count += indexCount;
    }
  }

  private instancesOf(piece: number, lod: number, isMirrored: boolean): Instances {
    const key = `${piece} ${lod}${isMirrored ? ' mirrored' : ''}`;
    const known = this.instances.get(key);
    if (known) return known;
    const { meshes: path, nodes } = this.scene.pieces[piece];
    const parts = this.nodes.get(path)?.get(nodes[lod]) ?? [];
    const meshes = parts.map(({ geometry, material }) => {
      const mesh = new InstancedMesh(geometry, material, this.counts[piece]);
      mesh.frustumCulled = false;
      // Triangles of what is mirrored go round the other way: so does its own frame, which makes up for it.
      if (isMirrored) mesh.matrix.copy(MIRROR);
      mesh.matrixAutoUpdate = false;
      this.group.add(mesh);
      return mesh;
    });
    const made = { meshes, count: 0 };
    this.instances.set(key, made);
    return made;
  }

  private materialOf(name: string): Material {
    const known = this.materials.get(name) ?? new MeshLambertMaterial({ color: this.colours.of(name) });
    this.materials.set(name, known);
    return known;
  }
}
