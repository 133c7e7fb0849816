/** What can stand in a document. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** Whether a value is a table of others, and neither a list nor null. */
export function isJsonTable(value: unknown): value is { readonly [key: string]: Json } {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Whether a value is a list of others. */
export function isJsonList(value: unknown): value is readonly Json[] {
  return Array.isArray(value);
}
