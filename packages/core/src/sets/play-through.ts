import { CoreError } from '../errors';
import type { UnlockRule } from '../model/unlock';
import type { UnlockModel } from './unlock-model';

/** Where a player stands in the collection. */
export interface PlayState {
  readonly open: ReadonlySet<string>;
  readonly played: ReadonlySet<string>;
  /** By id of the carried value. */
  readonly values: ReadonlyMap<string, number>;
}

/** One level played, with what was collected there by id of the carried value. */
export interface PlayStep {
  readonly level: string;
  readonly collected: Readonly<Record<string, number>>;
}

/** Before anything was played: what unlocks from the start is open. */
export function startOfPlay(model: UnlockModel): PlayState {
  const values = new Map(model.values.map(({ id, start }) => [id, start]));
  return withOpened(model, { open: new Set(), played: new Set(), values });
}

/** Where a player begins who did not begin at the start. */
export interface PlayBeginning {
  readonly level: string;
  /** By id of the carried value; those that are not named have their start. */
  readonly values: Readonly<Record<string, number>>;
}

/** In the middle: the level is open whatever its rules, the values are as given, and what unlocks by them is open too. */
export function playFrom(model: UnlockModel, { level, values: given }: PlayBeginning): PlayState {
  const values = new Map(model.values.map(({ id, start }) => [id, Object.hasOwn(given, id) ? given[id] : start]));
  return withOpened(model, { open: new Set(model.byId.has(level) ? [level] : []), played: new Set(), values });
}

/** Opens a level by its code. @throws CoreError 'PLAY_STEP' when it has none of that rule */
export function typeCode(model: UnlockModel, state: PlayState, level: string): PlayState {
  if (!model.byId.get(level)?.rules.some(({ kind }) => kind === 'code'))
    throw new CoreError('PLAY_STEP', `play: ${level} does not unlock by a code`, { level });
  return { ...state, open: new Set(state.open).add(level) };
}

/**
 * Plays a level: its resets, then what was collected, then what unlocks by that.
 * @throws CoreError 'PLAY_STEP' when the level is not open, or more or less was collected than it gives
 */
export function playLevel(model: UnlockModel, state: PlayState, { level: id, collected }: PlayStep): PlayState {
  const level = model.byId.get(id);
  if (!level) throw new CoreError('PLAY_STEP', `play: there is no play level ${id}`, { level: id });
  if (!state.open.has(id)) throw new CoreError('PLAY_STEP', `play: ${level.name} is not unlocked`, { level: id });
  const values = new Map(state.values);
  for (const { id: value, start, counts, name } of model.values) {
    const gain = level.gains.get(value);
    const amount = collected[value] ?? 0;
    const gives = gain && (counts === 'each time' || !state.played.has(id)) ? gain : { least: 0, most: 0 };
    if (amount < gives.least || amount > gives.most) {
      throw new CoreError(
        'PLAY_STEP',
        `play: ${level.name} gives ${gives.least} to ${gives.most} ${name}, not ${amount}`,
        { level: id, value, amount },
      );
    }
    const before = level.resets.has(value) ? start : (values.get(value) ?? start);
    values.set(value, before + amount);
  }
  return withOpened(model, { open: state.open, played: new Set(state.played).add(id), values });
}

/** Whether a rule holds as things stand. A code is typed, it does not hold by itself. */
export function ruleHolds(rule: UnlockRule, state: PlayState): boolean {
  switch (rule.kind) {
    case 'start':
      return true;
    case 'code':
      return false;
    case 'after':
      if (rule.levels.length === 0) return false;
      return rule.need === 'all'
        ? rule.levels.every((id) => state.played.has(id))
        : rule.levels.some((id) => state.played.has(id));
    case 'value':
      return (state.values.get(rule.value) ?? -Infinity) >= rule.least;
  }
}

function withOpened(model: UnlockModel, state: PlayState): PlayState {
  const opened = model.levels.filter(
    ({ id, rules }) => !state.open.has(id) && rules.some((rule) => ruleHolds(rule, state)),
  );
  return opened.length === 0 ? state : { ...state, open: new Set([...state.open, ...opened.map(({ id }) => id)]) };
}
