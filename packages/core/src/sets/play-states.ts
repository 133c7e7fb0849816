import { clampAt, numbersOf, type PlayNumbers } from './play-numbers';
import type { UnlockModel } from './unlock-model';

/** Most states of play that one search visits. */
export const MAX_STATES = 100000;
/** Most moves between them, of all searches of one check. */
const MAX_MOVES = 3000000;

/** Moves that the searches of one check still may visit. */
export interface MovesLeft {
  count: number;
}

export function allMoves(): MovesLeft {
  return { count: MAX_MOVES };
}

/** All states that play can come to, and the moves between them. State 0 is the beginning. */
export interface PlayStates {
  readonly numbers: PlayNumbers;
  /** States one after another: words of open levels, words of played levels, values. */
  readonly rows: Int32Array;
  /** Entries of one state. */
  readonly width: number;
  readonly count: number;
  /** Moves out of state i: from `first[i]` up to `first[i + 1]`. */
  readonly first: Int32Array;
  readonly to: Int32Array;
  /** Level that is played. */
  readonly level: Int32Array;
  /** 1 where what is collected is known to be there. */
  readonly known: Uint8Array;
}

/**
 * Visits every state that play can come to: levels open, levels played, carried values, with whole amounts between the least and the
 * most. A value that has come to its highest threshold counts as that threshold, as nothing asks for more. Levels with a code count as open.
 * @param left counted down
 * @returns undefined when there are more than 100,000 states or more moves than are left, or amounts that are not whole
 * Cost: O(moves · (levels + values)).
 */
export function playStates(model: UnlockModel, left: MovesLeft): PlayStates | undefined {
  const numbers = numbersOf(model);
  if (!numbers || left.count <= 0) return undefined;
  const { words, values, levels } = numbers;
  const width = 2 * words + values.length;
  const index = new Map<string, number>();
  const states: Int32Array[] = [];
  const visit = (row: Int32Array): number => {
    openByRules(numbers, row);
    const key = String.fromCharCode(...new Uint16Array(row.buffer));
    const known = index.get(key);
    if (known !== undefined) return known;
    index.set(key, states.length);
    states.push(row);
    return states.length - 1;
  };
  const begin = new Int32Array(width);
  values.forEach(({ start }, v) => (begin[2 * words + v] = start));
  visit(begin);
  const changesAgain = levels.map(({ effects }) =>
    effects.some(({ resets, least, bound }, v) => resets || (values[v].eachTime && (least !== 0 || bound !== 0))),
  );
  const first = [0];
  const to: number[] = [];
  const playedLevel: number[] = [];
  const known: number[] = [];
  for (let at = 0; at < states.length; at++) {
    const from = states[at];
    for (let l = 0; l < levels.length; l++) {
      if (!hasBit(from, 0, l)) continue;
      const isFirst = !hasBit(from, words, l);
      if (!isFirst && !changesAgain[l]) continue;
      const base = from.slice();
      setBit(base, words, l);
      for (const { row, isKnown } of outcomes(numbers, l, isFirst, base)) {
        left.count--;
        const next = visit(row);
        if (next === at) continue;
        to.push(next);
        playedLevel.push(l);
        known.push(isKnown ? 1 : 0);
        if (states.length > MAX_STATES || left.count <= 0) return undefined;
      }
    }
    first.push(to.length);
  }
  const rows = new Int32Array(width * states.length);
  states.forEach((row, i) => rows.set(row, i * width));
  return {
    numbers,
    rows,
    width,
    count: states.length,
    first: Int32Array.from(first),
    to: Int32Array.from(to),
    level: Int32Array.from(playedLevel),
    known: Uint8Array.from(known),
  };
}

/** Every way in which the values of a state can come out of playing a level. */
function* outcomes(
  numbers: PlayNumbers,
  l: number,
  isFirst: boolean,
  base: Int32Array,
  v = 0,
  isKnown = true,
): Generator<{ row: Int32Array; isKnown: boolean }> {
  const { words, values, levels } = numbers;
  if (v === values.length) {
    yield { row: base.slice(), isKnown };
    return;
  }
  const value = values[v];
  const { least, most, bound, resets } = levels[l].effects[v];
  const at = 2 * words + v;
  const before = base[at];
  const reset = resets ? value.start : before;
  const gives = isFirst || value.eachTime;
  // Up to the threshold that is the highest one, more makes no difference.
  const highest = gives ? Math.max(least, Math.min(bound, value.clamp - reset)) : 0;
  for (let amount = gives ? least : 0; amount <= highest; amount++) {
    base[at] = clampAt(value, reset + amount);
    yield* outcomes(numbers, l, isFirst, base, v + 1, isKnown && (!gives || amount <= most));
  }
  base[at] = before;
}

function openByRules({ levels, words }: PlayNumbers, row: Int32Array): void {
  levels.forEach(({ rules }, l) => {
    if (hasBit(row, 0, l)) return;
    const opens = rules.some((rule) => {
      if (rule.kind === 'open') return true;
      if (rule.kind === 'value') return row[2 * words + rule.value] >= rule.least;
      return rule.need === 'all'
        ? rule.levels.every((other) => hasBit(row, words, other))
        : rule.levels.some((other) => hasBit(row, words, other));
    });
    if (opens) setBit(row, 0, l);
  });
}

export function hasBit(row: Int32Array, offset: number, bit: number): boolean {
  return (row[offset + (bit >> 5)] & (1 << (bit & 31))) !== 0;
}

function setBit(row: Int32Array, offset: number, bit: number): void {
  row[offset + (bit >> 5)] |= 1 << (bit & 31);
}
