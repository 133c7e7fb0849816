import type { Field, FieldScalar, FieldValue } from '../model/field';
import type { Level } from '../model/level';
import type { RecordTables } from '../model/records';
import { matchesPattern, patternFault } from '../fields/pattern';

/** A value that was read, or why it is none. */
export type ReadValue =
  { readonly value: FieldValue; readonly fault?: undefined } | { readonly value?: undefined; readonly fault: string };

/** Finds what links point at, by id and by what a person types. */
export interface LinkLookup {
  /** Name of a level or an entry; undefined when there is none of that id. */
  readonly nameOf: (type: 'level' | 'entry', id: string) => string | undefined;
  /** Id of what a text names: an id, a name that only one has, or the code of a level. Undefined when none or several. */
  readonly find: (field: Field, text: string) => string | undefined;
  /** Whether a link may lead there. */
  readonly allowed: (field: Field, id: string) => boolean;
}

type Tables = Pick<RecordTables, 'level' | 'set' | 'entry'>;

/** Builds the look-up of a collection's links. Levels in the bin keep their names but cannot be chosen. Cost: O(levels + entries). */
export function linkLookup(tables: Tables): LinkLookup {
  const byName = new Map<string, string | null>();
  const byCode = new Map<string, string | null>();
  const note = (map: Map<string, string | null>, key: string, id: string): void =>
    void map.set(key, map.has(key) ? null : id);
  for (const level of Object.values(tables.level)) {
    if (level.binned !== null) continue;
    note(byName, level.name.toLowerCase(), level.id);
    if (level.code !== '') note(byCode, level.code.toLowerCase(), level.id);
  }
  for (const entry of Object.values(tables.entry))
    note(byName, `${entry.register}\u0000${entry.name.toLowerCase()}`, entry.id);
  const standsIn = (level: Level, set: string): boolean => {
    for (
      let at: string | null = level.set, depth = 0;
      at !== null && depth < 100;
      at = tables.set[at]?.parent ?? null, depth++
    )
      if (at === set) return true;
    return false;
  };
  const allowed = (field: Field, id: string): boolean => {
    const target = field.target ?? null;
    if (field.type === 'entry')
      return tables.entry[id] !== undefined && (target === null || tables.entry[id].register === target);
    const level = tables.level[id];
    return level !== undefined && level.binned === null && (target === null || standsIn(level, target));
  };
  return {
    nameOf: (type, id) => tables[type][id]?.name,
    allowed,
    find: (field, text) => {
      if (allowed(field, text)) return text;
      const key = text.trim().toLowerCase();
      const id =
        field.type === 'entry' ? byName.get(`${field.target ?? ''}\u0000${key}`) : (byName.get(key) ?? byCode.get(key));
      return typeof id === 'string' ? id : undefined;
    },
  };
}

const DATE = /^(\d{4})-(\d\d)-(\d\d)$/;
const COLOUR = /^#[0-9a-f]{6}$/;
const PICTURE = /^[0-9a-f]{64}$/;
const DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

function isDate(text: string): boolean {
  const found = DATE.exec(text);
  if (!found) return false;
  const [year, month, day] = [Number(found[1]), Number(found[2]), Number(found[3])];
  const leap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  return month >= 1 && month <= 12 && day >= 1 && day <= DAYS[month - 1] + (leap && month === 2 ? 1 : 0);
}

/**
 * Why a value does not fit its field; null when it does. Nothing filled always fits: that a value is required is a
 * matter of the whole record.
 */
export function fieldFault(field: Field, value: FieldValue, links: LinkLookup): string | null {
  if (value === null || value === '') return null;
  if (!field.list) return scalarFault(field, value, links);
  if (!Array.isArray(value) || (field.type === 'point' && value.some((part) => !Array.isArray(part))))
    return 'It must be a list.';
  for (const [i, one] of (value as readonly FieldScalar[]).entries()) {
    const fault = scalarFault(field, one, links);
    if (fault !== null) return `Value ${i + 1}: ${fault}`;
  }
  return null;
}

function scalarFault(field: Field, value: FieldValue, links: LinkLookup): string | null {
  const shown = (): string => `“${plainText(value)}”`;
  switch (field.type) {
    case 'yes/no':
      return typeof value === 'boolean' ? null : `${shown()} is neither yes nor no.`;
    case 'number':
    case 'whole number':
      if (typeof value !== 'number' || !Number.isFinite(value)) return `${shown()} is not a number.`;
      if (field.type === 'whole number' && !Number.isInteger(value)) return `${value} is not a whole number.`;
      if (typeof field.low === 'number' && value < field.low) return `${value} is below ${field.low}.`;
      if (typeof field.high === 'number' && value > field.high) return `${value} is above ${field.high}.`;
      return null;
    case 'point':
      return Array.isArray(value) && value.length === 3 && value.every((part) => typeof part === 'number')
        ? null
        : `${shown()} is not a point, such as 1.5, 0, -2.`;
  }
  if (typeof value !== 'string') return `${shown()} is not ${field.type === 'long text' ? 'text' : `a ${field.type}`}.`;
  switch (field.type) {
    case 'choice':
      return field.choices.includes(value) ? null : `${shown()} is not one of: ${field.choices.join(', ')}.`;
    case 'date':
      return isDate(value) ? null : `${shown()} is not a date, such as 2027-01-31.`;
    case 'picture':
      return PICTURE.test(value) ? null : `${shown()} is not the name of a picture; choose a file instead.`;
    case 'colour':
      return COLOUR.test(value) ? null : `${shown()} is not a colour, such as #a6452b.`;
    case 'level':
      return links.allowed(field, value) ? null : `${shown()} is not a level that may be linked here.`;
    case 'entry':
      return links.allowed(field, value) ? null : `${shown()} is not an entry that may be linked here.`;
    default: {
      if (!field.pattern || matchesPattern(field.pattern, value)) return null;
      const fault = patternFault(field.pattern);
      return fault === null
        ? `${shown()} does not match ${field.pattern}.`
        : `${shown()} can’t be checked against ${field.pattern}: ${fault}.`;
    }
  }
}

