import type { FieldType, FieldValue } from '../model/field';
import type { ConditionTest, ViewRules } from '../model/table-view';
import { isEmptyValue } from './field-tables';

/** What a column holds of a record: the value, and the text that a person reads. */
export interface ViewCell {
  readonly value: FieldValue;
  readonly text: string;
  readonly type: FieldType;
}

/** Whether a cell holds what a condition asks. Letters without regard to case; numbers as numbers. */
export function meetsCondition(cell: ViewCell, test: ConditionTest, wanted: string): boolean {
  const { value, type } = cell;
  if (test === 'is filled') return !isEmptyValue(value);
  if (test === 'is empty') return isEmptyValue(value);
  const typed = wanted.trim().toLowerCase();
  const shown = (): string => cell.text.toLowerCase();
  if (test === 'contains') return shown().includes(typed);
  const number = Number(typed.replace(',', '.'));
  const both = typeof value === 'number' && typed !== '' && Number.isFinite(number);
  if (test === 'is' || test === 'is not') {
    // A link shows its name, a yes its word: what is typed is what is read.
    const same = both ? value === number : isEmptyValue(value) ? typed === '' : shown() === typed;
    return same === (test === 'is');
  }
  if (isEmptyValue(value) || typed === '') return false;
  if (type === 'number' || type === 'whole number')
    return both && (test === 'at least' ? value >= number : value <= number);
  return test === 'at least' ? shown() >= typed : shown() <= typed;
}

/** What a cell is sorted by: null when it is empty. Made once a record, as sorting compares each many times. */
type SortKey = number | string | null;

function sortKey(cell: ViewCell | undefined): SortKey {
  if (!cell || isEmptyValue(cell.value)) return null;
  return typeof cell.value === 'number' ? cell.value : cell.text.toLowerCase();
}

/** Order of two keys; what is empty comes last whichever way, numbers before text. Letters by their code, without regard to case. */
function compareKeys(a: SortKey, b: SortKey, descending: boolean): number {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
  if (typeof a !== typeof b) return (typeof a === 'number' ? -1 : 1) * (descending ? -1 : 1);
  return (a < b ? -1 : a > b ? 1 : 0) * (descending ? -1 : 1);
}

/**
 * The records that a view shows, in its order; ties keep the order in which they came. Columns that are not there are
 * passed over.
 * @param read gives a record's cell in a column, undefined for a column that is not there
 */
export function applyView<T>(
  records: readonly T[],
  { join, conditions, sorts }: Pick<ViewRules, 'join' | 'conditions' | 'sorts'>,
  read: (record: T, column: string) => ViewCell | undefined,
): T[] {
  const meets = (record: T): boolean => {
    const known = conditions.flatMap(({ column, test, text }) => {
      const cell = read(record, column);
      return cell ? [meetsCondition(cell, test, text)] : [];
    });
    return known.length === 0 || (join === 'all' ? known.every(Boolean) : known.some(Boolean));
  };
  const shown = conditions.length === 0 ? [...records] : records.filter(meets);
  if (sorts.length === 0) return shown;
  const keyed = shown.map((record, place) => ({
    record,
    place,
    keys: sorts.map(({ column }) => sortKey(read(record, column))),
  }));
  keyed.sort((a, b) => {
    for (let i = 0; i < sorts.length; i++) {
      const order = compareKeys(a.keys[i], b.keys[i], sorts[i].descending);
      if (order !== 0) return order;
    }
    return a.place - b.place;
  });
  return keyed.map(({ record }) => record);
}
