/** Triangles that one cell of the grid holds on average. */
const TRIANGLES_A_CELL = 2;
/** Most cells along one side. */
const MAX_SIDE = 256;
/** Squared sine of a corner below which a triangle counts as one without area. */
const NO_AREA = 1e-12;

/**
 * Finds the distance from points to the nearest of many triangles. Triangles lie in the cells of a regular grid that their
 * bounds touch; cells are searched in shells about the point until none can hold a nearer one.
 */
export class TriangleGrid {
  private readonly min: Float64Array;
  private readonly cell: number;
  private readonly sides: Int32Array;
  private readonly starts: Uint32Array;
  private readonly items: Uint32Array;
  private readonly asked: Int32Array;
  private readonly reach: number;
  private question = 0;
  /** The triangle that the last answer was about. */
  nearestTriangle = 0;
  /** Scratch: the cell of the point asked for. */
  private readonly centre = new Int32Array(3);

  /**
   * @param positions xyz triples, metres, finite
   * @param indices three corners a triangle, each below the number of positions; at least one triangle
   */
  constructor(
    private readonly positions: Float32Array,
    private readonly indices: Uint32Array,
  ) {
    const triangles = indices.length / 3;
    const bounds = triangleBounds(positions, indices);
    const min = Float64Array.of(Infinity, Infinity, Infinity);
    const max = Float64Array.of(-Infinity, -Infinity, -Infinity);
    for (let t = 0; t < triangles; t++) {
      for (let k = 0; k < 3; k++) {
        min[k] = Math.min(min[k], bounds[t * 6 + k]);
        max[k] = Math.max(max[k], bounds[t * 6 + 3 + k]);
      }
    }
    const size = Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2], 1e-9);
    // Surfaces fill few cells of a volume: so many along a side that the cells they meet hold a few triangles each.
    const side = Math.min(MAX_SIDE, Math.max(1, Math.ceil(Math.sqrt(triangles / TRIANGLES_A_CELL / 3))));
    this.min = min;
    this.cell = size / side;
    this.sides = Int32Array.from([0, 1, 2], (k) =>
      Math.max(1, Math.min(side, Math.ceil((max[k] - min[k]) / this.cell) || 1)),
    );
    this.reach = Math.max(this.sides[0], this.sides[1], this.sides[2]);
    this.asked = new Int32Array(triangles).fill(-1);
    const count = this.sides[0] * this.sides[1] * this.sides[2];
    this.starts = new Uint32Array(count + 1);
    const visit = (t: number, put: (cell: number) => void): void => {
      const at = t * 6;
      const [y0, y1, z0, z1] = [
        this.column(bounds[at + 1], 1),
        this.column(bounds[at + 4], 1),
        this.column(bounds[at + 2], 2),
        this.column(bounds[at + 5], 2),
      ];
      for (let x = this.column(bounds[at], 0), x1 = this.column(bounds[at + 3], 0); x <= x1; x++)
        for (let y = y0; y <= y1; y++) for (let z = z0; z <= z1; z++) put((x * this.sides[1] + y) * this.sides[2] + z);
    };
    for (let t = 0; t < triangles; t++) visit(t, (cell) => this.starts[cell + 1]++);
    for (let cell = 0; cell < count; cell++) this.starts[cell + 1] += this.starts[cell];
    this.items = new Uint32Array(this.starts[count]);
    const fill = this.starts.slice(0, count);
    for (let t = 0; t < triangles; t++) visit(t, (cell) => (this.items[fill[cell]++] = t));
  }

  /**
   * Squared distance from a point to the nearest triangle.
   * @param enough answers as soon as it is known to be no more than this, with any value up to it
   */
  nearestSquared(x: number, y: number, z: number, enough = -1): number {
    const question = ++this.question;
    const { centre } = this;
    centre[0] = this.column(x, 0);
    centre[1] = this.column(y, 1);
    centre[2] = this.column(z, 2);
    let best = Infinity;
    for (let shell = 0; shell <= this.reach; shell++) {
      // Everything in this shell and beyond is at least so far away.
      const least = this.shellDistance(x, y, z, shell);
      if (least * least > best) break;
      best = this.searchShell(x, y, z, shell, best, enough, question);
      if (best <= enough) return best;
    }
    return best;
  }

  private searchShell(
    x: number,
    y: number,
    z: number,
    shell: number,
    best: number,
    enough: number,
    question: number,
  ): number {
    const { starts, items, asked, centre, sides } = this;
    const sx = sides[0];
    const sy = sides[1];
    const sz = sides[2];
    for (let cx = Math.max(0, centre[0] - shell); cx <= Math.min(sx - 1, centre[0] + shell); cx++) {
      const edgeX = Math.abs(cx - centre[0]) === shell;
      for (let cy = Math.max(0, centre[1] - shell); cy <= Math.min(sy - 1, centre[1] + shell); cy++) {
        const edgeXY = edgeX || Math.abs(cy - centre[1]) === shell;
        const step = edgeXY || shell === 0 ? 1 : 2 * shell;
        for (let cz = centre[2] - shell; cz <= centre[2] + shell; cz += step) {
          if (cz < 0 || cz >= sz) continue;
          const cell = (cx * sy + cy) * sz + cz;
          for (let i = starts[cell]; i < starts[cell + 1]; i++) {
            const t = items[i];
            if (asked[t] === question) continue;
            asked[t] = question;
            const distance = this.squaredTo(t, x, y, z);
            if (distance >= best) continue;
            best = distance;
            this.nearestTriangle = t;
            if (best <= enough) return best;
          }
        }
      }
    }
    return best;
  }

  /** Distance from a point to the nearest side of the box of all shells before one; 0 for the first. */
  private shellDistance(x: number, y: number, z: number, shell: number): number {
    if (shell === 0) return 0;
    const { centre } = this;
    let least = Infinity;
    for (let k = 0; k < 3; k++) {
      const at = k === 0 ? x : k === 1 ? y : z;
      const low = this.min[k] + (centre[k] - shell + 1) * this.cell;
      const high = this.min[k] + (centre[k] + shell) * this.cell;
      if (centre[k] - shell >= 0) least = Math.min(least, at - low);
      if (centre[k] + shell < this.sides[k]) least = Math.min(least, high - at);
    }
    return least === Infinity ? Infinity : Math.max(0, least);
  }

  private column(value: number, axis: number): number {
    const column = Math.floor((value - this.min[axis]) / this.cell);
    return column < 0 ? 0 : column >= this.sides[axis] ? this.sides[axis] - 1 : column;
  }

  /**
   * Squared distance from a point to one triangle.
   * Source: Christer Ericson, Real-Time Collision Detection, 2005, section 5.1.5.
   */
  squaredTo(t: number, x: number, y: number, z: number): number {
    const { positions, indices } = this;
    const a = indices[t * 3] * 3;
    const b = indices[t * 3 + 1] * 3;
    const c = indices[t * 3 + 2] * 3;
    const ax = positions[a];
    const ay = positions[a + 1];
    const az = positions[a + 2];
    const ux = positions[b] - ax;
    const uy = positions[b + 1] - ay;
    const uz = positions[b + 2] - az;
    const vx = positions[c] - ax;
    const vy = positions[c + 1] - ay;
    const vz = positions[c + 2] - az;
    const px = x - ax;
    const py = y - ay;
    const pz = z - az;
    const d1 = ux * px + uy * py + uz * pz;
    const d2 = vx * px + vy * py + vz * pz;
    if (d1 <= 0 && d2 <= 0) return px * px + py * py + pz * pz;
    const uu = ux * ux + uy * uy + uz * uz;
    const uv = ux * vx + uy * vy + uz * vz;
    const vv = vx * vx + vy * vy + vz * vz;
    if (uu * vv - uv * uv <= NO_AREA * uu * vv)
      // Its edges are all there is of a triangle without area; the regions below would divide by nothing.
      return Math.min(
        squaredToEdge(px, py, pz, ux, uy, uz),
        squaredToEdge(px, py, pz, vx, vy, vz),
        squaredToEdge(px - ux, py - uy, pz - uz, vx - ux, vy - uy, vz - uz),
      );
    const d3 = d1 - uu;
    const d4 = d2 - uv;
    if (d3 >= 0 && d4 <= d3) return squaredOff(px, py, pz, ux, uy, uz, vx, vy, vz, 1, 0);
    const vc = d1 * d4 - d3 * d2;
    if (vc <= 0 && d1 >= 0 && d3 <= 0) return squaredOff(px, py, pz, ux, uy, uz, vx, vy, vz, d1 / (d1 - d3), 0);
    const d5 = d1 - uv;
    const d6 = d2 - vv;
    if (d6 >= 0 && d5 <= d6) return squaredOff(px, py, pz, ux, uy, uz, vx, vy, vz, 0, 1);
    const vb = d5 * d2 - d1 * d6;
    if (vb <= 0 && d2 >= 0 && d6 <= 0) return squaredOff(px, py, pz, ux, uy, uz, vx, vy, vz, 0, d2 / (d2 - d6));
    const va = d3 * d6 - d5 * d4;
    if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
      const w = (d4 - d3) / (d4 - d3 + (d5 - d6));
      return squaredOff(px, py, pz, ux, uy, uz, vx, vy, vz, 1 - w, w);
    }
    const sum = va + vb + vc;
    return squaredOff(px, py, pz, ux, uy, uz, vx, vy, vz, vb / sum, vc / sum);
  }
}

