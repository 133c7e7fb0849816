import { plainRecord } from '../json/plain-json';
import { valueAt } from '../document/apply-operation';
import type { FieldValue } from '../model/field';
import type { FilledRecord } from './field-tables';
import { fieldText, type LinkLookup } from './field-value';
import type { CellColumn, CellText } from './write-cells';

/** What can be done to a field of many records at once. */
export const BULK_COMMANDS = ['set', 'clear', 'add to', 'replace text'] as const;
export type BulkCommand = (typeof BULK_COMMANDS)[number];

export interface BulkChange {
  readonly column: CellColumn;
  readonly command: BulkCommand;
  /** 'set': the value. 'add to': what is added. 'replace text': what is looked for. */
  readonly text: string;
  /** 'replace text': what stands in its place. */
  readonly by: string;
}

/**
 * The texts that a change would write. 'add to' adds to a number (an empty one counts as 0), appends to a list what it does
 * not have yet, and appends to text. 'replace text' passes over records in which the text is not found; case counts.
 */
export function bulkTexts(
  records: readonly FilledRecord[],
  { column, command, text, by }: BulkChange,
  links: LinkLookup,
): CellText[] {
  const { field } = column;
  const isNumber = (field.type === 'number' || field.type === 'whole number') && !field.list;
  return records.flatMap((record): CellText[] => {
    const value = (valueAt(plainRecord(record), column.path) ?? null) as FieldValue;
    const now = fieldText(field, value, links);
    if (command === 'clear') return [{ record, column, text: '' }];
    if (command === 'set') return [{ record, column, text }];
    if (command === 'replace text')
      return text !== '' && now.includes(text) ? [{ record, column, text: now.replaceAll(text, by) }] : [];
    if (text.trim() === '') return [];
    if (isNumber) {
      const sum = (typeof value === 'number' ? value : 0) + Number(text.replace(',', '.'));
      // What is no number is refused with its own words.
      return [{ record, column, text: Number.isFinite(sum) ? plainNumber(sum) : text }];
    }
    if (field.list) {
      const parts = now === '' ? [] : [now];
      return now.split('; ').includes(text.trim())
        ? [{ record, column, text: now }]
        : [{ record, column, text: [...parts, text.trim()].join('; ') }];
    }
    return [{ record, column, text: now + text }];
  });
}

/** A sum without the noise of binary fractions: 0.1 + 0.2 is 0.3. */
function plainNumber(sum: number): string {
  return String(Number(sum.toPrecision(14)));
}
