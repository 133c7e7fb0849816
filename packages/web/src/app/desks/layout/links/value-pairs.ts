import type { FieldScalar, FieldValue } from '@stravel/core';

const PAIR = /^\s*([A-Za-z][A-Za-z0-9]{0,40})\s*=\s*(.*?)\s*$/;

/** Reads 'key=value; key=value'; what reads as a number is one. @returns what is wrong instead, naming the part */
export function readPairs(
  text: string,
):
  | { readonly values: Record<string, FieldScalar>; readonly fault?: undefined }
  | { readonly values?: undefined; readonly fault: string } {
  const values: Record<string, FieldScalar> = {};
  for (const part of text.split(';')) {
    if (part.trim() === '') continue;
    const match = PAIR.exec(part);
    if (!match) return { fault: `“${part.trim()}” is not a value; write key=value, the next after a semicolon.` };
    const number = Number(match[2]);
    values[match[1]] = match[2] !== '' && Number.isFinite(number) ? number : match[2];
  }
  return { values };
}

export function pairsText(values: Readonly<Record<string, FieldValue>> | null | undefined): string {
  return Object.entries(values ?? {})
    .map(([key, value]) => `${key}=${Array.isArray(value) ? value.join(', ') : String(value ?? '')}`)
    .join('; ');
}
