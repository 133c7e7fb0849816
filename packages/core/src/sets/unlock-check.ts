import { finding, type Finding, type Severity } from '../findings';
import type { UnlockRule } from '../model/unlock';
import { ruleText, type OrderedLevel, type UnlockModel } from './unlock-model';
import { lostValues } from './lost-values';
import { greedyPlay, unlockReach, type Reach, type Witness, type WitnessStep } from './unlock-reach';

/** What a check of the order of play knows. */
export interface UnlockCheck {
  readonly reach: Reach;
  readonly witness: Witness;
  readonly findings: readonly Finding[];
}

/** Steps of a way that a message shows before it counts the rest. */
const SHOWN_STEPS = 8;
/** Steps of a way that a finding keeps, the last ones. */
const MOST_PATH_STEPS = 100;

/**
 * Checks the rules by which levels open. "Never" is said only of what the upper bound of all states leaves out; every
 * way that a finding shows was played step by step; what neither settles is said to be not decided.
 */
export function checkUnlocking(model: UnlockModel): UnlockCheck {
  const reach = unlockReach(model);
  const witness = greedyPlay(model);
  if (!model.hasRules) return { reach, witness, findings: [] };
  const context: Context = { model, reach, witness, place: new Map(model.levels.map(({ id }, i) => [id, i])) };
  return { reach, witness, findings: [...missingStart(context), ...model.levels.flatMap((level) => levelFindings(context, level)), ...sameMoment(context), ...lost(context)] };
}

interface Context {
  readonly model: UnlockModel;
  readonly reach: Reach;
  readonly witness: Witness;
  readonly place: ReadonlyMap<string, number>;
}

function nameIn({ model }: Context): (kind: 'level' | 'value', id: string) => string {
  return (kind, id) => (kind === 'level' ? model.byId.get(id)?.name : model.values.find((value) => value.id === id)?.name) ?? id;
}

/** A way in words: its last steps, after how many others. */
export function wayText(model: UnlockModel, steps: readonly WitnessStep[]): string {
  const shown = steps.slice(-SHOWN_STEPS).map(({ level, times }) => `${model.byId.get(level)?.name ?? level}${times > 1 ? ` × ${times}` : ''}`);
  return `${steps.length > SHOWN_STEPS ? `… (${steps.length - SHOWN_STEPS} before) → ` : ''}${shown.join(' → ')}`;
}

function found(code: string, severity: Severity, level: OrderedLevel, detail: string, message: string, why: string, path: readonly WitnessStep[] = []): Finding {
  return finding({
    code,
    desk: 'sets',
    severity,
    subject: detail === '' ? level.id : `${level.id}.${detail}`,
    place: { level: level.id, path: path.slice(-MOST_PATH_STEPS).map((step) => step.level) },
    message,
    why,
  });
}

function missingStart({ model }: Context): Finding[] {
  if (model.levels.some(({ rules }) => rules.some(({ kind }) => kind === 'start'))) return [];
  return [
    finding({
      code: 'START_MISSING',
      desk: 'sets',
      severity: 'error',
      subject: 'collection',
      place: model.levels.length > 0 ? { level: model.levels[0].id } : {},
      message: 'No level is open from the start',
      why: 'A player who begins has nothing to play. Give one level the rule "from the start".',
    }),
  ];
}

function levelFindings(context: Context, level: OrderedLevel): Finding[] {
  const { model, reach, witness } = context;
  const name = nameIn(context);
  const findings: Finding[] = [];
  const isOpenable = reach.openable.has(level.id);
  if (!isOpenable) {
    const reasons = level.rules.map((rule) => `${ruleText(rule, name)}: ${whyNever(context, rule)}`);
    findings.push(
      found(
        'LEVEL_NEVER_OPENS',
        'error',
        level,
        '',
        `${level.name} can never open`,
        `${reasons.length === 0 ? 'It has no rule by which it opens.' : `${reasons.join('; ')}.`} Played whole, with all there is to collect, it is still closed: ${wayText(model, witness.steps)}`,
        witness.steps,
      ),
    );
  } else if (!witness.opened.has(level.id)) {
    findings.push(
      found(
        'LEVEL_NOT_DECIDED',
        'warning',
        level,
        '',
        `Whether ${level.name} can open is not decided`,
        `It is not ruled out, but this way does not open it: ${wayText(model, witness.steps)}`,
        witness.steps,
      ),
    );
  }
  level.rules.forEach((rule, i) => {
    if (rule.kind === 'value') {
      const highest = reach.highest.get(rule.value) ?? -Infinity;
      if (highest < rule.least) {
        const message = `${level.name} opens at ${rule.least} ${name('value', rule.value)}, but at most ${highest} can be collected by then`;
        findings.push(
          found(
            'THRESHOLD_TOO_HIGH',
            isOpenable ? 'warning' : 'error',
            level,
            String(i),
            message,
            `With the most from every level: ${wayText(model, witness.steps)}`,
            witness.steps,
          ),
        );
      } else findings.push(...firesAgain(context, level, rule, i));
    }
    if (rule.kind === 'after' && isOpenable && sendsBack(context, level, rule)) {
      const steps = rule.levels.map((id) => ({ level: id, times: 1 }));
      const message = `${level.name} opens only ${ruleText(rule, name)}, which comes later in the order of play`;
      findings.push(found('SENDS_BACK', 'warning', level, String(i), message, `The player is sent back: ${wayText(model, [...steps, { level: level.id, times: 1 }])}`, steps));
    }
  });
  return findings;
}

