import { BoxTree, randomStream } from '@stravel/core';
import Flatbush from 'flatbush';
import { atMost, inTurns, timingText, type Row } from '../measure';

const BOXES = 100000;
const QUERIES = 2000;
const ROUNDS = 9;
/** Side of the plan that the boxes stand on, metres. */
const SIDE = 2000;

/** Box queries on the same boxes and the same windows, against flatbush, which knows two axes where ours knows three. */
export async function boxesBench(): Promise<Row[]> {
  const random = randomStream('boxes');
  const boxes = new Float64Array(BOXES * 6);
  const theirs = new Flatbush(BOXES);
  for (let i = 0; i < BOXES; i++) {
    const [x, z] = [random.between(0, SIDE), random.between(0, SIDE)];
    const [width, depth] = [random.between(0.2, 8), random.between(0.2, 8)];
    boxes.set([x, 0, z, x + width, 3, z + depth], i * 6);
    theirs.add(x, z, x + width, z + depth);
  }
  const [built, builtTheirs] = await inTurns(
    3,
    () => new BoxTree(boxes),
    () => {
      const tree = new Flatbush(BOXES);
      for (let i = 0; i < BOXES; i++) tree.add(boxes[i * 6], boxes[i * 6 + 2], boxes[i * 6 + 3], boxes[i * 6 + 5]);
      tree.finish();
    },
  );
  theirs.finish();
  const ours = new BoxTree(boxes);
  const rows: Row[] = [
    { name: `index of ${BOXES} boxes, built`, value: timingText(built) },
    { name: 'flatbush, built', value: timingText(builtTheirs) },
  ];
  for (const [what, metres] of [
    ['small windows, 10 m', 10],
    ['large windows, 200 m', 200],
  ] as const) {
    const windows = Array.from(
      { length: metres > 100 ? QUERIES / 20 : QUERIES },
      () => [random.between(0, SIDE - metres), random.between(0, SIDE - metres)] as const,
    );
    let [found, foundTheirs] = [0, 0];
    const [mine, other] = await inTurns(
      ROUNDS,
      () => {
        found = 0;
        for (const [x, z] of windows) found += ours.inBox([x, -1, z], [x + metres, 10, z + metres]).length;
      },
      () => {
        foundTheirs = 0;
        for (const [x, z] of windows) foundTheirs += theirs.search(x, z, x + metres, z + metres).length;
      },
      false,
    );
    if (found !== foundTheirs) throw new Error(`the two do not find the same: ${found} and ${foundTheirs}`);
    rows.push(
      { name: `${windows.length} ${what}, ${found} found`, value: timingText(mine) },
      { name: 'flatbush, the same', value: timingText(other) },
      atMost(`${what}: ours / flatbush`, mine.medianMs / other.medianMs, 1.5),
    );
  }
  return rows;
}
