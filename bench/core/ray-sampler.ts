import { randomStream, type SightResult } from '@stravel/core';

const DIRECTIONS = 64;
const POINTS = 64;

/** What a sampler finds. */
export interface SampledSets {
  /** For each pocket the pockets that some ray came to, itself among them. */
  readonly seen: readonly ReadonlySet<number>[];
  readonly rays: number;
}

/**
 * The plain way to visible sets: 64 points in each pocket, 64 directions from each, every ray walked through the openings
 * until it meets a wall. Takes the same pockets and openings as the bake. Misses whatever no ray happens to find.
 */
export function sampleVisibleSets(result: Pick<SightResult, 'pockets' | 'openings'>): SampledSets {
  const walker = new RayWalker(result);
  const directions = spreadDirections(DIRECTIONS);
  let rays = 0;
  const seen = result.pockets.map(({ reached, bounds }, pocket) => {
    const found = new Set<number>();
    if (!reached) return found;
    found.add(pocket);
    const random = randomStream(`sampler ${pocket}`);
    for (let i = 0; i < POINTS; i++) {
      const x = bounds.min[0] + (bounds.max[0] - bounds.min[0]) * random.next();
      const y = bounds.min[1] + (bounds.max[1] - bounds.min[1]) * random.next();
      const z = bounds.min[2] + (bounds.max[2] - bounds.min[2]) * random.next();
      if (!walker.isInside(pocket, x, y, z)) continue;
      for (let d = 0; d < DIRECTIONS; d++) {
        rays++;
        walker.walk(pocket, x, y, z, directions[d * 3], directions[d * 3 + 1], directions[d * 3 + 2], found);
      }
    }
    return found;
  });
  return { seen, rays };
}

/** Directions spread evenly over the sphere (golden spiral). */
function spreadDirections(count: number): Float64Array {
  const out = new Float64Array(count * 3);
  for (let i = 0; i < count; i++) {
    const y = 1 - (2 * (i + 0.5)) / count;
    const r = Math.sqrt(1 - y * y);
    const angle = i * Math.PI * (3 - Math.sqrt(5));
    out.set([r * Math.cos(angle), y, r * Math.sin(angle)], i * 3);
  }
  return out;
}

/** Pockets and openings as flat arrays. */
class RayWalker {
  private readonly planes: Float64Array;
  private readonly planeStarts: Int32Array;
  private readonly ways: {
    readonly to: number;
    readonly plane: readonly number[];
    readonly corners: readonly number[];
  }[][];

  constructor({ pockets, openings }: Pick<SightResult, 'pockets' | 'openings'>) {
    this.planeStarts = new Int32Array(pockets.length + 1);
    pockets.forEach((pocket, i) => (this.planeStarts[i + 1] = this.planeStarts[i] + pocket.planes.length));
    this.planes = Float64Array.from(pockets.flatMap((pocket) => pocket.planes.flat()));
    this.ways = pockets.map(() => []);
    for (const {
      pockets: [a, b],
      plane,
      polygon,
    } of openings) {
      this.ways[a].push({ to: b, plane, corners: polygon });
      this.ways[b].push({ to: a, plane: plane.map((v) => -v), corners: polygon });
    }
  }

  isInside(pocket: number, x: number, y: number, z: number): boolean {
    const p = this.planes;
    for (let i = this.planeStarts[pocket]; i < this.planeStarts[pocket + 1]; i++) {
      if (p[i * 4] * x + p[i * 4 + 1] * y + p[i * 4 + 2] * z > p[i * 4 + 3]) return false;
    }
    return true;
  }

  walk(start: number, x: number, y: number, z: number, dx: number, dy: number, dz: number, found: Set<number>): void {
    const p = this.planes;
    let pocket = start;
    for (let steps = 0; steps < 1000; steps++) {
      let t = Infinity;
      for (let i = this.planeStarts[pocket] * 4; i < this.planeStarts[pocket + 1] * 4; i += 4) {
        const towards = p[i] * dx + p[i + 1] * dy + p[i + 2] * dz;
        if (towards <= 0) continue;
        const at = (p[i + 3] - p[i] * x - p[i + 1] * y - p[i + 2] * z) / towards;
        if (at < t) t = at;
      }
      const hx = x + dx * t;
      const hy = y + dy * t;
      const hz = z + dz * t;
      const way = this.ways[pocket].find(
        ({ plane, corners }) => plane[0] * dx + plane[1] * dy + plane[2] * dz > 0 && holds(plane, corners, hx, hy, hz),
      );
      if (!way) return;
      pocket = way.to;
      found.add(pocket);
    }
  }
}

/** Whether a point on a convex polygon's plane lies in it, whichever way its corners run. */
function holds(plane: readonly number[], corners: readonly number[], x: number, y: number, z: number): boolean {
  if (Math.abs(plane[0] * x + plane[1] * y + plane[2] * z - plane[3]) > 1e-6) return false;
  let seen = 0;
  for (let i = 0; i < corners.length; i += 3) {
    const j = i + 3 === corners.length ? 0 : i + 3;
    const ex = corners[j] - corners[i];
    const ey = corners[j + 1] - corners[i + 1];
    const ez = corners[j + 2] - corners[i + 2];
    const px = x - corners[i];
    const py = y - corners[i + 1];
    const pz = z - corners[i + 2];
    const side = plane[0] * (ey * pz - ez * py) + plane[1] * (ez * px - ex * pz) + plane[2] * (ex * py - ey * px);
    seen |= side > 0 ? 1 : side < 0 ? 2 : 0;
    if (seen === 3) return false;
  }
  return true;
}
