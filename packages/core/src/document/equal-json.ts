import { isJsonList, isJsonTable, type Json } from '../model/json';

/** Whether two values are the same, whatever the order of their keys. */
export function equalJson(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (isJsonList(a) || isJsonList(b)) {
    if (!isJsonList(a) || !isJsonList(b) || a.length !== b.length) return false;
    return a.every((value, i) => equalJson(value, b[i]));
  }
  if (!isJsonTable(a) || !isJsonTable(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && equalJson(a[key], b[key]));
}
