import {
  RECORDS_DOCUMENT,
  compareOrdered,
  heldAt,
  ordersBetween,
  plainJson,
  type CarriedValue,
  type LevelOrder,
  type Operation,
  type RecordTables,
  type UnlockRule,
} from '@stravel/core';
import { create, newId, setRecordField } from '../../../edits/operations';

/** How a level opens, or how it stands before anyone said so. */
export function orderOf(tables: Pick<RecordTables, 'levelOrder'>, level: string): LevelOrder {
  return heldAt(tables.levelOrder, level) ?? { id: level, rules: [], gains: [], resets: [] };
}

/** Changes one part of how a level opens; makes the record when there is none yet. */
export function changeOrder<K extends 'rules' | 'gains' | 'resets'>(
  tables: Pick<RecordTables, 'levelOrder'>,
  level: string,
  part: K,
  value: LevelOrder[K],
): Operation[] {
  const order = orderOf(tables, level);
  return tables.levelOrder[level]
    ? [setRecordField('levelOrder', order, part, plainJson<LevelOrder['rules' | 'gains' | 'resets']>(value))]
    : [create(RECORDS_DOCUMENT, 'levelOrder', { ...order, [part]: value })];
}

/** Lets a level open after another: joins the rule that asks for all of several, else adds a rule. Nothing when it is so already. */
export function connectLevels(tables: Pick<RecordTables, 'levelOrder'>, from: string, to: string): Operation[] {
  const { rules } = orderOf(tables, to);
  if (from === to || rules.some((rule) => rule.kind === 'after' && rule.levels.includes(from))) return [];
  const at = rules.findIndex((rule) => rule.kind === 'after' && rule.need === 'all');
  const joined: UnlockRule[] =
    at < 0
      ? [...rules, { kind: 'after', levels: [from], need: 'all' }]
      : rules.map((rule, i) =>
          i === at && rule.kind === 'after' ? { ...rule, levels: [...rule.levels, from] } : rule,
        );
  return changeOrder(tables, to, 'rules', joined);
}

/** A new carried value behind the others. */
export function newCarriedValue(tables: Pick<RecordTables, 'carriedValue'>): {
  value: CarriedValue;
  operations: Operation[];
} {
  const last = Object.values(tables.carriedValue).sort(compareOrdered).at(-1);
  const [order] = ordersBetween(last?.order ?? null, null);
  const value: CarriedValue = { id: newId(), name: 'New value', start: 0, counts: 'once', order };
  return { value, operations: [create(RECORDS_DOCUMENT, 'carriedValue', value)] };
}
