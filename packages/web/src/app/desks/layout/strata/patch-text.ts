import type { Json, JsonRecord } from '@stravel/core';

const LONGEST_TEXT = 60;

/** Whether a value is a table of others. */
export function isPlainTable(value: Json): value is JsonRecord {
  return value !== null && typeof value === 'object' && !Array.isArray(value);
}

/** A value of an item in few words. */
export function valueText(value: Json): string {
  if (value === null) return '—';
  const text = typeof value === 'string' ? value : Array.isArray(value) && value.every((one) => typeof one === 'number') ? value.join(', ') : JSON.stringify(value);
  return text.length > LONGEST_TEXT ? `${text.slice(0, LONGEST_TEXT)}…` : text;
}
