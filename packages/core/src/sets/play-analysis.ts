import { hasBit, playStates, type MovesLeft, type PlayStates } from './play-states';
import type { UnlockModel } from './unlock-model';

/** One level played, once or several times, with what is collected there at first by id of the carried value. */
export interface PlayedStep {
  readonly level: string;
  readonly times: number;
  readonly collected: Readonly<Record<string, number>>;
}

/** What is true of all plays of a collection. */
export interface PlayAnalysis {
  /** Levels that some play may open, and those that one opens by what is known to be there. */
  readonly openable: ReadonlySet<string>;
  readonly opened: ReadonlySet<string>;
  /** The most that a carried value comes to, by id; values above the highest threshold count as it. */
  readonly highest: ReadonlyMap<string, number>;
  /** Levels that some play opens and another shuts for good, each with a play that does, of what is known to be there. */
  readonly shut: ReadonlyMap<string, readonly PlayedStep[]>;
  /** Whether play can come from below a threshold up to it again and again. */
  comesUpAgain(value: string, least: number): boolean;
}

/** @returns undefined when the search is too large, see `playStates` */
export function analysePlay(model: UnlockModel, left: MovesLeft): PlayAnalysis | undefined {
  const states = playStates(model, left);
  if (!states) return undefined;
  const { numbers, rows, width, count, first, to } = states;
  const { words, values, ids } = numbers;
  const valueAt = (state: number, v: number): number => rows[state * width + 2 * words + v];
  const component = components(states);
  const opens = everOpen(states, component);
  const highest = new Map(
    values.map(({ id }, v): [string, number] => [
      id,
      Array.from({ length: count }, (_, state) => valueAt(state, v)).reduce((a, b) => Math.max(a, b), -Infinity),
    ]),
  );
  return {
    openable: new Set(ids.filter((_, l) => hasBit(opens[component[0]], 0, l))),
    highest,
    ...knownPlay(states, component, opens),
    comesUpAgain: (value, least) => {
      const v = values.findIndex(({ id }) => id === value);
      if (v < 0) return false;
      for (let from = 0; from < count; from++) {
        if (valueAt(from, v) >= least) continue;
        for (let move = first[from]; move < first[from + 1]; move++)
          if (component[from] === component[to[move]] && valueAt(to[move], v) >= least) return true;
      }
      return false;
    },
  };
}

/**
 * Strongly connected components, numbered so that every move leads to the same or a lower number.
 * Source: R. Tarjan, Depth-first search and linear graph algorithms, 1972, without recursion.
 */
function components({ count, first, to }: PlayStates): Int32Array {
  const component = new Int32Array(count).fill(-1);
  const order = new Int32Array(count).fill(-1);
  const low = new Int32Array(count);
  const next = Int32Array.from(first.subarray(0, count));
  const waiting: number[] = [];
  const path = [0];
  let seen = 0;
  let found = 0;
  // All states are reached from the first.
  while (path.length > 0) {
    const at = path[path.length - 1];
    if (order[at] < 0) {
      order[at] = low[at] = seen++;
      waiting.push(at);
    }
    if (next[at] < first[at + 1]) {
      const other = to[next[at]++];
      if (order[other] < 0) path.push(other);
      else if (component[other] < 0) low[at] = Math.min(low[at], order[other]);
      continue;
    }
    path.pop();
    if (path.length > 0) low[path[path.length - 1]] = Math.min(low[path[path.length - 1]], low[at]);
    if (low[at] < order[at]) continue;
    for (let member = -1; member !== at;) {
      member = waiting.pop() as number;
      component[member] = found;
    }
    found++;
  }
  return component;
}

/** For each component the levels that are open in it or that some play from it opens. */
function everOpen(
  { numbers: { words }, rows, width, count, first, to }: PlayStates,
  component: Int32Array,
): Int32Array[] {
  const members: number[][] = [];
  for (let state = 0; state < count; state++) (members[component[state]] ??= []).push(state);
  const opens: Int32Array[] = [];
  members.forEach((states, c) => {
    const bits = new Int32Array(words);
    const add = (from: Int32Array, offset: number): void => {
      for (let w = 0; w < words; w++) bits[w] |= from[offset + w];
    };
    for (const state of states) {
      add(rows, state * width);
      for (let move = first[state]; move < first[state + 1]; move++)
        if (component[to[move]] !== c) add(opens[component[to[move]]], 0);
    }
    opens.push(bits);
  });
  return opens;
}

/** Walks what is known to be there, nearest states first: what opens, and for each level the first state from which nothing opens it. */
function knownPlay(
  states: PlayStates,
  component: Int32Array,
  opens: readonly Int32Array[],
): Pick<PlayAnalysis, 'opened' | 'shut'> {
  const { numbers, rows, width, count, first, to, known } = states;
  const { ids } = numbers;
  const mayOpen = ids.map((_, l) => l).filter((l) => hasBit(opens[component[0]], 0, l));
  const cameBy = new Int32Array(count).fill(-1);
  const from = new Int32Array(count).fill(-1);
  const opened = new Set<string>();
  const shut = new Map<string, PlayedStep[]>();
  const queue = [0];
  from[0] = 0;
  for (const at of queue) {
    for (const l of mayOpen) {
      if (hasBit(rows, at * width, l)) opened.add(ids[l]);
      else if (!shut.has(ids[l]) && !hasBit(opens[component[at]], 0, l))
        shut.set(ids[l], wayTo(states, at, from, cameBy));
    }
    for (let move = first[at]; move < first[at + 1]; move++) {
      if (known[move] === 0 || from[to[move]] >= 0) continue;
      from[to[move]] = at;
      cameBy[to[move]] = move;
      queue.push(to[move]);
    }
  }
  for (const id of shut.keys()) if (!opened.has(id)) shut.delete(id);
  return { opened, shut };
}

function wayTo(
  { numbers, rows, width, level, to }: PlayStates,
  end: number,
  from: Int32Array,
  cameBy: Int32Array,
): PlayedStep[] {
  const { words, values, levels, ids } = numbers;
  const steps: PlayedStep[] = [];
  for (let at = end; at !== 0; at = from[at]) {
    const l = level[cameBy[at]];
    const before = from[at] * width;
    const after = to[cameBy[at]] * width;
    const isFirst = !hasBit(rows, before + words, l);
    const collected = values.flatMap(({ id, start, eachTime }, v): [string, number][] => {
      const { least, most, resets } = levels[l].effects[v];
      if ((!isFirst && !eachTime) || (least === 0 && most === 0)) return [];
      const base = resets ? start : rows[before + 2 * words + v];
      return [[id, Math.max(least, rows[after + 2 * words + v] - base)]];
    });
    steps.push({ level: ids[l], times: 1, collected: Object.fromEntries(collected) });
  }
  return steps.reverse();
}
