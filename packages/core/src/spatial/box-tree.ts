import { CoreError } from '../errors';

const LEAF_SIZE = 8;
const NUMBERS = 6;

/**
 * Finds boxes by box or by ray among many. Built once, read often.
 * Layout: nodes in depth-first order, six bounds each; `links` holds the index after the subtree, `firsts` the first item
 * of a leaf or −1.
 * Source: median splits along the longest axis, as in Kay and Kajiya, Ray tracing complex scenes, 1986.
 */
export class BoxTree {
  private readonly items: Uint32Array;
  private readonly nodeBounds: number[] = [];
  private readonly links: number[] = [];
  private readonly firsts: number[] = [];
  private readonly counts: number[] = [];

  /**
   * @param boxes min xyz and max xyz of each box, six numbers each
   * @throws CoreError 'BOX_TREE_INPUT' when a number is NaN or the length is no multiple of six
   */
  constructor(private readonly boxes: Float64Array) {
    if (boxes.length % NUMBERS !== 0) throw new CoreError('BOX_TREE_INPUT', `box tree: the length must be a multiple of 6, is ${boxes.length}`);
    const bad = boxes.findIndex(Number.isNaN);
    if (bad >= 0) throw new CoreError('BOX_TREE_INPUT', `box tree: boxes[${bad}] is NaN`);
    this.items = Uint32Array.from({ length: boxes.length / NUMBERS }, (_unused, i) => i);
    if (this.items.length > 0) this.build(0, this.items.length);
  }

  /** Numbers of the boxes that touch a box, ascending. */
  inBox(min: readonly number[], max: readonly number[]): number[] {
    const found: number[] = [];
    const meets = (bounds: ArrayLike<number>, at: number): boolean => {
      for (let k = 0; k < 3; k++) if (bounds[at + k] > max[k] || bounds[at + 3 + k] < min[k]) return false;
      return true;
    };
    this.walk(
      (at) => meets(this.nodeBounds, at),
      (item) => {
        if (meets(this.boxes, item * NUMBERS)) found.push(item);
      },
    );
    return found.sort((a, b) => a - b);
  }

  /** Boxes that a ray enters, nearest first, with the distance in units of `direction`. */
  alongRay(origin: readonly number[], direction: readonly number[]): { item: number; distance: number }[] {
    const found: { item: number; distance: number }[] = [];
    this.walk(
      (at) => entry(this.nodeBounds, at, origin, direction) !== undefined,
      (item) => {
        const distance = entry(this.boxes, item * NUMBERS, origin, direction);
        if (distance !== undefined) found.push({ item, distance });
      },
    );
    return found.sort((a, b) => a.distance - b.distance || a.item - b.item);
  }

  private walk(enter: (boundsAt: number) => boolean, visit: (item: number) => void): void {
    let node = 0;
    while (node < this.links.length) {
      if (!enter(node * NUMBERS)) {
        node = this.links[node];
        continue;
      }
      const first = this.firsts[node];
      if (first >= 0) for (let i = 0; i < this.counts[node]; i++) visit(this.items[first + i]);
      node++;
    }
  }

  private build(from: number, to: number): void {
    const node = this.links.length;
    const bounds = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
    for (let i = from; i < to; i++) {
      const at = this.items[i] * NUMBERS;
      for (let k = 0; k < 3; k++) {
        bounds[k] = Math.min(bounds[k], this.boxes[at + k]);
        bounds[k + 3] = Math.max(bounds[k + 3], this.boxes[at + 3 + k]);
      }
    }
    this.nodeBounds.push(...bounds);
    this.links.push(0);
    this.firsts.push(to - from <= LEAF_SIZE ? from : -1);
    this.counts.push(to - from);
    if (to - from > LEAF_SIZE) {
      const axis = [0, 1, 2].reduce((best, k) => (bounds[k + 3] - bounds[k] > bounds[best + 3] - bounds[best] ? k : best), 0);
      const middle = (i: number): number => this.boxes[i * NUMBERS + axis] + this.boxes[i * NUMBERS + 3 + axis];
      this.items.subarray(from, to).sort((a, b) => middle(a) - middle(b) || a - b);
      const half = (from + to) >> 1;
      this.build(from, half);
      this.build(half, to);
    }
    this.links[node] = this.links.length;
  }
}

/** Distance at which a ray enters a box, 0 when it starts inside; undefined when it misses. */
function entry(bounds: ArrayLike<number>, at: number, origin: readonly number[], direction: readonly number[]): number | undefined {
  let near = 0;
  let far = Infinity;
  for (let k = 0; k < 3; k++) {
    const low = bounds[at + k] - origin[k];
    const high = bounds[at + 3 + k] - origin[k];
    if (direction[k] === 0) {
      if (low > 0 || high < 0) return undefined;
      continue;
    }
    const a = low / direction[k];
    const b = high / direction[k];
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  return near <= far ? near : undefined;
}
