import { finished, type Box3 } from '@stravel/core';

/** What of a level lies between two heights: the stratum that has most there. */
export interface BoreBand {
  readonly stratum: string;
  readonly low: number;
  readonly high: number;
}

/** A bore through a level, metres; lowest band first, with gaps where nothing is. */
export interface Bore {
  readonly low: number;
  readonly high: number;
  readonly bands: readonly BoreBand[];
}

const STEPS = 96;
const THINGS_A_STEP = 2048;

type Things = readonly { readonly stratum: string; readonly bounds: Box3 }[];

/** What lies at which height, from the bounds of all things; undefined when there are none. */
export function boreOf(things: Things, steps = STEPS): Bore | undefined {
  return finished(boreInSteps(things, steps));
}

/** The same, with a pause after every so many things. */
export function* boreInSteps(things: Things, steps = STEPS): Generator<void, Bore | undefined> {
  let [low, high] = [Infinity, -Infinity];
  for (const [i, { bounds }] of things.entries()) {
    if (i % THINGS_A_STEP === THINGS_A_STEP - 1) yield;
    low = Math.min(low, bounds.min[1]);
    high = Math.max(high, bounds.max[1]);
  }
  if (!Number.isFinite(low) || !Number.isFinite(high)) return undefined;
  const size = high > low ? (high - low) / steps : 1;
  const stepOf = (height: number): number => Math.min(steps - 1, Math.max(0, Math.floor((height - low) / size)));
  // How many begin at a step, less those that ended with the one before.
  const changes = new Map<string, Int32Array>();
  for (const [i, { stratum, bounds }] of things.entries()) {
    if (i % THINGS_A_STEP === THINGS_A_STEP - 1) yield;
    let of = changes.get(stratum);
    if (!of) changes.set(stratum, (of = new Int32Array(steps + 1)));
    of[stepOf(bounds.min[1])]++;
    of[Math.max(stepOf(bounds.min[1]), Math.ceil((bounds.max[1] - low) / size - 1e-9) - 1) + 1]--;
  }
  const most = new Array<string | undefined>(steps).fill(undefined);
  const counts = new Int32Array(steps);
  for (const [stratum, of] of changes) {
    let here = 0;
    for (let step = 0; step < steps; step++) {
      here += of[step];
      if (here > counts[step]) {
        counts[step] = here;
        most[step] = stratum;
      }
    }
  }
  const bands: BoreBand[] = [];
  for (const [step, stratum] of most.entries()) {
    if (stratum === undefined) continue;
    const last = bands.at(-1);
    const [from, to] = [low + step * size, low + (step + 1) * size];
    if (last?.stratum === stratum && step > 0 && most[step - 1] === stratum)
      bands[bands.length - 1] = { ...last, high: to };
    else bands.push({ stratum, low: from, high: to });
  }
  return { low, high, bands };
}
