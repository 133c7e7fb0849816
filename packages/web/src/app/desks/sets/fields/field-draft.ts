import {
  fieldFault,
  patternFault,
  readFieldText,
  fieldText,
  type Field,
  type FieldFigure,
  type FieldType,
  type FieldValue,
  type LinkLookup,
} from '@stravel/core';

/** A field as it is being written, all of it as text and switches. */
export interface FieldDraft {
  readonly name: string;
  readonly key: string;
  readonly type: FieldType;
  readonly list: boolean;
  readonly figure: FieldFigure | '';
  /** What the figure counts: a kind of marker, the id of a piece, '' for all. */
  readonly counted: string;
  /** One a line. */
  readonly choices: string;
  readonly target: string;
  readonly group: string;
  readonly help: string;
  readonly required: boolean;
  readonly unique: boolean;
  readonly low: string;
  readonly high: string;
  readonly pattern: string;
  readonly default: string;
}

export const EMPTY_DRAFT: FieldDraft = {
  name: '',
  key: '',
  type: 'text',
  list: false,
  figure: '',
  counted: '',
  choices: '',
  target: '',
  group: '',
  help: '',
  required: false,
  unique: false,
  low: '',
  high: '',
  pattern: '',
  default: '',
};

/** What a draft comes to, or all that is wrong with it by its part. */
export type DraftReading =
  | { readonly field: Field; readonly faults?: undefined }
  | { readonly field?: undefined; readonly faults: Readonly<Partial<Record<keyof FieldDraft, string>>> };

/** A field as a draft. */
export function draftOf(field: Field, links: LinkLookup): FieldDraft {
  return {
    name: field.name,
    key: field.key,
    type: field.type,
    list: field.list ?? false,
    figure: field.figure ?? '',
    counted: field.counted ?? '',
    choices: field.choices.join('\n'),
    target: field.target ?? '',
    group: field.group ?? '',
    help: field.help ?? '',
    required: field.required ?? false,
    unique: field.unique ?? false,
    low: field.low === null || field.low === undefined ? '' : String(field.low),
    high: field.high === null || field.high === undefined ? '' : String(field.high),
    pattern: field.pattern ?? '',
    default: fieldText(field, field.default ?? null, links),
  };
}

/** A key for a name: letters and digits, a small letter first. */
export function keyOf(name: string, taken: ReadonlySet<string>): string {
  const words = name
    .normalize('NFD')
    .replace(/[^A-Za-z0-9 ]/g, '')
    .split(' ')
    .filter((word) => word !== '');
  const joined = words
    .map((word, i) => (i === 0 ? word.toLowerCase() : word[0].toUpperCase() + word.slice(1).toLowerCase()))
    .join('');
  const base = (/^[a-z]/.test(joined) ? joined : `f${joined}`).slice(0, 36);
  for (let i = 1; ; i++) {
    const key = i === 1 ? base : `${base}${i}`;
    if (!taken.has(key)) return key;
  }
}

/**
 * Reads a draft.
 * @param base gives id, order and register
 * @param taken keys of the table's other fields
 */
export function readDraft(
  draft: FieldDraft,
  base: Pick<Field, 'id' | 'order' | 'register'>,
  taken: ReadonlySet<string>,
  links: LinkLookup,
): DraftReading {
  const faults: Partial<Record<keyof FieldDraft, string>> = {};
  const isNumber = draft.type === 'number' || draft.type === 'whole number';
  const limit = (part: 'low' | 'high'): number | null => {
    if (!isNumber || draft[part].trim() === '') return null;
    const value = Number(draft[part].replace(',', '.'));
    if (!Number.isFinite(value)) faults[part] = `“${draft[part]}” is not a number.`;
    return value;
  };
  const [low, high] = [limit('low'), limit('high')];
  if (draft.name.trim() === '') faults.name = 'It needs a name.';
  if (!/^[a-z][A-Za-z0-9]{0,40}$/.test(draft.key))
    faults.key = 'A key starts with a small letter, then letters and digits.';
  else if (taken.has(draft.key)) faults.key = 'Another field has this key.';
  const choices = draft.type === 'choice' ? choiceLines(draft.choices) : [];
  if (draft.type === 'choice' && choices.length === 0) faults.choices = 'Write one choice a line.';
  if (new Set(choices).size < choices.length) faults.choices = 'A choice is there twice.';
  if (low !== null && high !== null && low > high) faults.high = 'Max is below min.';
  if (draft.type === 'entry' && draft.target === '') faults.target = 'Choose the register that it links to.';
  const hasPattern = (draft.type === 'text' || draft.type === 'long text') && draft.pattern !== '';
  const broken = hasPattern ? patternFault(draft.pattern) : null;
  if (broken !== null) faults.pattern = `Not a regular expression: ${broken}.`;
  const isLink = draft.type === 'entry' || draft.type === 'level';
  const field: Field = {
    ...base,
    key: draft.key,
    name: draft.name.trim(),
    type: draft.type,
    choices,
    list: draft.list || null,
    figure: draft.figure || null,
    counted: draft.figure === 'markers' || draft.figure === 'placements' ? draft.counted || null : null,
    target: isLink && draft.target !== '' ? draft.target : null,
    group: draft.group.trim() || null,
    help: draft.help.trim() || null,
    required: draft.required || null,
    unique: draft.unique || null,
    low,
    high,
    pattern: hasPattern ? draft.pattern : null,
    default: null,
  };
  if (Object.keys(faults).length > 0) return { faults };
  const fill: FieldValue = readDefault(field, draft, links, faults);
  return Object.keys(faults).length > 0 ? { faults } : { field: { ...field, default: fill } };
}

function readDefault(
  field: Field,
  draft: FieldDraft,
  links: LinkLookup,
  faults: Partial<Record<keyof FieldDraft, string>>,
): FieldValue {
  const read = readFieldText(field, draft.default, links);
  const fault = read.fault ?? fieldFault(field, read.value, links);
  if (fault !== null) faults.default = fault;
  return read.value ?? null;
}

export function choiceLines(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
}

/** Choices whose words were changed in their place: as many lines as before, and the new word was not there. */
export function renamedChoices(before: readonly string[], after: readonly string[]): Map<string, string> {
  if (before.length !== after.length) return new Map();
  return new Map(
    before.flatMap((old, i) =>
      old !== after[i] && !before.includes(after[i]) && !after.includes(old) ? [[old, after[i]] as const] : [],
    ),
  );
}