/** A value as a person reads it, and as it goes into a spreadsheet. `readFieldText` reads it back. */
export function fieldText(field: Field, value: FieldValue, links: LinkLookup): string {
  if (value === null) return '';
  return field.list && Array.isArray(value)
    ? (value as readonly FieldScalar[]).map((one) => quoted(scalarText(field, one, links))).join('; ')
    : scalarText(field, value, links);
}

function scalarText(field: Field, value: FieldValue, links: LinkLookup): string {
  if ((field.type === 'level' || field.type === 'entry') && typeof value === 'string') {
    const name = links.nameOf(field.type, value);
    // A name that several have would not lead back.
    return name !== undefined && links.find(field, name) === value ? name : value;
  }
  return plainText(value);
}

/** A value in plain letters, whatever its field. */
export function plainText(value: FieldValue): string {
  if (value === null) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return isPointValue(value) ? value.join(', ') : value.map((one: FieldScalar) => quoted(plainText(one))).join('; ');
  return String(value);
}

const isPointValue = (value: readonly unknown[]): boolean =>
  value.length === 3 && value.every((part) => typeof part === 'number');

const quoted = (text: string): string =>
  text === '' || /[;"\n]/.test(text) || text !== text.trim() ? `"${text.replaceAll('"', '""')}"` : text;

/** Takes a list apart at its semicolons; a part in double quotes may hold them, with quotes doubled. */
export function splitList(text: string): string[] {
  const parts: string[] = [];
  for (let at = 0; at < text.length;) {
    while (text[at] === ' ') at++;
    let part = '';
    if (text[at] === '"') {
      for (at++; at < text.length && (text[at] !== '"' || text[at + 1] === '"'); at++) {
        if (text[at] === '"') at++;
        part += text[at];
      }
      at++;
      while (at < text.length && text[at] !== ';') at++;
    } else {
      const end = text.indexOf(';', at);
      part = text.slice(at, end < 0 ? text.length : end).trim();
      at = end < 0 ? text.length : end;
      if (part === '' && at >= text.length) break;
    }
    parts.push(part);
    at++;
  }
  return parts;
}

/** What a person typed, pasted or imported, as a value of a field, checked. Nothing is coerced silently. */
export function readFieldText(field: Field, text: string, links: LinkLookup): ReadValue {
  const isText = field.type === 'text' || field.type === 'long text';
  if (text.trim() === '') return { value: null };
  if (!field.list) return readScalar(field, isText ? text : text.trim(), links);
  const list: FieldScalar[] = [];
  for (const part of splitList(text)) {
    const read = readScalar(field, part, links);
    if (read.fault !== undefined) return read;
    list.push(read.value as FieldScalar);
  }
  return { value: list };
}

function readScalar(field: Field, text: string, links: LinkLookup): ReadValue {
  const value = scalarOf(field, text, links);
  const fault = scalarFault(field, value, links);
  return fault === null ? { value } : { fault };
}

/** The value that a text means, or the text itself when it means none. */
function scalarOf(field: Field, text: string, links: LinkLookup): FieldScalar {
  switch (field.type) {
    case 'number':
    case 'whole number': {
      const number = Number(text.replace(',', '.'));
      return Number.isFinite(number) ? number + 0 : text;
    }
    case 'yes/no': {
      const word = text.toLowerCase();
      return word === 'yes' || word === 'true' ? true : word === 'no' || word === 'false' ? false : text;
    }
    case 'choice':
      return (
        field.choices.find((choice) => choice === text) ??
        field.choices.find((choice) => choice.toLowerCase() === text.toLowerCase()) ??
        text
      );
    case 'colour':
      return text.toLowerCase();
    case 'point': {
      const parts = text
        .split(text.includes(',') ? ',' : /\s+/)
        .map((part) => (part.trim() === '' ? NaN : Number(part)));
      return parts.length === 3 && parts.every(Number.isFinite) ? [parts[0] + 0, parts[1] + 0, parts[2] + 0] : text;
    }
    case 'level':
    case 'entry':
      return links.find(field, text) ?? text;
    default:
      return text;
  }
}