/** Squared distance from a point to an edge, both from the edge's start; the start alone when the edge has no length. */
function squaredToEdge(px: number, py: number, pz: number, ux: number, uy: number, uz: number): number {
  const uu = ux * ux + uy * uy + uz * uz;
  const along = uu > 0 ? Math.min(1, Math.max(0, (px * ux + py * uy + pz * uz) / uu)) : 0;
  return squaredOff(px, py, pz, ux, uy, uz, 0, 0, 0, along, 0);
}

function squaredOff(
  px: number,
  py: number,
  pz: number,
  ux: number,
  uy: number,
  uz: number,
  vx: number,
  vy: number,
  vz: number,
  s: number,
  t: number,
): number {
  const dx = px - s * ux - t * vx;
  const dy = py - s * uy - t * vy;
  const dz = pz - s * uz - t * vz;
  return dx * dx + dy * dy + dz * dz;
}

function triangleBounds(positions: Float32Array, indices: Uint32Array): Float64Array {
  const bounds = new Float64Array((indices.length / 3) * 6);
  for (let t = 0; t < indices.length / 3; t++) {
    for (let k = 0; k < 3; k++) {
      const a = positions[indices[t * 3] * 3 + k];
      const b = positions[indices[t * 3 + 1] * 3 + k];
      const c = positions[indices[t * 3 + 2] * 3 + k];
      bounds[t * 6 + k] = Math.min(a, b, c);
      bounds[t * 6 + 3 + k] = Math.max(a, b, c);
    }
  }
  return bounds;
}
