import { CoreError } from '../errors';

/**
 * A plane with a side: twice its index in the table, plus one when it faces the other way.
 * `ref ^ 1` is the same plane seen from its other side.
 */
export type PlaneRef = number;

/** Coefficients are multiples of 2^-30, so that a determinant of them is exact in whole numbers. */
const GRAIN = 1073741824;
/** Planes whose normals differ by less, component by component, may be one. */
const WELD_NORMAL = 1e-7;
/** ... if at the place where the newcomer lies they are closer than this, in metres. */
const WELD_METRES = 1e-5;
/** Beyond this offset a plane is refused: the products would leave the exact range. Metres. */
const FARTHEST_METRES = 4194304;
const NORMAL_BUCKET = 1e-4;
const OFFSET_BUCKET = 0.0625;

/**
 * All planes of one computation, welded: flush faces of turned blocks, whose computed planes differ in the last bits,
 * become one plane with two sides. Inside is n·p ≤ d.
 * Source: the signed plane table follows Bernstein and Fussell, Fast, Exact, Linear Booleans, 2009, section 4.
 */
export class PlaneTable {
  private readonly coefficients: number[] = [];
  private readonly buckets = new Map<number, number[]>();
  private readonly wholeNumbers: bigint[] = [];
  private world: readonly PlaneRef[] | undefined;

  get count(): number {
    return this.coefficients.length / 4;
  }

  /**
   * Finds or adds the plane through (px, py, pz) with the outward normal (nx, ny, nz), of any length but 0.
   * @throws CoreError 'PLANE_UNUSABLE' when a number is not finite, the normal is null or the plane is too far away
   */
  add(nx: number, ny: number, nz: number, px: number, py: number, pz: number): PlaneRef {
    const length = Math.sqrt(nx * nx + ny * ny + nz * nz);
    if (!(length > 1e-12 && length < 1e12)) {
      throw new CoreError('PLANE_UNUSABLE', `plane: the normal must have a length, is (${nx}, ${ny}, ${nz})`);
    }
    let x = Math.round((nx / length) * GRAIN) / GRAIN;
    let y = Math.round((ny / length) * GRAIN) / GRAIN;
    let z = Math.round((nz / length) * GRAIN) / GRAIN;
    const flipped = x < 0 || (x === 0 && (y < 0 || (y === 0 && z < 0)));
    if (flipped) {
      x = -x;
      y = -y;
      z = -z;
    }
    x += 0;
    y += 0;
    z += 0;
    const offset = Math.round((x * px + y * py + z * pz) * GRAIN) / GRAIN + 0;
    if (!(Math.abs(offset) < FARTHEST_METRES)) {
      throw new CoreError(
        'PLANE_UNUSABLE',
        `plane: must pass within ${FARTHEST_METRES} m of the origin, is at ${offset}`,
      );
    }
    const side = flipped ? 1 : 0;
    const found = this.find(x, y, z, offset, px, py, pz);
    if (found !== undefined) return found * 2 + side;
    const index = this.count;
    this.coefficients.push(x, y, z, offset);
    const key = bucketKey(
      bucketOf(x, NORMAL_BUCKET),
      bucketOf(y, NORMAL_BUCKET),
      bucketOf(z, NORMAL_BUCKET),
      bucketOf(offset, OFFSET_BUCKET),
    );
    const bucket = this.buckets.get(key);
    if (bucket) bucket.push(index);
    else this.buckets.set(key, [index]);
    return index * 2 + side;
  }

  normalX(ref: PlaneRef): number {
    const n = this.coefficients[(ref >> 1) * 4];
    return ref & 1 ? -n : n;
  }
  normalY(ref: PlaneRef): number {
    const n = this.coefficients[(ref >> 1) * 4 + 1];
    return ref & 1 ? -n : n;
  }
  normalZ(ref: PlaneRef): number {
    const n = this.coefficients[(ref >> 1) * 4 + 2];
    return ref & 1 ? -n : n;
  }
  offset(ref: PlaneRef): number {
    const d = this.coefficients[(ref >> 1) * 4 + 3];
    return ref & 1 ? -d : d;
  }

