import { idUses, overIds, type EachId } from '../../items/ids';
import type { LevelOrder, UnlockRule } from '../../model/unlock';
import { levelName, overList, overRows } from '../named';
import type { RecordSpec } from '../record-spec';

const OWN = idUses<LevelOrder>({ id: { to: 'level', isStrict: true } });
const CARRIED = idUses<{ readonly value: string }>({ value: { to: 'carriedValue', isStrict: true } });

function overRule(rule: UnlockRule, each: EachId): UnlockRule {
  if (rule.kind === 'value') return overIds(rule, each, CARRIED);
  if (rule.kind !== 'after') return rule;
  const levels = overList(rule.levels, each, { to: 'level', field: 'rules', isStrict: true });
  return levels === rule.levels ? rule : { ...rule, levels };
}

export const LEVEL_ORDER: RecordSpec<'levelOrder'> = {
  words: { one: 'unlock rules', many: 'unlock rules' },
  table: 'level-orders.json',
  pointsAt: ['level', 'carriedValue'],
  ofLevel: 'Its order of play',
  ids: (record, each) => {
    const own = overIds(record, each, OWN);
    const parts: Partial<Pick<LevelOrder, 'rules' | 'gains' | 'resets'>> = {
      ...(own.rules && { rules: overRows(own.rules, (rule) => overRule(rule, each)) }),
      ...(own.gains && {
        gains: overRows(own.gains, (gain) => overIds(gain, each, CARRIED)),
      }),
      ...(own.resets && {
        resets: overList(own.resets, each, { to: 'carriedValue', field: 'resets', isStrict: true }),
      }),
    };
    const isSame = parts.rules === own.rules && parts.gains === own.gains && parts.resets === own.resets;
    return isSame ? own : { ...own, ...parts };
  },
  asUser: ({ id }, { to, field }, tables) => {
    if (to !== 'level') return `the level ${levelName(tables, id)}`;
    return field === 'id' ? 'its unlock rules' : `the unlock rules of ${levelName(tables, id)}`;
  },
};
