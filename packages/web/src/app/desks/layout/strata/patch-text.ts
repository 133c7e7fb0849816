import type { Json } from '@stravel/core';

const LONGEST_TEXT = 60;

/** A value of an item in few words. */
export function valueText(value: Json): string {
  if (value === null) return '—';
  const text =
    typeof value === 'string'
      ? value
      : Array.isArray(value) && value.every((one) => typeof one === 'number')
        ? value.join(', ')
        : JSON.stringify(value);
  return text.length > LONGEST_TEXT ? `${text.slice(0, LONGEST_TEXT)}…` : text;
}
