import { finding, type Finding, type Severity } from '../findings';
import type { UnlockRule } from '../model/unlock';
import { ruleText, type OrderedLevel, type UnlockModel } from './unlock-model';
import { askAllStates, type PlayAnswers } from './play-cones';
import type { PlayedStep } from './play-analysis';
import { MAX_STATES } from './play-states';
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
const MAX_PATH_STEPS = 100;

/**
 * Checks the rules by which levels open. "Never" is said only of what the upper bound of all states leaves out; every
 * way that a finding shows was played step by step. What neither settles is searched over all states of play, where those are few
 * enough; else it is said to be not decided. Takes up to some seconds: for a worker.
 */
export function checkUnlocking(model: UnlockModel): UnlockCheck {
  const reach = unlockReach(model);
  const witness = greedyPlay(model);
  if (!model.hasRules) return { reach, witness, findings: [] };
  const context: Context = {
    model,
    reach,
    witness,
    answers: askAllStates(model, reach, witness),
    place: new Map(model.levels.map(({ id }, i) => [id, i])),
  };
  return {
    reach,
    witness,
    findings: [
      ...missingStart(context),
      ...model.levels.flatMap((level) => levelFindings(context, level)),
      ...sameMoment(context),
      ...notDecided(context),
    ],
  };
}

interface Context {
  readonly model: UnlockModel;
  readonly reach: Reach;
  readonly witness: Witness;
  readonly answers: PlayAnswers;
  readonly place: ReadonlyMap<string, number>;
}

function nameIn({ model }: Context): (kind: 'level' | 'value', id: string) => string {
  return (kind, id) =>
    (kind === 'level' ? model.byId.get(id)?.name : model.values.find((value) => value.id === id)?.name) ?? id;
}

/** A way in words: its last steps, after how many others. */
export function wayText(model: UnlockModel, steps: readonly WitnessStep[]): string {
  const shown = steps
    .slice(-SHOWN_STEPS)
    .map(({ level, times }) => `${model.byId.get(level)?.name ?? level}${times > 1 ? ` × ${times}` : ''}`);
  return `${steps.length > SHOWN_STEPS ? `… (${steps.length - SHOWN_STEPS} before) → ` : ''}${shown.join(' → ')}`;
}

function found(
  code: string,
  severity: Severity,
  level: OrderedLevel,
  detail: string,
  message: string,
  why: string,
  path: readonly WitnessStep[] = [],
): Finding {
  return finding({
    code,
    desk: 'sets',
    severity,
    subject: detail === '' ? level.id : `${level.id}.${detail}`,
    place: { level: level.id, path: path.slice(-MAX_PATH_STEPS).map((step) => step.level) },
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
      message: 'No level is unlocked at the start',
      why: 'A player who begins has nothing to play. Give one level the rule "from the start".',
    }),
  ];
}

/** Whether nothing rules out that a level opens. */
function mayOpen({ reach, answers }: Context, id: string): boolean {
  return reach.openable.has(id) && (answers.get(id)?.openable.has(id) ?? true);
}

