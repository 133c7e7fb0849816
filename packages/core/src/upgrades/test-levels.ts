import { isJsonList, isJsonTable, type Json } from '../model/json';
import type { Upgrade } from './upgrade';

const WAS = 'trial';
const NOW = 'test';

/** A purpose as it is called now, of one that an earlier version wrote. */
export const currentPurpose = <T extends Json>(value: T): T | typeof NOW => (value === WAS ? NOW : value);

/** The purpose of levels that are for trying things is called test; a trial is one run of many seeds. */
export const TEST_LEVELS: Upgrade = {
  to: 3,
  why: 'The purpose “trial” of a level is called “test”.',
  kind: 'level',
  mentions: WAS,
  isOne: (record) => 'purpose' in record && 'strata' in record,
  record: (record) => (record['purpose'] === WAS ? { ...record, purpose: NOW } : record),
  value: (field, value) => ({ field, value: field === 'purpose' ? currentPurpose(value) : value }),
};

const conditionsAfter = (conditions: Json): Json => {
  if (!isJsonList(conditions)) return conditions;
  const after = conditions.map((one) =>
    isJsonTable(one) && one['column'] === 'purpose' && one['text'] === WAS ? { ...one, text: NOW } : one,
  );
  return after.every((one, i) => one === conditions[i]) ? conditions : after;
};

/** Saved views ask for the same word. */
export const VIEWS_OF_TEST_LEVELS: Upgrade = {
  to: 3,
  why: 'Saved views that ask for the purpose “trial” ask for “test”.',
  kind: 'tableView',
  mentions: WAS,
  isOne: (record) => 'conditions' in record,
  record: (record) => {
    const conditions = conditionsAfter(record['conditions']);
    return conditions === record['conditions'] ? record : { ...record, conditions };
  },
  value: (field, value) => ({ field, value: field === 'conditions' ? conditionsAfter(value) : value }),
};
