import { isJsonList, isJsonTable, type Json } from '../model/json';
import type { Upgrade } from './upgrade';

/** Ids of knots from before they had ids of their own: by their places. */
const withIds = (knots: Json): Json =>
  isJsonList(knots)
    ? knots.map((knot, i) => (isJsonTable(knot) && !Object.hasOwn(knot, 'id') ? { id: `k${i}`, ...knot } : knot))
    : knots;

/** Knots of paths get ids, so that something can hold on to one while others come and go. */
export const KNOT_IDS: Upgrade = {
  to: 2,
  why: 'Knots of paths get ids, so that recipes can hold on to them.',
  kind: 'path',
  mentions: 'knots',
  isOne: (record) => Array.isArray(record['knots']) && 'closed' in record && 'form' in record,
  record: (record) => ({ ...record, knots: withIds(record['knots']) }),
  value: (field, value) => ({ field, value: field === 'knots' ? withIds(value) : value }),
};
