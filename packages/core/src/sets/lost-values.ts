import type { CarriedValue } from '../model/unlock';
import { highestGain, type OrderedLevel, type UnlockModel } from './unlock-model';
import { greedyPlay, type Reach, type Witness, type WitnessStep } from './unlock-reach';

/** A level that opens only by a value which another level resets, and cannot be collected anew. */
export interface LostValue {
  readonly level: OrderedLevel;
  /** Index of the rule. */
  readonly index: number;
  readonly resetter: OrderedLevel;
  readonly value: CarriedValue;
  readonly least: number;
  /** The most that the value can come to after the way. */
  readonly remaining: number;
  /** A way that was played and ends with the reset; undefined when the one that was tried does not lead there. */
  readonly steps: readonly WitnessStep[] | undefined;
}

/** Ways that are played, one for a value and a level that resets it; what needs more is not decided. */
const MOST_REPLAYS = 16;

/**
 * Finds values that a reset takes from a later rule: a play that collects the least of the value until a level resets
 * it, after which what is left to collect stays below the threshold. Only values that a level gives once can be lost.
 * Cost: O(n log n), and one play of the collection for each of the first levels that reset.
 */
export function lostValues(model: UnlockModel, { openable }: Reach, witness: Witness): LostValue[] {
  const found: LostValue[] = [];
  let replays = 0;
  for (const value of model.values) {
    if (value.counts !== 'once') continue;
    const resets = resettersAlong(model, witness, value);
    if (resets.length === 0) continue;
    const played = new Map<string, Replay | undefined>();
    const total = model.levels.reduce((sum, level) => sum + (openable.has(level.id) ? most(level, value) : 0), 0);
    for (const level of model.levels) {
      // Another rule may open it all the same.
      if (level.rules.length !== 1 || !openable.has(level.id)) continue;
      const [rule] = level.rules;
      if (rule.kind !== 'value' || rule.value !== value.id || rule.least <= value.start) continue;
      const last = lastBelow(resets, rule.least - value.start);
      const resetter = last?.level.id === level.id ? undefined : last;
      if (!resetter || value.start + total - resetter.mostBefore >= rule.least) continue;
      if (!played.has(resetter.level.id)) played.set(resetter.level.id, replays++ < MOST_REPLAYS ? playToReset(model, openable, value, resetter.level) : undefined);
      const way = played.get(resetter.level.id);
      // Its own gain is not there while it is closed.
      const remaining = way ? way.remaining - most(level, value) : 0;
      if (way?.opened.has(level.id)) continue;
      found.push({
        level,
        index: 0,
        resetter: resetter.level,
        value,
        least: rule.least,
        remaining,
        steps: way && remaining < rule.least ? way.steps : undefined,
      });
    }
  }
  return found;
}

const most = (level: OrderedLevel, { id }: CarriedValue): number => Math.max(0, highestGain(level.gains.get(id)));

interface Resetter {
  readonly level: OrderedLevel;
  /** Least and most that the levels before it on the way give. */
  readonly leastBefore: number;
  readonly mostBefore: number;
}

function resettersAlong(model: UnlockModel, { steps }: Witness, value: CarriedValue): Resetter[] {
  const resetters: Resetter[] = [];
  let leastBefore = 0;
  let mostBefore = 0;
  const seen = new Set<string>();
  for (const step of steps) {
    const level = model.byId.get(step.level) as OrderedLevel;
    if (seen.has(level.id)) continue;
    seen.add(level.id);
    if (level.resets.has(value.id)) resetters.push({ level, leastBefore, mostBefore });
    leastBefore += Math.max(0, level.gains.get(value.id)?.least ?? 0);
    mostBefore += most(level, value);
  }
  return resetters;
}

/** The last resetter before which less than an amount need be collected. */
function lastBelow(resetters: readonly Resetter[], amount: number): Resetter | undefined {
  let low = 0;
  let high = resetters.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (resetters[middle].leastBefore < amount) low = middle + 1;
    else high = middle;
  }
  return resetters[low - 1];
}

interface Replay {
  readonly steps: readonly WitnessStep[];
  readonly opened: ReadonlySet<string>;
  /** What the value came to, and all that is left to collect of it. */
  readonly remaining: number;
}

/** Plays the way with the least of the value and the most of the others, up to the reset; undefined when it does not come there. */
function playToReset(model: UnlockModel, openable: ReadonlySet<string>, value: CarriedValue, resetter: OrderedLevel): Replay | undefined {
  const { steps, opened, amounts } = greedyPlay(model, { sparing: value.id, until: resetter.id });
  if (steps.at(-1)?.level !== resetter.id) return undefined;
  const played = new Set(steps.map(({ level }) => level));
  const left = model.levels.reduce((sum, one) => sum + (openable.has(one.id) && !played.has(one.id) ? most(one, value) : 0), 0);
  return { steps, opened, remaining: (amounts.get(value.id) ?? value.start) + left };
}
