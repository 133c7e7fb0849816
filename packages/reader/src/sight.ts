import type { Fields } from './fields';

/** A point this far outside a pocket still lies in it, metres. */
const SLACK_METRES = 1e-4;
/** Numbers of a plane, and of a box. */
const PLANE = 4;
const BOX = 6;

/** Lists of numbers one after the other: where each begins, and the one after the last ends. */
export interface Lists {
  readonly start: Uint32Array;
  readonly all: Uint32Array;
}

/** What is seen from where in a level. Nothing is allocated from frame to frame. */
export class Sight {
  private readonly marks: Uint8Array;

  constructor(
    /** Ids of the blocks and placements that pockets name by their numbers. */
    readonly objects: readonly string[],
    private readonly planes: Float64Array,
    private readonly planeStart: Uint32Array,
    /** Least and greatest x, y, z of each pocket. */
    readonly boxes: Float64Array,
    /** The pockets of each pocket's visible set. */
    readonly visible: Lists,
    /** The objects that touch each pocket. */
    readonly touched: Lists,
    /** 1 for pockets that can be reached. */
    readonly reached: Uint8Array,
  ) {
    this.marks = new Uint8Array(objects.length);
  }

  /** How many pockets there are. */
  get pockets(): number {
    return this.planeStart.length - 1;
  }

  /**
   * The pocket that has a point, −1 where none has.
   * @param point x y z, metres
   * @param hint the pocket of the frame before: it is looked at first, and is the answer where several have the point
   */
  pocketAt(point: ArrayLike<number>, hint = -1): number {
    if (hint >= 0 && hint < this.pockets && this.holds(hint, point)) return hint;
    for (let pocket = 0; pocket < this.pockets; pocket++) if (this.holds(pocket, point)) return pocket;
    return -1;
  }

  /**
   * The objects to draw from a pocket: those of its visible set, ascending; all of them from −1, and from one that was not thought to be reached.
   * @param out takes their numbers; as long as `objects` it is always long enough
   * @returns how many there are
   * @throws RangeError when `out` is too short
   */
  drawSet(pocket: number, out: Uint32Array): number {
    const { visible, touched, marks } = this;
    const isAll = pocket < 0 || this.reached[pocket] === 0;
    for (let v = isAll ? 0 : visible.start[pocket]; !isAll && v < visible.start[pocket + 1]; v++) {
      const seen = visible.all[v];
      for (let t = touched.start[seen]; t < touched.start[seen + 1]; t++) marks[touched.all[t]] = 1;
    }
    let count = 0;
    for (let object = 0; object < marks.length; object++) {
      if (!isAll && marks[object] === 0) continue;
      marks[object] = 0;
      if (count < out.length) out[count] = object;
      count++;
    }
    if (count > out.length) throw new RangeError(`drawSet: ${count} objects do not fit into ${out.length}`);
    return count;
  }

  private holds(pocket: number, point: ArrayLike<number>): boolean {
    const { boxes, planes } = this;
    for (let k = 0; k < 3; k++) {
      const at = pocket * BOX + k;
      if (point[k] < boxes[at] - SLACK_METRES || point[k] > boxes[at + 3] + SLACK_METRES) return false;
    }
    for (let i = this.planeStart[pocket]; i < this.planeStart[pocket + 1]; i++) {
      const at = i * PLANE;
      const height = planes[at] * point[0] + planes[at + 1] * point[1] + planes[at + 2] * point[2] - planes[at + 3];
      if (height > SLACK_METRES) return false;
    }
    return true;
  }
}

/** @throws PackError */
export function readSight(file: Fields): Sight {
  const pockets = file.tables('pockets');
  const planes: number[] = [];
  const planeStart = new Uint32Array(pockets.length + 1);
  const boxes = new Float64Array(pockets.length * BOX);
  pockets.forEach((pocket, i) => {
    pocket.list('planes').forEach((plane, k) => {
      if (!Array.isArray(plane) || plane.length !== PLANE || !plane.every((one) => typeof one === 'number'))
        pocket.fail(`planes.${k}`, 'must be four numbers');
      planes.push(...(plane as number[]));
    });
    planeStart[i + 1] = planes.length / PLANE;
    const box = pocket.table('bounds');
    boxes.set(box.numbers('min', 3), i * BOX);
    boxes.set(box.numbers('max', 3), i * BOX + 3);
  });
  const lists = (key: string, below: number): Lists => {
    const all = pockets.map((pocket) => {
      const numbers = pocket.numbers(key);
      // A number too large would lead out of the lists.
      if (!numbers.every((one) => one >= 0 && one < below)) pocket.fail(key, `must be below ${below}`);
      return numbers;
    });
    const start = new Uint32Array(pockets.length + 1);
    all.forEach((one, i) => (start[i + 1] = start[i] + one.length));
    return { start, all: Uint32Array.from(all.flat()) };
  };
  const objects = file.texts('objects');
  return new Sight(
    objects,
    Float64Array.from(planes),
    planeStart,
    boxes,
    lists('visible', pockets.length),
    lists('objects', objects.length),
    Uint8Array.from(pockets, (pocket) => (pocket.flag('reached') ? 1 : 0)),
  );
}
