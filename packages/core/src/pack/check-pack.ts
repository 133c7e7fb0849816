import type { RunContext } from '../context/run-context';
import type { Finding } from '../findings';
import { kindsWith, listOf } from '../items';
import { laidContent } from '../layout/level-content';
import { placedPieces } from '../layout/level-placements';
import type { CollectionContent } from '../model/collection-content';
import type { Level } from '../model/level';
import { TARGET_RULES, type TargetRuleId } from '../model/target-rules';
import { levelsInOrder } from '../sets/order';
import type { KitInspection } from './inspect-kit';
import { openReferences } from './open-references';
import { targetOf } from './pack-target';
import { ruleSetting, type WholeSetting } from './target-settings';
import { PACK_RULES } from './rules';
import { countFindings } from './rules/counts';
import { missingNodes } from './rules/nodes';
import { refused, type PackRule, type PackedStratum, type RuleScene } from './rules/rule';

/** What is packed. */
export interface PackChoice {
  /** Its target: an id, or a name in letters of any case. Absent: the first of the collection. */
  readonly target?: string;
  /** Whether test and tool levels are packed too; absent: as the target has it. */
  readonly withAllPurposes?: boolean;
  /** Keys of levels that are left out. */
  readonly without?: readonly string[];
}

/** A choice as the query of an address; '' where nothing is chosen. */
export function packQuery({ target, withAllPurposes, without = [] }: PackChoice): string {
  return [
    ...(target === undefined ? [] : [`target=${encodeURIComponent(target)}`]),
    ...(withAllPurposes === undefined ? [] : [`all=${withAllPurposes ? 'yes' : 'no'}`]),
    ...(without.length > 0 ? [`without=${encodeURIComponent(without.join(','))}`] : []),
  ].join('&');
}

export interface CheckPackInput {
  readonly content: Pick<CollectionContent, 'records' | 'strata'>;
  /** By kit id. */
  readonly inspections: Readonly<Record<string, KitInspection>>;
  readonly choice: PackChoice;
}

/** Levels that are packed, in order of play; those without a stratum have nothing to pack. */
export function packedLevels(
  records: CollectionContent['records'],
  { target, withAllPurposes = targetOf(records, target).withAllPurposes, without = [] }: PackChoice,
): Level[] {
  const left = new Set(without);
  return levelsInOrder(records).filter(
    ({ key, purpose, strata }) => strata.length > 0 && (withAllPurposes || purpose === 'play') && !left.has(key),
  );
}

/**
 * Checks a collection against the rules of its target.
 * @throws CoreError 'TARGET_UNKNOWN', 'CANCELLED'
 */
export function checkPack({ content, inspections, choice }: CheckPackInput, context: RunContext): Finding[] {
  const { records, strata } = content;
  const target = targetOf(records, choice.target);
  const rules = ruleIds()
    .map((id) => ({ rule: PACK_RULES[id], setting: ruleSetting(target, id) }))
    .filter(({ setting }) => setting.isOn);
  const scene: RuleScene = { target, records };
  const levels = packedLevels(records, choice);
  const used = new Set<string>();
  const findings: Finding[] = [];
  /** What each rule finds that looks at such a thing. */
  const hold = <F extends keyof PackRule>(hook: F, of: Parameters<NonNullable<PackRule[F]>>[0]): void => {
    for (const { rule, setting } of rules) {
      const look = rule[hook] as ((of: unknown, setting: WholeSetting, scene: RuleScene) => Finding[]) | undefined;
      if (look) findings.push(...look(of, setting, scene));
    }
  };
  levels.forEach((level, i) => {
    context.checkCancelled();
    context.progress(i / levels.length, `checking ${level.name}`);
    const packed: PackedStratum[] = [];
    for (const { stratum } of level.strata) {
      const stored = strata.get(stratum);
      if (stored) packed.push({ stratum, stored, content: laidContent(stored, level.id, (id) => strata.get(id)) });
    }
    for (const piece of placedPieces(packed)) used.add(piece);
    hold('level', { level, strata: packed });
    findings.push(...openReferences({ level, strata: packed }, records));
    if (isEmpty(packed) && level.bounds === null) findings.push(nothingIn(level));
    findings.push(...countFindings({ level, strata: packed }, target));
  });
  const pieces = [...used].sort().flatMap((id) => (Object.hasOwn(records.piece, id) ? [records.piece[id]] : []));
  hold('pieces', pieces);
  for (const piece of pieces) {
    const inspection = inspectionOf(inspections, piece.kit);
    findings.push(...missingNodes(piece, inspection));
    hold('piece', { piece, inspection });
  }
  for (const kit of [...new Set(pieces.map((piece) => piece.kit))].sort()) {
    const inspection = inspectionOf(inspections, kit);
    if (inspection) hold('kit', { kit: { id: kit, name: records.kit[kit]?.name ?? kit }, inspection });
  }
  // A stratum that levels share would tell of each of its placements once a level.
  return [...new Map(findings.map((one) => [one.id, one])).values()];
}

/** The rules in the order in which they are checked. */
function ruleIds(): TargetRuleId[] {
  return Object.keys(PACK_RULES).filter((id): id is TargetRuleId => Object.hasOwn(TARGET_RULES, id));
}

function inspectionOf(inspections: CheckPackInput['inspections'], kit: string): KitInspection | undefined {
  return Object.hasOwn(inspections, kit) ? inspections[kit] : undefined;
}

/** Whether there is nothing in a level that a game would load. */
function isEmpty(strata: readonly PackedStratum[]): boolean {
  return strata.every(({ content }) => kindsWith('thing').every((kind) => listOf(content, kind).length === 0));
}

function nothingIn({ id, name }: Level): Finding {
  return refused({
    code: 'PACK_EMPTY',
    subject: id,
    place: { level: id },
    message: `Nothing is in ${name}`,
    why: 'There is nothing to pack. Add content in Layout, or remove its strata.',
  });
}