function levelFindings(context: Context, level: OrderedLevel): Finding[] {
  const { model, reach, witness, answers } = context;
  const name = nameIn(context);
  const findings: Finding[] = [];
  const answer = answers.get(level.id);
  const opens = mayOpen(context, level.id);
  const way = wayText(model, witness.steps);
  if (!opens) {
    const reasons = reach.openable.has(level.id)
      ? ['No way of playing unlocks it: all were tried']
      : level.rules.map((rule) => `${ruleText(rule, name)}: ${whyNever(context, rule)}`);
    const why = `${reasons.length === 0 ? 'It has no unlock rule.' : `${reasons.join('; ')}.`} Stays locked even with everything collected: ${way}`;
    findings.push(found('LEVEL_NEVER_OPENS', 'error', level, '', `${level.name} can never unlock`, why, witness.steps));
  } else if (!witness.opened.has(level.id) && !answer?.opened.has(level.id)) {
    const message = `Whether ${level.name} can unlock is not decided`;
    findings.push(
      found(
        'LEVEL_NOT_DECIDED',
        'warning',
        level,
        '',
        message,
        `It is not ruled out, but this way does not unlock it: ${way}`,
        witness.steps,
      ),
    );
  }
  level.rules.forEach((rule, i) => {
    if (rule.kind === 'value') {
      const bound = reach.highest.get(rule.value) ?? -Infinity;
      // The search ends at the highest threshold; below it what it counts is exact.
      const highest = Math.min(bound, answer?.highest.get(rule.value) ?? Infinity);
      if (highest < rule.least) {
        const message = `${level.name} unlocks at ${rule.least} ${name('value', rule.value)}, but at most ${highest} can be collected by then`;
        findings.push(
          found(
            'THRESHOLD_TOO_HIGH',
            opens ? 'warning' : 'error',
            level,
            String(i),
            message,
            `With the max from every level: ${way}`,
            witness.steps,
          ),
        );
      } else findings.push(...firesAgain(context, level, rule, i));
    }
    if (rule.kind === 'after' && opens && sendsBack(context, level, rule)) {
      const steps = rule.levels.map((id) => ({ level: id, times: 1 }));
      const message = `${level.name} unlocks only ${ruleText(rule, name)}, which comes later in the order of play`;
      findings.push(
        found(
          'SENDS_BACK',
          'warning',
          level,
          String(i),
          message,
          `Sends the player back: ${wayText(model, [...steps, { level: level.id, times: 1 }])}`,
          steps,
        ),
      );
    }
  });
  findings.push(...shutFindings(context, level));
  return findings;
}

/** A level that a value opens and play can shut; levels that only wait for such ones are named with it. */
function shutFindings(context: Context, level: OrderedLevel): Finding[] {
  const { model, answers } = context;
  const shut = answers.get(level.id)?.shut.get(level.id);
  if (!shut || !level.rules.some(({ kind }) => kind === 'value')) return [];
  const steps = shut.map(({ level: id, times }) => ({ level: id, times }));
  const waiting = model.levels.filter(
    ({ id, rules }) =>
      answers.get(id)?.shut.has(id) && !rules.some(({ kind }) => kind === 'value') && waitsFor(model, id, level.id),
  );
  const others = waiting.length === 0 ? '' : ` ${namesOf(waiting)} ${waiting.length === 1 ? 'waits' : 'wait'} for it.`;
  const why = `Played like this, nothing unlocks it any more: ${shut.length === 0 ? 'from the beginning' : shutText(context, shut)}.${others}`;
  return [found('LEVEL_SHUT', 'warning', level, 'shut', `${level.name} can be locked for good`, why, steps)];
}

/** Whether a level is opened after another, or after one that is. */
function waitsFor(model: UnlockModel, id: string, other: string): boolean {
  const queue = new Set([id]);
  for (const at of queue) {
    if (at === other) return true;
    for (const rule of model.byId.get(at)?.rules ?? [])
      if (rule.kind === 'after') rule.levels.forEach((one) => queue.add(one));
  }
  return false;
}

/** A play in words, with what is collected on the way. */
function shutText(context: Context, steps: readonly PlayedStep[]): string {
  const name = nameIn(context);
  const words = steps.map(({ level, times, collected }) => {
    const amounts = Object.entries(collected).map(([value, amount]) => `${amount} ${name('value', value)}`);
    return `${name('level', level)}${times > 1 ? ` × ${times}` : ''}${amounts.length > 0 ? ` (${amounts.join(', ')})` : ''}`;
  });
  return `${words.length > SHOWN_STEPS ? `… (${words.length - SHOWN_STEPS} before) → ` : ''}${words.slice(-SHOWN_STEPS).join(' → ')}`;
}

/** Levels whose plays are too many to try. */
function notDecided({ model, answers, witness }: Context): Finding[] {
  const open = model.levels.filter(
    ({ id }) => answers.has(id) && answers.get(id) === undefined && witness.opened.has(id),
  );
  if (open.length === 0) return [];
  return [
    found(
      'SHUT_NOT_DECIDED',
      'note',
      open[0],
      'shut',
      `Whether play can lock ${namesOf(open)} for good is not decided`,
      `There are over ${MAX_STATES} states of play to try, or amounts that are not whole. Fewer levels that add to or reset the same value make fewer.`,
    ),
  ];
}

