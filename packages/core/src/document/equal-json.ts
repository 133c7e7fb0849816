import type { Json } from '../model/json';

/** Whether two values are the same, whatever the order of their keys. */
export function equalJson(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object') return false;
  if (Array.isArray(a) || Array.isArray(b)) {
    if (!Array.isArray(a) || !Array.isArray(b) || a.length !== b.length) return false;
    return a.every((value, i) => equalJson(value as Json, (b as readonly Json[])[i]));
  }
  const left = a as { readonly [key: string]: Json };
  const right = b as { readonly [key: string]: Json };
  const keys = Object.keys(left);
  return (
    keys.length === Object.keys(right).length && keys.every((key) => key in right && equalJson(left[key], right[key]))
  );
}
