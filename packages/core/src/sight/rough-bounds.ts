import { wayTarget, type OpeningTable, type Way } from './opening-polygons';

/** A set of pockets, one bit each. */
export type PocketBits = Uint32Array;

/** Corners this far beyond a plane still count as on it, metres. */
const SLACK = 1e-4;

/** What half-spaces alone cannot exclude, for each way; made when first asked for. */
export class RoughBounds {
  private readonly bounds: (PocketBits | undefined)[] = [];
  private readonly visited: Int32Array;
  private readonly stack: number[] = [];

  constructor(
    private readonly openings: OpeningTable,
    private readonly ways: readonly (readonly Way[])[],
    private readonly pocketCount: number,
  ) {
    this.visited = new Int32Array(pocketCount).fill(-1);
  }

  /**
   * The pockets that lines through a way may come to: those that a flood reaches over openings which lie in part in front of
   * the way, and whose own back the way lies in part at.
   */
  of(way: Way): PocketBits {
    return (this.bounds[way] ??= this.flood(way));
  }

  private flood(way: Way): PocketBits {
    const bits = new Uint32Array((this.pocketCount + 31) >> 5);
    const { visited, stack } = this;
    const first = wayTarget(this.openings, way);
    // The pocket that the way leads out of is never come back to.
    visited[wayTarget(this.openings, way ^ 1)] = way;
    visited[first] = way;
    stack.push(first);
    for (let pocket = stack.pop(); pocket !== undefined; pocket = stack.pop()) {
      bits[pocket >> 5] |= 1 << (pocket & 31);
      for (const next of this.ways[pocket]) {
        const into = wayTarget(this.openings, next);
        if (visited[into] === way || !this.hasPart(next, way, 1) || !this.hasPart(way, next, -1)) continue;
        visited[into] = way;
        stack.push(into);
      }
    }
    return bits;
  }

  /** Whether part of one way's opening lies in front of (1) or behind (−1) another's plane. */
  private hasPart(of: Way, way: Way, side: 1 | -1): boolean {
    const p = this.openings.planes;
    const at = (way >> 1) * 4;
    const sign = way & 1 ? -side : side;
    const nx = p[at] * sign;
    const ny = p[at + 1] * sign;
    const nz = p[at + 2] * sign;
    const d = p[at + 3] * sign - SLACK;
    const b = this.openings.balls;
    const ball = (of >> 1) * 4;
    const middle = nx * b[ball] + ny * b[ball + 1] + nz * b[ball + 2] - d;
    if (middle >= 0) return true;
    if (middle < -b[ball + 3]) return false;
    const c = this.openings.corners;
    const end = this.openings.starts[(of >> 1) + 1];
    for (let k = this.openings.starts[of >> 1]; k < end; k += 3) {
      if (nx * c[k] + ny * c[k + 1] + nz * c[k + 2] >= d) return true;
    }
    return false;
  }
}