function whyNever(context: Context, rule: UnlockRule): string {
  const name = nameIn(context);
  if (rule.kind === 'value') return `at most ${context.reach.highest.get(rule.value) ?? 0} can be collected`;
  if (rule.kind !== 'after') return 'it cannot hold';
  const closed = rule.levels.filter((id) => !context.reach.openable.has(id));
  return `${closed.map((id) => name('level', id)).join(', ')} can never open`;
}

/** Whether a level has no other way to open than after what comes later. */
function sendsBack({ place, model }: Context, level: OrderedLevel, rule: Extract<UnlockRule, { kind: 'after' }>): boolean {
  if (level.rules.length > 1) return false;
  const own = place.get(level.id) ?? 0;
  const isLater = (id: string): boolean => model.byId.has(id) && (place.get(id) ?? 0) > own;
  return rule.need === 'all' ? rule.levels.some(isLater) : rule.levels.every(isLater);
}

/** A value that is given each time and reset by some level comes up to a threshold again and again. */
function firesAgain(context: Context, level: OrderedLevel, rule: Extract<UnlockRule, { kind: 'value' }>, index: number): Finding[] {
  const { model, witness } = context;
  const value = model.values.find(({ id }) => id === rule.value);
  if (!value || value.counts !== 'each time' || value.start >= rule.least || !witness.opened.has(level.id)) return [];
  const resetter = model.levels.find(({ id, resets }) => resets.has(rule.value) && witness.opened.has(id));
  const source = model.levels.find(({ id, gains, resets }) => (gains.get(rule.value)?.most ?? 0) > 0 && !resets.has(rule.value) && witness.opened.has(id));
  if (!resetter || !source) return [];
  // The resetting level may itself give some of it.
  const missing = rule.least - value.start - (resetter.gains.get(rule.value)?.most ?? 0);
  const times = Math.max(1, Math.ceil(missing / (source.gains.get(rule.value)?.most ?? 1)));
  const loop: WitnessStep[] = [
    { level: resetter.id, times: 1 },
    { level: source.id, times },
  ];
  const message = `The rule of ${level.name} at ${rule.least} ${value.name} fires again and again`;
  return [
    found(
      'RULE_FIRES_AGAIN',
      'warning',
      level,
      `${index}.again`,
      message,
      `${resetter.name} resets ${value.name}, and it can be collected anew: ${wayText(model, loop)}, over and over.`,
      loop,
    ),
  ];
}

function sameMoment(context: Context): Finding[] {
  const groups = new Map<string, { rule: UnlockRule; levels: OrderedLevel[] }>();
  for (const level of context.model.levels) {
    if (!context.reach.openable.has(level.id)) continue;
    for (const rule of level.rules) {
      if (rule.kind === 'code') continue;
      const key = JSON.stringify(rule.kind === 'after' ? [...new Set(rule.levels)].sort().concat(rule.levels.length > 1 ? rule.need : '') : rule);
      const group = groups.get(key);
      if (group) group.levels.push(level);
      else groups.set(key, { rule, levels: [level] });
    }
  }
  return [...groups.values()]
    .filter(({ levels }) => levels.length > 1)
    .map(({ rule, levels }) => {
      const names = levels.map(({ name }) => name);
      const text = ruleText(rule, nameIn(context));
      const message = `${names.slice(0, 4).join(', ')}${names.length > 4 ? ` and ${names.length - 4} more` : ''} open at the same moment, ${text}`;
      const path = rule.kind === 'after' ? rule.levels.map((id) => ({ level: id, times: 1 })) : [];
      return found(
        'SAME_MOMENT',
        'note',
        levels[0],
        `same.${levels
          .map(({ id }) => id)
          .join('+')
          .slice(0, 120)}`,
        message,
        'Nothing says which of them comes first.',
        path,
      );
    });
}

function lost(context: Context): Finding[] {
  const { model } = context;
  return lostValues(model, context.reach, context.witness).map(({ level, index, resetter, value, least, remaining, steps }) =>
    steps
      ? found(
          'VALUE_LOST',
          'warning',
          level,
          `${index}.lost`,
          `${level.name} stays closed once ${resetter.name} has reset ${value.name}`,
          `It opens at ${least} ${value.name}; after this way at most ${remaining} are left to collect: ${wayText(model, steps)}`,
          steps,
        )
      : found(
          'VALUE_LOSS_NOT_DECIDED',
          'note',
          level,
          `${index}.lost`,
          `Whether ${resetter.name} can make ${level.name} lose its ${value.name} is not decided`,
          'The way that was tried does not lead there.',
        ),
  );
}
