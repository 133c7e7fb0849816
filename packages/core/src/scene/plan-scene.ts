import type { RunContext } from '../context/run-context';
import { plainPieceName, FreeNames } from '../detail/piece-name';
import { mapOf } from '../detail/read-pieces';
import type { ImportFault } from '../formats/import-report';
import type { SceneFile, SceneNode } from '../formats/glb/read-scene';
import { linearOf, matrixOf, movedPoint, product, type LinearMap, type Matrix } from '../geometry/matrix';
import { counted } from '../counted';
import type { KitMeshes, MeshOfPiece } from '../mesh/kit-meshes';
import { meshBounds } from '../mesh/mesh-cost';
import { movePart, placePart } from '../mesh/place-part';
import type { MarkerKind } from '../model/marker';
import type { Box3, Vector3 } from '../model/vector';
import { yawOfDirection } from '../geometry/turn';
import { collisionOwners, DEFAULT_COLLISION_PATTERN } from '../fields/collision-pattern';
import { equalMeshes } from './equal-meshes';
import { matchesName } from './name-pattern';
import { poseOfMatrix, type Pose } from './pose-of-matrix';

/** Meshes whose vertices lie at most so far apart are one, metres. */
const EQUAL_METRES = 1e-3;

/** Which nodes without a mesh become markers, by their names. */
export interface MarkerPattern {
  readonly kind: MarkerKind;
  /** With `*` for anything, whatever the case. */
  readonly names: string;
}

export const MARKER_PATTERNS: readonly MarkerPattern[] = [
  { kind: 'spawn', names: 'spawn*' },
  { kind: 'exit', names: 'exit*' },
  { kind: 'checkpoint', names: 'checkpoint*' },
  { kind: 'pickup', names: 'pickup*' },
];

export interface PlanSceneInput {
  readonly scene: SceneFile;
  readonly unitMetres: number;
  readonly isZUp: boolean;
  readonly markers?: readonly MarkerPattern[];
  readonly equalMetres?: number;
}

/** A mesh that becomes a piece. */
export interface PlannedPiece {
  readonly mesh: MeshOfPiece;
  /** How many meshes of the file are this one. */
  readonly meshes: number;
  /** How far a vertex of those lies from its own place at most, metres. */
  readonly offMetres: number;
}

export interface PlannedPlacement extends Pose {
  readonly path: string;
  /** Number among the pieces. */
  readonly piece: number;
  /** Number among the groups; -1 at the top. */
  readonly group: number;
}

export interface PlannedGroup {
  readonly path: string;
  readonly name: string;
  /** Number among the groups, before it; -1 at the top. */
  readonly parent: number;
}

export interface PlannedMarker {
  readonly path: string;
  readonly kind: MarkerKind;
  readonly position: Vector3;
  /** Yaw, degrees. */
  readonly turn: number;
  readonly group: number;
}

/** What a scene becomes: pieces, and where they stand. */
export interface ScenePlan {
  readonly pieces: readonly PlannedPiece[];
  readonly materials: KitMeshes['materials'];
  readonly textures: KitMeshes['textures'];
  readonly placements: readonly PlannedPlacement[];
  readonly groups: readonly PlannedGroup[];
  readonly markers: readonly PlannedMarker[];
  readonly faults: readonly ImportFault[];
  /** Meshes of the file that nodes show. */
  readonly meshes: number;
}

/**
 * Plans what a scene becomes: equal meshes are one piece, nodes with a mesh placements of it, nodes without one that others hang in groups, and those
 * that are named so markers. A piece has its mesh's own frame; its first use says what its scale 1 is, and its origin is moved below it where it
 * lies far off. A use that no placement can hold, as it is sheared, becomes a piece of its own.
 * @throws CoreError 'IMPORT_UNIT', 'CANCELLED'
 */
export function planScene(
  { scene, unitMetres, isZUp, markers = MARKER_PATTERNS, equalMetres = EQUAL_METRES }: PlanSceneInput,
  context: RunContext,
): ScenePlan {
  const map = mapOf(unitMetres, isZUp);
  const equal = equalMeshes(scene.meshes, equalMetres / unitMetres, context);
  return new Planner(scene, map, unitMetres, markers, equal).plan(context);
}

type Use = { readonly node: SceneNode; readonly number: number; readonly matrix: Matrix };

class Planner {
  private readonly pieces: PlannedPiece[] = [];
  private readonly placements: PlannedPlacement[] = [];
  private readonly groups: PlannedGroup[] = [];
  private readonly markers: PlannedMarker[] = [];
  private readonly faults: ImportFault[];
  private readonly names = new FreeNames();
  /** Number of the group that each node is or hangs in. */
  private readonly groupOf: number[] = [];