function namesOf(levels: readonly OrderedLevel[]): string {
  return `${levels
    .slice(0, 4)
    .map(({ name }) => name)
    .join(', ')}${levels.length > 4 ? ` and ${levels.length - 4} more` : ''}`;
}

function whyNever(context: Context, rule: UnlockRule): string {
  const name = nameIn(context);
  if (rule.kind === 'value') return `at most ${context.reach.highest.get(rule.value) ?? 0} can be collected`;
  if (rule.kind !== 'after') return 'this is not possible';
  const closed = rule.levels.filter((id) => !mayOpen(context, id));
  return `${closed.map((id) => name('level', id)).join(', ')} can never unlock`;
}

/** Whether a level has no other way to open than after what comes later. */
function sendsBack(
  { place, model }: Context,
  level: OrderedLevel,
  rule: Extract<UnlockRule, { kind: 'after' }>,
): boolean {
  if (level.rules.length > 1) return false;
  const own = place.get(level.id) ?? 0;
  const isLater = (id: string): boolean => model.byId.has(id) && (place.get(id) ?? 0) > own;
  return rule.need === 'all' ? rule.levels.some(isLater) : rule.levels.every(isLater);
}

/** A value that is given each time and set back by some level comes up to a threshold again and again. */
function firesAgain(
  context: Context,
  level: OrderedLevel,
  rule: Extract<UnlockRule, { kind: 'value' }>,
  index: number,
): Finding[] {
  const { model, witness, answers } = context;
  const value = model.values.find(({ id }) => id === rule.value);
  if (!value || value.counts !== 'each time' || value.start >= rule.least) return [];
  const loop = loopUp(model, witness, value.id, value.start, rule.least);
  const answer = answers.get(level.id);
  if (!loop && !answer?.comesUpAgain(rule.value, rule.least)) return [];
  const message = `The rule of ${level.name} at ${rule.least} ${value.name} can be triggered again and again`;
  const why = loop
    ? `${model.byId.get(loop[0].level)?.name} resets ${value.name}, and it can be collected again: ${wayText(model, loop)}, over and over.`
    : `Some levels reset ${value.name}, and it can be collected again, over and over.`;
  return [found('RULE_FIRES_AGAIN', 'warning', level, `${index}.again`, message, why, loop)];
}

/** A level that leaves a value below a threshold, then one that brings it up, both opened on the way: they can be played in turn for ever. */
function loopUp(
  model: UnlockModel,
  witness: Witness,
  value: string,
  start: number,
  least: number,
): WitnessStep[] | undefined {
  const open = model.levels.filter(({ id }) => witness.opened.has(id));
  const setBack = open.find(({ gains, resets }) => resets.has(value) && start + (gains.get(value)?.least ?? 0) < least);
  if (!setBack) return undefined;
  const after = start + (setBack.gains.get(value)?.least ?? 0);
  for (const { id, gains, resets } of open) {
    const most = gains.get(value)?.most ?? 0;
    if (!resets.has(value) && most > 0) {
      return [
        { level: setBack.id, times: 1 },
        { level: id, times: Math.ceil((least - after) / most) },
      ];
    }
  }
  const jump = open.find(({ gains, resets }) => resets.has(value) && start + (gains.get(value)?.most ?? 0) >= least);
  return jump
    ? [
        { level: setBack.id, times: 1 },
        { level: jump.id, times: 1 },
      ]
    : undefined;
}

function sameMoment(context: Context): Finding[] {
  const groups = new Map<string, { rule: UnlockRule; levels: OrderedLevel[] }>();
  for (const level of context.model.levels) {
    if (!mayOpen(context, level.id)) continue;
    for (const rule of level.rules) {
      if (rule.kind === 'code') continue;
      const key = JSON.stringify(
        rule.kind === 'after' ? [...new Set(rule.levels)].sort().concat(rule.levels.length > 1 ? rule.need : '') : rule,
      );
      const group = groups.get(key);
      if (group) group.levels.push(level);
      else groups.set(key, { rule, levels: [level] });
    }
  }
  return [...groups.values()]
    .filter(({ levels }) => levels.length > 1)
    .map(({ rule, levels }) => {
      const text = ruleText(rule, nameIn(context));
      const message = `${namesOf(levels)} unlock at the same time, ${text}`;
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
