import { DEFAULT_SIGHT_OPTIONS, blockSurface, type Block, type BlockSurface } from '@stravel/core';
import { BufferAttribute, BufferGeometry, LineSegments, Mesh, type Color, type Material } from 'three';
import { planeOf } from './face-plane';
import { LaterUpdates } from './later-updates';
import type { LayerHost, PlateLayer } from './plate-layer';

/** Blocks drawn together; a change draws its group anew, so groups are small while there are few. */
const FEWEST_A_GROUP = 64;
/** Groups that a large stratum is spread over: every group is drawn several times a frame. */
const GROUPS_A_STRATUM = 100;
/** Blocks of a stratum that are drawn; as many as the sight bake takes. */
const MAX_DRAWN = DEFAULT_SIGHT_OPTIONS.blockLimit;
/** Strata with more blocks than this are drawn slice by slice, so that the page stays responsive. */
const BLOCKS_AT_ONCE = 2500;
/** Changed groups of blocks that are drawn anew at once. */
const GROUPS_AT_ONCE = 8;

const surfaces = new WeakMap<Block, BlockSurface | null>();

/** The surface of a block record, made once; undefined when its planes enclose nothing. */
export function surfaceOfBlock(block: Block): BlockSurface | undefined {
  let surface = surfaces.get(block);
  if (surface === undefined) {
    try {
      surface = blockSurface(block);
    } catch {
      // The sight bake has a finding for it; there is nothing to draw.
      surface = null;
    }
    surfaces.set(block, surface);
  }
  return surface ?? undefined;
}

/** The surface of a block if it has been made already. */
export function madeSurface(block: Block): BlockSurface | undefined {
  return surfaces.get(block) ?? undefined;
}

interface BlockGroup {
  readonly ids: Set<string>;
  objects: (Mesh | LineSegments)[];
  /** The outsides with what they are drawn with on the plan. */
  outsides: { readonly mesh: Mesh; readonly onPlan: Material }[];
}

/** The blocks of one stratum as a few meshes with their edges. */
export class BlockMeshes implements PlateLayer {
  private readonly groups: BlockGroup[] = [];
  private readonly groupOf = new Map<string, BlockGroup>();
  private groupSize = FEWEST_A_GROUP;
  private readonly updates: LaterUpdates<BlockGroup>;

  constructor(
    private readonly blocks: ReadonlyMap<string, Block>,
    private readonly host: LayerHost,
  ) {
    this.updates = new LaterUpdates(
      (group) => this.draw(group),
      () => host.drawn(),
      GROUPS_AT_ONCE,
    );
  }

  get isDrawing(): boolean {
    return this.updates.isUnderWay;
  }

  /** Blocks that are not drawn yet. */
  get pending(): number {
    let sum = 0;
    for (const { ids } of this.updates.left) sum += ids.size;
    return sum;
  }

  /** Blocks that are too many to be drawn. */
  get leftOut(): number {
    return Math.max(0, this.blocks.size - this.groupOf.size);
  }

  rebuild(): void {
    this.dispose();
    this.groupSize = Math.max(FEWEST_A_GROUP, Math.ceil(Math.min(MAX_DRAWN, this.blocks.size) / GROUPS_A_STRATUM));
    for (const id of this.blocks.keys()) if (this.groupOf.size < MAX_DRAWN) this.join(id);
    if (this.groupOf.size > BLOCKS_AT_ONCE) this.updates.add(this.groups);
    else this.groups.forEach((group) => this.draw(group));
  }

  /** Draws anew the groups of blocks that were put or removed. */
  update(ids: readonly string[]): void {
    const touched = new Set<BlockGroup>();
    for (const id of ids) {
      if (this.blocks.has(id)) {
        if (!this.groupOf.has(id) && this.groupOf.size >= MAX_DRAWN) continue;
        touched.add(this.groupOf.get(id) ?? this.join(id));
        continue;
      }
      const group = this.groupOf.get(id);
      if (!group) continue;
      group.ids.delete(id);
      this.groupOf.delete(id);
      touched.add(group);
    }
    this.updates.add(touched);
  }

