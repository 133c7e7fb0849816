import type { Field, FieldType } from '../model/field';
import { readFieldText, type LinkLookup } from './field-value';

/** A column with no more different values than this, each of them used twice on average, is one of choices. */
const MAX_CHOICES = 12;
/** Longer texts, and texts of several lines, are long. */
const MAX_SHORT_LETTERS = 200;
const MAX_CHOICE_LETTERS = 40;
/** Types that only some texts can mean, the narrowest first. */
const NARROW: readonly FieldType[] = ['yes/no', 'whole number', 'number', 'date', 'colour', 'point'];
const NO_LINKS: LinkLookup = {
  find: () => undefined,
  nameOf: () => undefined,
  allowed: () => false,
};

/**
 * The type of field that all cells of a column can be read by without a loss: numbers with zeros in front stay text.
 * @param cells without the header; empty ones do not count
 * @returns with the choices in the order in which they first occur; text for a column without values
 */
export function guessFieldType(cells: readonly string[]): Pick<Field, 'type' | 'choices'> {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  if (filled.length === 0) return { type: 'text', choices: [] };
  const hasCode = filled.some(
    (cell) => /^[-+]?0\d/.test(cell) || /^[+]/.test(cell) || /[xXbBoO]/.test(cell.slice(0, 3)),
  );
  for (const type of NARROW) {
    if ((type === 'whole number' || type === 'number') && hasCode) continue;
    const field: Field = { id: '', key: '', name: '', order: '', type, choices: [] };
    if (filled.every((cell) => readFieldText(field, cell, NO_LINKS).fault === undefined)) return { type, choices: [] };
  }
  const choices = [...new Set(filled)];
  const isChoice =
    choices.length <= MAX_CHOICES &&
    choices.length * 2 <= filled.length &&
    choices.every(({ length }) => length <= MAX_CHOICE_LETTERS) &&
    new Set(choices.map((choice) => choice.toLowerCase())).size === choices.length;
  if (isChoice) return { type: 'choice', choices };
  const isLong = filled.some((cell) => cell.length > MAX_SHORT_LETTERS || cell.includes('\n'));
  return { type: isLong ? 'long text' : 'text', choices: [] };
}