  /** The six sides +x, −x, +y, −y, +z, −z of a cube of ±`halfMetres`, added at the first call. */
  worldSides(halfMetres: number): readonly PlaneRef[] {
    const h = halfMetres;
    return (this.world ??= [
      this.add(1, 0, 0, h, 0, 0),
      this.add(-1, 0, 0, -h, 0, 0),
      this.add(0, 1, 0, 0, h, 0),
      this.add(0, -1, 0, 0, -h, 0),
      this.add(0, 0, 1, 0, 0, h),
      this.add(0, 0, -1, 0, 0, -h),
    ]);
  }

  /** Outward normal and offset of one side. */
  plane(ref: PlaneRef): [number, number, number, number] {
    return [this.normalX(ref) + 0, this.normalY(ref) + 0, this.normalZ(ref) + 0, this.offset(ref) + 0];
  }

  /** Signed distance of a point, positive outside. Metres, rounded. */
  distance(ref: PlaneRef, x: number, y: number, z: number): number {
    const at = (ref >> 1) * 4;
    const c = this.coefficients;
    const s = c[at] * x + c[at + 1] * y + c[at + 2] * z - c[at + 3];
    return ref & 1 ? -s : s;
  }

  /** Coefficient k (0 to 3) of the plane as stored, as an exact whole number of grains. */
  whole(ref: PlaneRef, k: number): bigint {
    const at = (ref >> 1) * 4 + k;
    return (this.wholeNumbers[at] ??= BigInt(this.coefficients[at] * GRAIN));
  }

  private find(
    x: number,
    y: number,
    z: number,
    offset: number,
    px: number,
    py: number,
    pz: number,
  ): number | undefined {
    const bx = nearBuckets(x, NORMAL_BUCKET, WELD_NORMAL);
    const by = nearBuckets(y, NORMAL_BUCKET, WELD_NORMAL);
    const bz = nearBuckets(z, NORMAL_BUCKET, WELD_NORMAL);
    const reach = WELD_METRES + WELD_NORMAL * (Math.abs(px) + Math.abs(py) + Math.abs(pz));
    const bd = nearBuckets(offset, OFFSET_BUCKET, reach);
    for (const ix of bx)
      for (const iy of by)
        for (const iz of bz)
          for (const id of bd) {
            const bucket = this.buckets.get(bucketKey(ix, iy, iz, id));
            if (!bucket) continue;
            for (const index of bucket) {
              const c = this.coefficients;
              const at = index * 4;
              if (
                Math.abs(c[at] - x) <= WELD_NORMAL &&
                Math.abs(c[at + 1] - y) <= WELD_NORMAL &&
                Math.abs(c[at + 2] - z) <= WELD_NORMAL &&
                Math.abs(c[at] * px + c[at + 1] * py + c[at + 2] * pz - c[at + 3]) <= WELD_METRES
              ) {
                return index;
              }
            }
          }
    return undefined;
  }
}

function bucketOf(value: number, size: number): number {
  return Math.floor(value / size);
}

function nearBuckets(value: number, size: number, reach: number): number[] {
  const low = Math.floor((value - reach) / size);
  const high = Math.floor((value + reach) / size);
  const list = [low];
  for (let k = low + 1; k <= high; k++) list.push(k);
  return list;
}

/** Buckets may share a key; what is found in one is compared anyway. */
function bucketKey(x: number, y: number, z: number, d: number): number {
  let hash = Math.imul(x, 73856093) ^ Math.imul(y, 19349663);
  hash = Math.imul(hash ^ (hash >>> 15), 83492791) ^ Math.imul(z, 2654435761);
  return Math.imul(hash ^ (hash >>> 13), 40503) ^ Math.imul(d, 97531);
}
