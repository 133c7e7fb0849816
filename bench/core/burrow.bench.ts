import { carveBurrow, createRunContext, randomStream, type BurrowOptions } from '@stravel/core';
import { atMost, inTurns, timingText, type Row } from '../measure';

const ROUNDS = 9;
const WARM_UP_ROUNDS = 6;

const options = (side: number, seed = 'bench'): BurrowOptions => ({
  columns: side,
  rows: side,
  openShare: 0.45,
  birthChance: 0.05,
  mostWalkers: 8,
  border: 1,
  stepLimit: 1e9,
  seed,
});

/** The same walk as a person would first write it: rows of yes and no, walkers as objects, a running count. */
function plainWalk({ columns, rows, openShare, birthChance, mostWalkers, border, seed }: BurrowOptions): {
  open: number;
  steps: number;
} {
  const random = randomStream(`burrow ${seed}`);
  const births = randomStream(`burrow births ${seed}`);
  const isOpen: boolean[][] = [];
  for (let row = 0; row < rows; row++) isOpen.push(new Array<boolean>(columns).fill(false));
  const walkers = [{ column: columns >> 1, row: rows >> 1 }];
  const ways = [
    { column: 1, row: 0 },
    { column: -1, row: 0 },
    { column: 0, row: 1 },
    { column: 0, row: -1 },
  ];
  isOpen[rows >> 1][columns >> 1] = true;
  const wanted = Math.round((columns - 2 * border) * (rows - 2 * border) * openShare);
  let open = 1;
  let steps = 0;
  for (let next = 0; open < wanted;) {
    let word = random.word();
    const walker = walkers[next];
    for (let turn = 0; turn < 16 && open < wanted; turn++) {
      steps++;
      const way = ways[word & 3];
      word >>>= 2;
      const to = { column: walker.column + way.column, row: walker.row + way.row };
      if (to.column < border || to.row < border || to.column >= columns - border || to.row >= rows - border) continue;
      walker.column = to.column;
      walker.row = to.row;
      if (isOpen[to.row][to.column]) continue;
      isOpen[to.row][to.column] = true;
      open++;
    }
    if (walkers.length < mostWalkers && births.next() < birthChance) walkers.push({ ...walker });
    next = (next + 1) % walkers.length;
  }
  return { open, steps };
}

/** The burrow of a million squares against the plain walk, and against itself on a hundredth of them. */
export async function burrowBench(): Promise<Row[]> {
  const context = createRunContext();
  let steps = 0;
  let plain = { open: 0, steps: 0 };
  let open = 0;
  // The engine takes some rounds until it has the loops of both compiled for good.
  for (let round = 0; round < WARM_UP_ROUNDS; round++) {
    carveBurrow(options(1000), context);
    plainWalk(options(1000));
  }
  const [own, other] = await inTurns(
    ROUNDS,
    () => ({ steps, open } = carveBurrow(options(1000), context)),
    () => (plain = plainWalk(options(1000))),
    false,
  );
  // Many small ones, so that both are timed over about as many steps.
  let smallSteps = 0;
  const small = (): void => {
    smallSteps = 0;
    for (let i = 0; smallSteps < steps / 4; i++) smallSteps += carveBurrow(options(100, `bench ${i}`), context).steps;
  };
  const [large, little] = await inTurns(ROUNDS, () => carveBurrow(options(1000), context), small, false);
  const perStep = [(large.medianMs / steps) * 1e6, (little.medianMs / smallSteps) * 1e6];
  const times = other.medianMs / own.medianMs;
  return [
    { name: 'same walk: steps, open squares', value: `${steps}, ${open} and ${plain.steps}, ${plain.open}` },
    { name: '1000 by 1000 to 45 %', value: timingText(own) },
    { name: 'plain walk', value: timingText(other) },
    { name: 'times as fast as the plain walk', value: times.toFixed(2), goal: 'at least 4', isMet: times >= 4 },
    { name: 'per step at 1000 and at 100, ns', value: perStep.map((ns) => ns.toFixed(2)).join(', ') },
    atMost('per step at 1000 / at 100', perStep[0] / perStep[1], 1.5),
  ];
}
