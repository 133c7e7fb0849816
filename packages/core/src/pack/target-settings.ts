import { kindsWith, specOf } from '../items';
import type { ItemKind } from '../model/items';
import type { RuleSetting, Target } from '../model/target';
import { COUNT_NUMBER, TARGET_RULES, type TargetRuleField, type TargetRuleId } from '../model/target-rules';

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
