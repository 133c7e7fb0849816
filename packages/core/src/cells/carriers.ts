import type { CollisionMesh } from '../detail/collision/collision-spec';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import { isMirrored, placePoint, turnMatrix, turnVector } from '../geometry/turn';
import type { Block } from '../model/block';
import type { Placement } from '../model/placement';
import type { Box3 } from '../model/vector';
import { BoxTree } from '../spatial/box-tree';

/** What a walker can stand on. */
export interface Carrier {
  readonly bounds: Box3;
  /**
   * Height of its highest floor over a point of the plan that is not above a limit, metres; undefined where it has none there.
   * Of a block its top is the only one.
   */
  readonly floorAt: (x: number, z: number, limit: number) => number | undefined;
}

/** Undefined for a block that encloses nothing: it holds nobody. */
export function blockCarrier(block: Block): Carrier | undefined {
  const bounds = blockSurfaceIfAny(block)?.bounds;
  if (!bounds) return undefined;
  const m = turnMatrix(block.turn);
  const planes = block.planes.map(([nx, ny, nz, d]): Plane => {
    const n = turnVector(m, nx, ny, nz);
    return [n[0], n[1], n[2], d + n[0] * block.position[0] + n[1] * block.position[1] + n[2] * block.position[2]];
  });
  return {
    bounds,
    floorAt: (x, z, limit) => {
      const top = topAt(planes, x, z);
      return top !== undefined && top <= limit ? top : undefined;
    },
  };
}

type Plane = readonly [number, number, number, number];

/** Height of a solid's top over a point of the plan, undefined beside it. */
function topAt(planes: readonly Plane[], x: number, z: number): number | undefined {
  let low = -Infinity;
  let high = Infinity;
  for (const [nx, ny, nz, d] of planes) {
    const rest = d - nx * x - nz * z;
    if (ny > 1e-9) high = Math.min(high, rest / ny);
    else if (ny < -1e-9) low = Math.max(low, rest / ny);
    else if (rest < -1e-9) return undefined;
  }
  return low < high ? high : undefined;
}

/** So far beside a triangle one still stands on it, metres: what the numbers of levels are exact to. Else one could fall between two. */
const SEAM_METRES = 1e-6;
/** Triangles as steep as a wall hold nobody: share of their area that is seen from above. */
const STEEPEST = 1e-6;

/**
 * The collision of a placed piece. Its triangles are put into the level when somebody first comes near.
 * @param bounds of the placement, metres
 */
export function meshCarrier(mesh: CollisionMesh, placement: Placement, bounds: Box3): Carrier {
  let floors: Floors | undefined;
  return {
    bounds,
    floorAt: (x, z, limit) => (floors ??= new Floors(mesh, placement)).at(x, z, limit),
  };
}

/** Triangles that look up. */
class Floors {
  private readonly tree: BoxTree;
  /** xyz of the vertices in the level. */
  private readonly places: Float64Array;
  /** Three vertices a triangle. */
  private readonly corners: Uint32Array;

  constructor({ positions, indices, backs }: CollisionMesh, { position, turn, scale }: Placement) {
    const m = turnMatrix(turn);
    this.places = new Float64Array(positions.length);
    for (let i = 0; i < positions.length; i += 3)
      this.places.set(placePoint(position, m, scale, [positions[i], positions[i + 1], positions[i + 2]]), i);
    const side = isMirrored(scale) ? -1 : 1;
    const corners = new Uint32Array(indices.length + backs.length);
    let count = 0;
    for (const list of [indices, backs]) {
      for (let t = 0; t < list.length; t += 3) {
        if (!(this.upShare(list[t], list[t + 1], list[t + 2]) * side > STEEPEST)) continue;
        corners.set(list.subarray(t, t + 3), count);
        count += 3;
      }
    }
    this.corners = corners.slice(0, count);
    this.tree = new BoxTree(this.boxes());
  }

  at(x: number, z: number, limit: number): number | undefined {
    let best: number | undefined;
    for (const triangle of this.tree.inBox([x, -Infinity, z], [x, limit + SEAM_METRES, z])) {
      const height = this.heightOn(triangle, x, z);
      if (height !== undefined && height <= limit && !(best !== undefined && best >= height)) best = height;
    }
    return best;
  }

  /** Share of a triangle's area that is seen from above, below 0 from below; NaN where it has none. */
  private upShare(i: number, j: number, k: number): number {
    const [a, b, c] = [i * 3, j * 3, k * 3];
    const p = this.places;
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    return ny / Math.sqrt(nx * nx + ny * ny + nz * nz);
  }

  private boxes(): Float64Array {
    const boxes = new Float64Array(this.corners.length * 2);
    for (let t = 0; t < this.corners.length; t += 3) {
      for (let k = 0; k < 3; k++) {
        const [a, b, c] = [0, 1, 2].map((corner) => this.places[this.corners[t + corner] * 3 + k]);
        boxes[t * 2 + k] = Math.min(a, b, c) - SEAM_METRES;
        boxes[t * 2 + 3 + k] = Math.max(a, b, c) + SEAM_METRES;
      }
    }
    return boxes;
  }

  /** Height of a triangle over a point of the plan; undefined beside it. */
  private heightOn(triangle: number, x: number, z: number): number | undefined {
    const p = this.places;
    const at = [0, 1, 2].map((corner) => this.corners[triangle * 3 + corner] * 3);
    const doubled =
      (p[at[1]] - p[at[0]]) * (p[at[2] + 2] - p[at[0] + 2]) - (p[at[1] + 2] - p[at[0] + 2]) * (p[at[2]] - p[at[0]]);
    const side = doubled < 0 ? -1 : 1;
    let height = 0;
    for (let k = 0; k < 3; k++) {
      const [from, to] = [at[(k + 1) % 3], at[(k + 2) % 3]];
      const [dx, dz] = [p[to] - p[from], p[to + 2] - p[from + 2]];
      // Twice the area between this side and the point, and so the weight of the corner across.
      const area = side * (dx * (z - p[from + 2]) - dz * (x - p[from]));
      if (area < -SEAM_METRES * Math.sqrt(dx * dx + dz * dz)) return undefined;
      height += (area / Math.abs(doubled)) * p[at[k] + 1];
    }
    const heights = at.map((corner) => p[corner + 1]);
    return Math.min(Math.max(height, Math.min(...heights)), Math.max(...heights));
  }
}
