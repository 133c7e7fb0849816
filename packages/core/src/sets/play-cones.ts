import { analysePlay, type PlayAnalysis, type PlayedStep } from './play-analysis';
import { allMoves } from './play-states';
import { highestGain, type OrderedLevel, type UnlockModel } from './unlock-model';
import { greedyPlay, unlockReach, type Reach, type Witness } from './unlock-reach';

/** What is true of all plays, for each level that has a question; undefined where the search was too large. */
export type PlayAnswers = ReadonlyMap<string, PlayAnalysis | undefined>;

/** Whether no level of a model sets a value back or takes some away: then who collects more has everything open that others have. */
function onlyGrows({ levels, values }: UnlockModel): boolean {
  return levels.every(({ gains, resets }) =>
    values.every(({ id }) => !resets.has(id) && (gains.get(id)?.least ?? 0) >= 0),
  );
}

/** Without search: what the most opens may be open, what the least opens always will be. Cost: as two plays. */
function growingPlay(model: UnlockModel): PlayAnalysis {
  const { openable, highest } = unlockReach(model);
  const { opened } = greedyPlay(model);
  const safe = safeLevels(model, { openable });
  const once = new Set(model.values.flatMap(({ id, counts }) => (counts === 'once' ? [id] : [])));
  const way = greedyPlay(model, { sparing: true }).steps.map(({ level, times }): PlayedStep => {
    const gains = [...(model.byId.get(level)?.gains ?? [])].filter(([value]) =>
      model.values.some(({ id }) => id === value),
    );
    return {
      level,
      times,
      collected: Object.fromEntries(gains.map(([value, { least, most }]) => [value, once.has(value) ? least : most])),
    };
  });
  const shut = model.levels.filter(({ id }) => opened.has(id) && !safe.has(id));
  return { openable, opened, highest, shut: new Map(shut.map(({ id }) => [id, way])), comesUpAgain: () => false };
}

/**
 * Asks a search over all states about the levels of which bound and way leave something open: whether they open at all, whether play can
 * shut them for good, whether a threshold is reached, or again and again. Each is searched with only the levels and values that bear on it,
 * those with the fewest first.
 */
export function askAllStates(model: UnlockModel, reach: Reach, witness: Witness): PlayAnswers {
  const safe = safeLevels(model, reach);
  const answers = new Map<string, PlayAnalysis | undefined>();
  const left = allMoves();
  const byCone = new Map<string, PlayAnalysis | undefined>();
  const cones = model.levels
    .filter((level) => reach.openable.has(level.id) && hasQuestion(model, level, safe, reach, witness))
    .map(({ id }) => ({ id, cone: coneOf(model, id) }))
    .sort((a, b) => a.cone.levels.length - b.cone.levels.length);
  for (const { id, cone } of cones) {
    const key = cone.levels.map((level) => level.id).join(' ');
    if (!byCone.has(key)) byCone.set(key, onlyGrows(cone) ? growingPlay(cone) : analysePlay(cone, left));
    answers.set(id, byCone.get(key));
  }
  return answers;
}

function hasQuestion(
  model: UnlockModel,
  level: OrderedLevel,
  safe: ReadonlySet<string>,
  reach: Reach,
  witness: Witness,
): boolean {
  if (!safe.has(level.id) || !witness.opened.has(level.id)) return true;
  return level.rules.some((rule) => {
    if (rule.kind !== 'value' || (reach.highest.get(rule.value) ?? -Infinity) < rule.least) return false;
    const resets = model.levels.some(({ id, resets: own }) => own.has(rule.value) && reach.openable.has(id));
    return resets || (witness.amounts.get(rule.value) ?? -Infinity) < rule.least;
  });
}

/**
 * Levels that no play can shut: a fixpoint of rules that hold at last whatever was played before. What is given each time can be collected
 * by a safe level from any state; what is given once counts with its least.
 */
function safeLevels({ levels, byId, values }: UnlockModel, { openable }: Pick<Reach, 'openable'>): ReadonlySet<string> {
  const safe = new Set<string>();
  const isSure = (rule: OrderedLevel['rules'][number]): boolean => {
    if (rule.kind === 'start' || rule.kind === 'code') return true;
    if (rule.kind === 'after') {
      const known = rule.levels.filter((id) => byId.has(id) && safe.has(id));
      return rule.need === 'all' ? rule.levels.length > 0 && known.length === rule.levels.length : known.length > 0;
    }
    const value = values.find(({ id }) => id === rule.value);
    if (!value) return false;
    if (value.start >= rule.least) return true;
    const gives = (level: OrderedLevel): number => level.gains.get(value.id)?.least ?? 0;
    if (value.counts === 'each time')
      return levels.some(
        (level) => safe.has(level.id) && !level.resets.has(value.id) && (level.gains.get(value.id)?.most ?? 0) > 0,
      );
    if (levels.some(({ id, resets }) => resets.has(value.id) && openable.has(id))) return false;
    return (
      levels.reduce(
        (sum, level) =>
          sum + (safe.has(level.id) ? gives(level) : openable.has(level.id) ? Math.min(0, gives(level)) : 0),
        value.start,
      ) >= rule.least
    );
  };
  for (let grew = true; grew;) {
    grew = false;
    for (const { id, rules } of levels) {
      if (safe.has(id) || !rules.some(isSure)) continue;
      safe.add(id);
      grew = true;
    }
  }
  return safe;
}

/** The part of a model that bears on a level: what its rules name, who gives or sets back their values, and so on. */
function coneOf(model: UnlockModel, id: string): UnlockModel {
  const ids = new Set<string>();
  const values = new Set<string>();
  const queue = [id];
  for (const at of queue) {
    const level = model.byId.get(at);
    if (!level || ids.has(at)) continue;
    ids.add(at);
    for (const rule of level.rules) {
      if (rule.kind === 'after') queue.push(...rule.levels);
      if (rule.kind !== 'value' || values.has(rule.value)) continue;
      values.add(rule.value);
      queue.push(
        ...model.levels
          .filter(
            ({ gains, resets }) =>
              resets.has(rule.value) ||
              highestGain(gains.get(rule.value)) !== 0 ||
              (gains.get(rule.value)?.least ?? 0) !== 0,
          )
          .map((other) => other.id),
      );
    }
  }
  const levels = model.levels.filter((level) => ids.has(level.id));
  return {
    levels,
    byId: new Map(levels.map((level) => [level.id, level])),
    values: model.values.filter((value) => values.has(value.id)),
    hasRules: model.hasRules,
  };
}
