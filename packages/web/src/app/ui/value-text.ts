import type { Json } from '@stravel/core';

/** A value as a person reads it. */
export function valueText(value: Json): string {
  if (value === null || value === '') return '—';
  if (value === true) return 'yes';
  if (value === false) return 'no';
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  const text = JSON.stringify(value);
  return text.length > 80 ? `${text.slice(0, 77)}…` : text;
}
