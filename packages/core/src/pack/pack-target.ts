import { CoreError } from '../errors';
import { kindsWith, specOf } from '../items';
import { compareOrdered } from '../model/ordered';
import type { ItemKind } from '../model/items';
import type { RecordTables } from '../model/records';
import type { RuleSetting, Target } from '../model/target';
import { COUNT_NUMBER, TARGET_RULES, type TargetRuleField, type TargetRuleId } from '../model/target-rules';

/** The target of a collection that has none of its own: plain glTF 2.0 and JSON, metres, Y up. */
export const PLAIN_TARGET: Target = {
  id: 'plain-gltf',
  name: 'Plain glTF',
  order: 'a',
  folder: 'build',
  meshFiles: 'perPiece',
  withAllPurposes: false,
  rules: {},
  counts: {},
};

/** The targets of a collection in their order; the plain one where it has none of its own. */
export function targetsOf({ target }: Pick<RecordTables, 'target'>): readonly Target[] {
  const own = Object.values(target).sort(compareOrdered);
  return own.length > 0 ? own : [PLAIN_TARGET];
}

/**
 * The target that is meant.
 * @param wanted its id, or its name in letters of any case; undefined for the first
 * @throws CoreError 'TARGET_UNKNOWN' naming those that there are
 */
export function targetOf(tables: Pick<RecordTables, 'target'>, wanted?: string): Target {
  const targets = targetsOf(tables);
  if (wanted === undefined) return targets[0];
  const named = (target: Target): boolean => target.name.toLowerCase() === wanted.toLowerCase();
  const found = targets.find(({ id }) => id === wanted) ?? targets.find(named);
  if (found) return found;
  throw new CoreError(
    'TARGET_UNKNOWN',
    `pack: there is no target ${wanted}; there are: ${targets.map(({ name }) => name).join(', ')}`,
    { target: wanted },
  );
}

/** A setting with all that its rule has; what it has no place for is 0 or ''. */
export type WholeSetting = { readonly [F in keyof RuleSetting]-?: NonNullable<RuleSetting[F]> };

/** What a target asks by a rule. */
export function ruleSetting(target: Pick<Target, 'rules'>, rule: TargetRuleId): WholeSetting {
  const field: TargetRuleField = TARGET_RULES[rule];
  const own = target.rules[rule];
  return {
    isOn: own?.isOn ?? field.isOn,
    min: own?.min ?? field.min?.initial ?? 0,
    max: own?.max ?? field.max?.initial ?? 0,
    text: own?.text ?? field.text?.initial ?? '',
  };
}

/** Kinds of item of which a target may limit the number in a level. */
export function countedKinds(): readonly ItemKind[] {
  return kindsWith('thing');
}

/** How many items of a kind a target takes in a level. */
export function countSetting(target: Pick<Target, 'counts'>, kind: ItemKind): WholeSetting {
  const { targetMax } = specOf(kind);
  const own = target.counts[kind];
  return {
    isOn: own?.isOn ?? targetMax !== undefined,
    min: 0,
    max: own?.max ?? targetMax ?? COUNT_NUMBER.initial,
    text: '',
  };
}
