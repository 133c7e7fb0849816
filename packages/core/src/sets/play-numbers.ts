import type { UnlockModel } from './unlock-model';

/** A rule with levels and values by their places. A level that no play can open is place -1. */
export type NumberedRule =
  | { readonly kind: 'open' }
  | { readonly kind: 'after'; readonly levels: readonly number[]; readonly need: 'all' | 'any' }
  | { readonly kind: 'value'; readonly value: number; readonly least: number };

/** What playing a level does to one value. */
export interface NumberedEffect {
  readonly least: number;
  readonly most: number;
  /** The most that may be there where it is not known, else `most`. */
  readonly bound: number;
  readonly resets: boolean;
}

export interface NumberedValue {
  readonly id: string;
  readonly start: number;
  readonly eachTime: boolean;
  /** Highest threshold; what lies above it counts as it. Infinity where a level takes some away. */
  readonly clamp: number;
}

/** A model by numbers, for a search over states. */
export interface PlayNumbers {
  readonly ids: readonly string[];
  /** Words of 32 bits that hold one bit a level. */
  readonly words: number;
  readonly levels: readonly { readonly rules: readonly NumberedRule[]; readonly effects: readonly NumberedEffect[] }[];
  /** Only values that a rule asks for. */
  readonly values: readonly NumberedValue[];
}

/** Largest amount that a state holds. */
const MAX_AMOUNT = 1e9;

/** A model by numbers; undefined where an amount is not whole or too large. */
export function numbersOf(model: UnlockModel): PlayNumbers | undefined {
  const place = new Map(model.levels.map(({ id }, i) => [id, i]));
  const thresholds = new Map<string, number>();
  for (const rule of model.levels.flatMap(({ rules }) => rules)) {
    if (rule.kind === 'value')
      thresholds.set(rule.value, Math.max(thresholds.get(rule.value) ?? -Infinity, rule.least));
  }
  const asked = model.values.filter(({ id }) => thresholds.has(id));
  const amounts: number[] = [...thresholds.values()];
  const effectOf = (level: UnlockModel['levels'][number], id: string): NumberedEffect => {
    const { least = 0, most = 0, bound = most } = level.gains.get(id) ?? {};
    amounts.push(least, most, ...(Number.isFinite(bound) ? [bound] : []));
    return { least, most, bound, resets: level.resets.has(id) };
  };
  const values = asked.map(({ id, start, counts }): NumberedValue => {
    const takesAway = model.levels.some(({ gains }) => (gains.get(id)?.least ?? 0) < 0);
    const clamp = takesAway ? Infinity : (thresholds.get(id) ?? 0);
    amounts.push(start);
    return { id, start: Math.min(start, clamp), eachTime: counts === 'each time', clamp };
  });
  const levels = model.levels.map((level) => ({
    rules: level.rules.flatMap((rule): NumberedRule[] => {
      if (rule.kind === 'start' || rule.kind === 'code') return [{ kind: 'open' }];
      if (rule.kind === 'after') {
        if (rule.levels.length === 0) return [];
        const known = rule.levels.flatMap((id) => place.get(id) ?? []);
        if (rule.need === 'all' && known.length < rule.levels.length) return [];
        return [{ kind: 'after', levels: known, need: rule.need }];
      }
      const value = asked.findIndex(({ id }) => id === rule.value);
      return value < 0 ? [] : [{ kind: 'value', value, least: rule.least }];
    }),
    effects: asked.map(({ id }) => effectOf(level, id)),
  }));
  // What may be any number and is not held by a threshold can't be counted through.
  const isUncounted = values.some(
    ({ clamp }, v) => clamp === Infinity && levels.some(({ effects }) => effects[v].bound === Infinity),
  );
  if (isUncounted || amounts.some((amount) => !Number.isInteger(amount) || Math.abs(amount) > MAX_AMOUNT))
    return undefined;
  return {
    ids: model.levels.map(({ id }) => id),
    words: Math.max(1, Math.ceil(model.levels.length / 32)),
    levels,
    values,
  };
}

/** An amount as a state holds it. */
export function clampAt({ clamp }: NumberedValue, amount: number): number {
  return amount > clamp ? clamp : amount;
}