  showIn(view: 'plan' | 'model'): void {
    const { painted } = this.host.materials();
    for (const { outsides } of this.groups)
      for (const { mesh, onPlan } of outsides) mesh.material = view === 'plan' ? onPlan : painted;
  }

  coloursChanged(): void {
    this.rebuild();
  }

  dispose(): void {
    this.updates.stop();
    for (const group of this.groups) this.clear(group);
    this.groups.length = 0;
    this.groupOf.clear();
  }

  private join(id: string): BlockGroup {
    let group = this.groups.at(-1);
    if (!group || group.ids.size >= this.groupSize) {
      group = { ids: new Set(), objects: [], outsides: [] };
      this.groups.push(group);
    }
    group.ids.add(id);
    this.groupOf.set(id, group);
    return group;
  }

  private clear(group: BlockGroup): void {
    for (const object of group.objects) {
      object.removeFromParent();
      object.geometry.dispose();
    }
    group.objects = [];
    group.outsides = [];
  }

  private draw(group: BlockGroup): void {
    this.clear(group);
    const { hides, decor, cut, edges } = this.host.materials();
    const blocks = [...group.ids]
      .flatMap((id) => this.blocks.get(id) ?? [])
      .filter((block) => this.host.isSeen(block.group));
    for (const [sight, material] of [
      ['hides', hides],
      ['decor', decor],
    ] as const) {
      const geometry = surfaceGeometry(
        blocks.filter((block) => block.sight === sight),
        (name) => this.host.colourOf(name),
      );
      if (!geometry) continue;
      const outside = new Mesh(geometry, material);
      const inside = new Mesh(geometry, cut);
      const counting = this.host.caps.meshes(geometry);
      group.outsides.push({ mesh: outside, onPlan: material });
      group.objects.push(outside, inside, ...counting);
      this.host.parent.add(outside, inside);
      this.host.cuts.add(...counting);
    }
    const lines = edgeGeometry(blocks);
    if (lines) {
      const object = new LineSegments(lines, edges);
      group.objects.push(object);
      this.host.edges.add(object);
    }
  }
}

function surfaceGeometry(blocks: readonly Block[], colourOf: (material: string) => Color): BufferGeometry | undefined {
  const positions: number[] = [];
  const colours: number[] = [];
  const normals: number[] = [];
  for (const block of blocks) {
    const { r, g, b } = colourOf(block.material);
    for (const face of surfaceOfBlock(block)?.faces ?? []) {
      const [nx, ny, nz] = normalOf(face);
      for (let i = 3; i + 3 < face.length; i += 3) {
        positions.push(
          face[0],
          face[1],
          face[2],
          face[i],
          face[i + 1],
          face[i + 2],
          face[i + 3],
          face[i + 4],
          face[i + 5],
        );
        normals.push(nx, ny, nz, nx, ny, nz, nx, ny, nz);
        colours.push(r, g, b, r, g, b, r, g, b);
      }
    }
  }
  if (positions.length === 0) return undefined;
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3));
  geometry.setAttribute('normal', new BufferAttribute(new Float32Array(normals), 3));
  geometry.setAttribute('color', new BufferAttribute(new Float32Array(colours), 3));
  return geometry;
}

function edgeGeometry(blocks: readonly Block[]): BufferGeometry | undefined {
  const positions: number[] = [];
  for (const block of blocks) {
    for (const face of surfaceOfBlock(block)?.faces ?? []) {
      for (let i = 0; i < face.length; i += 3) {
        const j = i + 3 === face.length ? 0 : i + 3;
        positions.push(face[i], face[i + 1], face[i + 2], face[j], face[j + 1], face[j + 2]);
      }
    }
  }
  if (positions.length === 0) return undefined;
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3));
  return geometry;
}

function normalOf(face: Float64Array): [number, number, number] {
  const [x, y, z] = planeOf(face);
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}
