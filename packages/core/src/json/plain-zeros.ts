import type { Json } from '../model/json';
import type { Plain } from './plain-json';

/** The same data with 0 in place of each −0, which files hold as 0 as well; the data itself where there is none. */
export function plainZeros<T extends Json>(json: T): T;
export function plainZeros<T>(plain: T & Plain<T>): T;
export function plainZeros(json: Json): Json {
  if (json === 0) return 0;
  if (typeof json !== 'object' || json === null) return json;
  if (Array.isArray(json)) {
    const list: readonly Json[] = json;
    const plain = list.map((one) => plainZeros(one));
    return plain.some((one, i) => !Object.is(one, list[i])) ? plain : list;
  }
  const entries = Object.entries(json);
  const plain = entries.map(([key, one]): [string, Json] => [key, plainZeros(one)]);
  return plain.some(([, one], i) => !Object.is(one, entries[i][1])) ? Object.fromEntries(plain) : json;
}