  /** How many meshes that nodes show are one, and how far they are off at most, by the number of the first. */
  private readonly likes = new Map<number, { meshes: number; off: number }>();

  constructor(
    private readonly scene: SceneFile,
    private readonly map: LinearMap,
    private readonly unitMetres: number,
    private readonly patterns: readonly MarkerPattern[],
    private readonly equal: ReturnType<typeof equalMeshes>,
  ) {
    this.faults = [...scene.faults];
    for (const mesh of new Set(scene.nodes.map((node) => node.mesh))) {
      if (mesh < 0) continue;
      const { like, off } = equal[mesh];
      const known = this.likes.get(like) ?? { meshes: 0, off: 0 };
      this.likes.set(like, { meshes: known.meshes + 1, off: Math.max(known.off, off) });
    }
  }

  plan(context: RunContext): ScenePlan {
    const { nodes, meshes } = this.scene;
    this.sortNodes();
    const uses = this.uses();
    for (const [like, own] of uses) {
      context.checkCancelled();
      this.addPieces(like, own);
    }
    // As they stand in the file, so that equal files give equal bytes whatever their meshes are called.
    const order = new Map(nodes.map(({ path }, i) => [path, i]));
    this.placements.sort((a, b) => (order.get(a.path) ?? 0) - (order.get(b.path) ?? 0));
    return {
      pieces: this.pieces,
      materials: meshes.materials,
      textures: meshes.textures,
      placements: this.placements,
      groups: this.groups,
      markers: this.markers,
      faults: this.faults,
      meshes: new Set(nodes.flatMap(({ mesh }) => (mesh < 0 ? [] : [mesh]))).size,
    };
  }

  /** Groups and markers, and what becomes of the nodes that are neither. */
  private sortNodes(): void {
    const { nodes } = this.scene;
    const tops = nodes.filter(({ parent }) => parent < 0);
    // One node that all hang in is the file itself.
    const whole = tops.length === 1 && tops[0].hasChildren && tops[0].mesh < 0 ? 0 : -1;
    const left = { empty: 0, light: 0, camera: 0 };
    nodes.forEach((node, i) => {
      const above = node.parent < 0 ? -1 : this.groupOf[node.parent];
      this.groupOf[i] = above;
      if (node.mesh >= 0 || i === whole) return;
      const pattern = this.patterns.find(({ names }) => matchesName(names, node.name));
      if (pattern) this.addMarker(node, pattern.kind, above);
      else if (node.hasChildren)
        this.groupOf[i] = this.groups.push({ path: node.path, name: node.name || 'Group', parent: above }) - 1;
      else left[node.role]++;
    });
    const words = { empty: ['empty node', 'empty nodes'], light: ['light', 'lights'], camera: ['camera', 'cameras'] };
    for (const role of ['empty', 'light', 'camera'] as const)
      if (left[role] > 0)
        this.note('file', `${counted(left[role], words[role][0], words[role][1])} left out: no pattern names them`);
  }

  private addMarker({ matrix, path }: SceneNode, kind: MarkerKind, group: number): void {
    const m = this.inMetres(matrix);
    // It looks along its own −Z.
    const turn = yawOfDirection(-m[8], -m[10]);
    this.markers.push({ path, kind, position: [m[12] + 0, m[13] + 0, m[14] + 0], turn, group });
  }

  /** The uses of each mesh that others are like, by its number. */
  private uses(): ReadonlyMap<number, readonly Use[]> {
    const { nodes, meshes } = this.scene;
    const names = new Set(nodes.flatMap(({ mesh, name }) => (mesh < 0 ? [] : [name])));
    const found = new Map<number, Use[]>();
    let collisions = 0;
    nodes.forEach((node, number) => {
      if (node.mesh < 0) return;
      if (
        collisionOwners(DEFAULT_COLLISION_PATTERN, node.name).some((owner) => owner !== node.name && names.has(owner))
      ) {
        collisions++;
        return;
      }
      if (meshes.pieces[node.mesh].parts.length === 0) return;
      const { like, matrix } = this.equal[node.mesh];
      const own = found.get(like) ?? [];
      found.set(like, own);
      own.push({ node, number, matrix: this.inMetres(product(node.matrix, matrix)) });
    });
    if (collisions > 0)
      this.note(
        'file',
        `${counted(collisions, 'collision mesh is', 'collision meshes are')} left out: set collisions on Detail`,
      );
    return found;
  }

