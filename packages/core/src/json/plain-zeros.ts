import type { Json } from '../model/json';
import type { Plain } from './plain-json';

/** The same data with 0 in place of each −0, which files hold as 0 as well; the data itself where there is none. */
export function plainZeros<T extends Json>(json: T): T;
export function plainZeros<T>(plain: T & Plain<T>): T;
export function plainZeros(json: Json): Json {
  // Nearly all data has none, and then nothing is made anew.
  return hasMinusZero(json) ? withPlainZeros(json) : json;
}

function hasMinusZero(json: Json): boolean {
  if (typeof json !== 'object' || json === null) return Object.is(json, -0);
  return Object.values(json).some(hasMinusZero);
}

function withPlainZeros(json: Json): Json {
  if (json === 0) return 0;
  if (typeof json !== 'object' || json === null) return json;
  if (Array.isArray(json)) {
    const list: readonly Json[] = json;
    return list.map((one) => plainZeros(one));
  }
  return Object.fromEntries(Object.entries(json).map(([key, one]): [string, Json] => [key, plainZeros(one)]));
}
