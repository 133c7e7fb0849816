import { ITEM_KINDS } from '../../items';
import { byKey, mapped } from '../../model/by-key';
import { COMPRESSIONS, MESH_FILES, PLACEMENT_FORMS, type RuleSetting, type Target } from '../../model/target';
import {
  COUNT_NUMBER,
  MAX_RULE_TEXT_LENGTH,
  TARGET_RULES,
  type RuleNumber,
  type TargetRuleField,
} from '../../model/target-rules';
import { finite, flag, later, oneOf, shape, text, told, whole, type Field } from '../../fields/field';
import { id, name, order } from '../../fields/known-fields';
import { PACK_FOLDER_PATTERN } from '../../fields/pack-folder';
import type { StoredRecordSpec } from '../stored-spec';

/** What a rule has no place for. */
const none = <T>(): Field<T> =>
  told<T>({ type: 'null' }, { name: 'none', message: 'is not part of this rule', holds: () => false });
const within = ({ range, isWhole }: RuleNumber): Field<number> => (isWhole ? whole(...range) : finite(...range));
const setting = ({ min, max, text: words }: Pick<TargetRuleField, 'min' | 'max' | 'text'>): Field<RuleSetting> =>
  shape<RuleSetting>(
    {
      isOn: flag(),
      min: later(min ? within(min) : none<number>()),
      max: later(max ? within(max) : none<number>()),
      text: later(words ? text({ max: MAX_RULE_TEXT_LENGTH }) : none<string>()),
    },
    {
      name: 'range',
      message: 'the min must not be above the max',
      holds: (one) => typeof one.min !== 'number' || typeof one.max !== 'number' || one.min <= one.max,
    },
  );

export const STORED_TARGET: StoredRecordSpec<'target'> = {
  fields: () => ({
    id: id(),
    name: name(),
    order: order(),
    folder: text({ pattern: PACK_FOLDER_PATTERN, isFilled: true }),
    meshFiles: oneOf(MESH_FILES),
    compression: later(oneOf(COMPRESSIONS)),
    placements: later(oneOf(PLACEMENT_FORMS)),
    withPlacementsJson: later(flag()),
    withAllPurposes: flag(),
    rules: shape<Target['rules']>(mapped(TARGET_RULES, (rule: TargetRuleField) => later(setting(rule)))),
    counts: shape<Target['counts']>(byKey(ITEM_KINDS, () => later(setting({ max: COUNT_NUMBER })))),
  }),
};