  private addPieces(like: number, uses: readonly Use[]): void {
    const file = this.scene.meshes.pieces[like];
    const mesh = { ...file, parts: file.parts.map((part) => placePart(part, this.map)) };
    const posed: { readonly use: Use; readonly pose: Pose }[] = [];
    for (const use of uses) {
      const pose = poseOfMatrix(use.matrix);
      if (pose === 'flat') this.note(use.node.path, 'is scaled to nothing along an axis; it is left out', 'warning');
      else if (pose === 'sheared') this.addSheared(mesh, use);
      else posed.push({ use, pose });
    }
    if (posed.length === 0) return;
    const [{ pose: first }] = posed;
    const base: Vector3 = [Math.abs(first.scale[0]), Math.abs(first.scale[1]), Math.abs(first.scale[2])];
    const scaled = mesh.parts.map((part) => placePart(part, [base[0], 0, 0, 0, base[1], 0, 0, 0, base[2]]));
    const shift = originShift(meshBounds({ ...mesh, parts: scaled }));
    const { meshes, off } = this.likes.get(like) ?? { meshes: 1, off: 0 };
    const parts = shift ? scaled.map((part) => movePart(part, shift)) : scaled;
    const piece = this.add({ name: file.name, parts }, meshes, off * this.unitMetres);
    for (const { use, pose } of posed) {
      const scale: Vector3 = [pose.scale[0] / base[0], pose.scale[1] / base[1], pose.scale[2] / base[2]];
      // The origin is where the mesh's own one is moved to.
      const back: Vector3 = shift ? [-shift[0] / base[0], -shift[1] / base[1], -shift[2] / base[2]] : [0, 0, 0];
      const position = shift ? movedPoint(use.matrix, back) : pose.position;
      this.place(use, piece, { ...pose, position, scale: cleaned(scale) });
    }
  }

  /** A use whose axes are at no right angles: it is in the vertices of a piece of its own. */
  private addSheared(mesh: MeshOfPiece, use: Use): void {
    const parts = mesh.parts.map((part) => placePart(part, linearOf(use.matrix)));
    const shift = originShift(meshBounds({ ...mesh, parts }));
    const moved = shift ? parts.map((part) => movePart(part, shift)) : parts;
    const piece = this.add({ name: `${mesh.name} sheared`, parts: moved }, 1, 0);
    this.note(use.node.path, 'is sheared, which no placement can be: it becomes a piece of its own', 'warning');
    const [x, y, z] = shift ?? [0, 0, 0];
    const position: Vector3 = [use.matrix[12] - x, use.matrix[13] - y, use.matrix[14] - z];
    this.place(use, piece, { position, turn: [0, 0, 0], scale: [1, 1, 1] });
  }

  private add({ name, parts }: MeshOfPiece, meshes: number, offMetres: number): number {
    const free = this.names.take(plainPieceName(name) || 'piece');
    return this.pieces.push({ mesh: { name: free, parts }, meshes, offMetres }) - 1;
  }

  private place({ node, number }: Use, piece: number, pose: Pose): void {
    this.placements.push({ path: node.path, piece, group: this.groupOf[number], ...pose });
  }

  /** From metres and Y up to the same: what a node does, in the axes of the level. */
  private inMetres(matrix: Matrix): Matrix {
    const [a, b, c, d, e, f, g, h, i] = this.map;
    const squared = this.unitMetres * this.unitMetres;
    const there = matrixOf(this.map, [0, 0, 0]);
    // A turn times a unit: turned back it is its transposed.
    const back = matrixOf(
      [a, d, g, b, e, h, c, f, i].map((value) => value / squared) as unknown as LinearMap,
      [0, 0, 0],
    );
    const turned = product(product(there, [...matrix.slice(0, 12), 0, 0, 0, 1]), back);
    const [x, y, z] = movedPoint(there, [matrix[12], matrix[13], matrix[14]]);
    return [...turned.slice(0, 12), x, y, z, 1];
  }

  private note(where: string, message: string, severity: ImportFault['severity'] = 'note'): void {
    this.faults.push({ severity, where, message });
  }
}

/**
 * What the vertices of a mesh are moved by where its origin lies farther from it than it is long: then its origin stands below its middle, as
 * nobody could place it otherwise. Undefined where it stays.
 */
function originShift({ min, max }: Box3): Vector3 | undefined {
  const size = Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
  const off = Math.max(...[0, 1, 2].map((k) => Math.max(min[k], -max[k], 0)));
  if (off <= size) return undefined;
  return [-(min[0] + max[0]) / 2, -min[1], -(min[2] + max[2]) / 2];
}

/** Scales that are 1 but for rounding are 1. */
function cleaned(scale: Vector3): Vector3 {
  const clean = (value: number): number => {
    const near = Math.abs(value) - 1;
    return Math.abs(near) < 1e-9 ? Math.sign(value) : value;
  };
  return [clean(scale[0]), clean(scale[1]), clean(scale[2])];
}
