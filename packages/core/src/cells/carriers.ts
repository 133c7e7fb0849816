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
  /** Nine numbers a triangle. */
  private readonly corners: Float64Array;

  constructor({ positions, indices, backs }: CollisionMesh, { position, turn, scale }: Placement) {
    const m = turnMatrix(turn);
    const places = new Float64Array(positions.length);
    for (let i = 0; i < positions.length; i += 3)
      places.set(placePoint(position, m, scale, [positions[i], positions[i + 1], positions[i + 2]]), i);
    const side = isMirrored(scale) ? -1 : 1;
    const corners: number[] = [];
    const boxes: number[] = [];
    for (const list of [indices, backs]) {
      for (let t = 0; t < list.length; t += 3) {
        const [a, b, c] = [0, 1, 2].map((k) => places.subarray(list[t + k] * 3, list[t + k] * 3 + 3));
        const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
        const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
        const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
        if (!(ny * side > STEEPEST * Math.sqrt(nx * nx + ny * ny + nz * nz))) continue;
        corners.push(...a, ...b, ...c);
        for (const k of [0, 1, 2]) boxes.push(Math.min(a[k], b[k], c[k]) - SEAM_METRES);
        for (const k of [0, 1, 2]) boxes.push(Math.max(a[k], b[k], c[k]) + SEAM_METRES);
      }
    }
    this.corners = Float64Array.from(corners);
    this.tree = new BoxTree(Float64Array.from(boxes));
  }

  at(x: number, z: number, limit: number): number | undefined {
    let best: number | undefined;
    for (const triangle of this.tree.inBox([x, -Infinity, z], [x, limit + SEAM_METRES, z])) {
      const height = heightOn(this.corners.subarray(triangle * 9, triangle * 9 + 9), x, z);
      if (height !== undefined && height <= limit && !(best !== undefined && best >= height)) best = height;
    }
    return best;
  }
}

/** Height of a triangle over a point of the plan; undefined beside it. */
function heightOn(c: Float64Array, x: number, z: number): number | undefined {
  const doubled = (c[3] - c[0]) * (c[8] - c[2]) - (c[5] - c[2]) * (c[6] - c[0]);
  const side = doubled < 0 ? -1 : 1;
  let height = 0;
  for (let k = 0; k < 3; k++) {
    const [from, to] = [((k + 1) % 3) * 3, ((k + 2) % 3) * 3];
    const [dx, dz] = [c[to] - c[from], c[to + 2] - c[from + 2]];
    // Twice the area between this side and the point, and so the weight of the corner across.
    const area = side * (dx * (z - c[from + 2]) - dz * (x - c[from]));
    if (area < -SEAM_METRES * Math.sqrt(dx * dx + dz * dz)) return undefined;
    height += (area / Math.abs(doubled)) * c[k * 3 + 1];
  }
  return Math.min(Math.max(height, Math.min(c[1], c[4], c[7])), Math.max(c[1], c[4], c[7]));
}
