import FlatQueue from 'flatqueue';
import { addToList } from './list-map';
import { highestGain, type OrderedLevel, type UnlockModel } from './unlock-model';

/** Rules that wait for levels or values, so that each is looked at only when it may begin to hold. */
class WaitingRules {
  /** Levels by what was to be played: rule counters. */
  private readonly after = new Map<string, { level: OrderedLevel; missing: { count: number } }[]>();
  /** By carried value: thresholds from the lowest. */
  private readonly thresholds = new Map<string, { least: number; level: OrderedLevel }[]>();
  private readonly next = new Map<string, number>();

  constructor(model: UnlockModel) {
    for (const level of model.levels) {
      for (const rule of level.rules) {
        if (rule.kind === 'after') {
          const sources = new Set(rule.levels);
          const missing = { count: rule.need === 'all' ? sources.size : 1 };
          for (const id of sources) addToList(this.after, id, { level, missing });
        } else if (rule.kind === 'value') addToList(this.thresholds, rule.value, { least: rule.least, level });
      }
    }
    for (const list of this.thresholds.values()) list.sort((a, b) => a.least - b.least);
  }

  /** Levels that a first play of a level opens. */
  played(id: string): OrderedLevel[] {
    return (this.after.get(id) ?? []).filter(({ missing }) => --missing.count === 0).map(({ level }) => level);
  }

  /** The lowest threshold of a value that has not been reached; undefined when there is none. */
  waitingFor(value: string): number | undefined {
    return this.thresholds.get(value)?.[this.next.get(value) ?? 0]?.least;
  }

  /** Levels that open as a value has come up to an amount. */
  reached(value: string, amount: number): OrderedLevel[] {
    const list = this.thresholds.get(value) ?? [];
    let at = this.next.get(value) ?? 0;
    const opened: OrderedLevel[] = [];
    while (at < list.length && list[at].least <= amount) opened.push(list[at++].level);
    this.next.set(value, at);
    return opened;
  }
}

/** What may open at all, and how high each carried value may come. */
export interface Reach {
  readonly openable: ReadonlySet<string>;
  /** Upper bound by id of the carried value; Infinity where a level gives it each time. */
  readonly highest: ReadonlyMap<string, number>;
}

/**
 * An upper bound of all states that play can come to: a monotone fixpoint over (levels that may open, highest value),
 * where a value that a level gives each time is widened to infinity at once. What it leaves out can never happen; what
 * it holds may still be impossible, because resets are not counted.
 * Source: P. Cousot, R. Cousot, Abstract interpretation, 1977, intervals with widening; the worklist of counters is
 * W. Dowling, J. Gallier, Linear-time algorithms for testing the satisfiability of propositional Horn formulae, 1984.
 * Cost: O(n log n) in levels and rules.
 */
export function unlockReach(model: UnlockModel): Reach {
  const waiting = new WaitingRules(model);
  const highest = new Map(model.values.map(({ id, start }) => [id, start]));
  const openable = new Set<string>();
  const queue: OrderedLevel[] = [];
  const open = (levels: readonly OrderedLevel[]): void => {
    for (const level of levels) {
      if (openable.has(level.id)) continue;
      openable.add(level.id);
      queue.push(level);
    }
  };
  open(model.levels.filter(({ rules }) => rules.some(({ kind }) => kind === 'start' || kind === 'code')));
  for (const { id, start } of model.values) open(waiting.reached(id, start));
  for (let at = 0; at < queue.length; at++) {
    const level = queue[at];
    open(waiting.played(level.id));
    for (const { id, counts } of model.values) {
      const most = highestGain(level.gains.get(id));
      if (most <= 0) continue;
      const amount = counts === 'each time' ? Infinity : (highest.get(id) ?? 0) + most;
      highest.set(id, amount);
      open(waiting.reached(id, amount));
    }
  }
  return { openable, highest };
}

/** One level played, with how often one after another. */
export interface WitnessStep {
  readonly level: string;
  readonly times: number;
}

/** A way through the collection that opens as much as it can, and what it opened. */
export interface Witness {
  readonly steps: readonly WitnessStep[];
  readonly opened: ReadonlySet<string>;
  /** What each carried value came to, by id. */
  readonly amounts: ReadonlyMap<string, number>;
}

export interface GreedyOptions {
  /** Collects the least of what is given once. */
  readonly sparing?: boolean;
}

/** A value that is given each time is collected over and over, at most this often for one threshold. */
const MAX_REPEATS = 1e6;

/**
 * Plays everything that opens, in order of play, each with the most there is to collect; levels that reset something
 * come as late as they can. A real play: what it opens does open.
 */
export function greedyPlay(model: UnlockModel, { sparing = false }: GreedyOptions = {}): Witness {
  const waiting = new WaitingRules(model);
  const place = new Map(model.levels.map(({ id }, i) => [id, i]));
  const amounts = new Map(model.values.map(({ id, start }) => [id, start]));
  const opened = new Set<string>();
  const plain = new FlatQueue<OrderedLevel>();
  const resetting = new FlatQueue<OrderedLevel>();
  const open = (levels: readonly OrderedLevel[]): void => {
    for (const level of levels) {
      if (opened.has(level.id)) continue;
      opened.add(level.id);
      (level.resets.size > 0 ? resetting : plain).push(level, place.get(level.id) ?? 0);
    }
  };
  const steps: WitnessStep[] = [];
  const farms = new Map<string, OrderedLevel>();
  open(model.levels.filter(({ rules }) => rules.some(({ kind }) => kind === 'start' || kind === 'code')));
  for (const { id, start } of model.values) open(waiting.reached(id, start));
  for (;;) {
    const level = plain.pop() ?? resetting.pop();
    if (level) {
      steps.push({ level: level.id, times: 1 });
      open(waiting.played(level.id));
      for (const { id, start, counts } of model.values) {
        const gain = level.gains.get(id);
        const amount = (sparing && counts === 'once' ? gain?.least : gain?.most) ?? 0;
        const before = level.resets.has(id) ? start : (amounts.get(id) ?? start);
        amounts.set(id, before + amount);
        if (counts === 'each time' && amount > 0 && !level.resets.has(id)) farms.set(id, level);
        open(waiting.reached(id, before + amount));
      }
      continue;
    }
    // Nothing new is left: collect again what is given each time.
    const wanted = [...farms].find(([value]) => waiting.waitingFor(value) !== undefined);
    if (!wanted) return { steps, opened, amounts };
    const [value, farm] = wanted;
    const missing = (waiting.waitingFor(value) ?? 0) - (amounts.get(value) ?? 0);
    const times = Math.ceil(missing / (farm.gains.get(value)?.most ?? 1));
    if (!(times >= 1 && times <= MAX_REPEATS)) return { steps, opened, amounts };
    steps.push({ level: farm.id, times });
    for (const { id, start, counts } of model.values) {
      const gain = counts === 'each time' ? (farm.gains.get(id)?.most ?? 0) : 0;
      const amount = farm.resets.has(id) ? start + gain : (amounts.get(id) ?? start) + gain * times;
      amounts.set(id, amount);
      open(waiting.reached(id, amount));
    }
  }
}
