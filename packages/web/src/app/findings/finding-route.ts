import type { Finding } from '@stravel/core';

/** Findings about how levels open. */
export const ORDER_CODES: ReadonlySet<string> = new Set([
  'START_MISSING',
  'LEVEL_NEVER_OPENS',
  'LEVEL_NOT_DECIDED',
  'THRESHOLD_TOO_HIGH',
  'SENDS_BACK',
  'RULE_FIRES_AGAIN',
  'SAME_MOMENT',
  'LEVEL_SHUT',
  'SHUT_NOT_DECIDED',
]);

/** Where a click on a finding leads. */
export function findingRoute({ desk, place, code }: Finding): {
  readonly path: readonly string[];
  readonly query: Readonly<Record<string, string>>;
} {
  const { level, item, position, piece, kit, register, entry, field } = place;
  const column: Readonly<Record<string, string>> = field === undefined ? {} : { column: field };
  if (piece !== undefined) return { path: ['/detail'], query: { piece } };
  if (kit !== undefined) return { path: ['/detail'], query: { kit } };
  if (register !== undefined)
    return { path: ['/sets/register', register], query: entry === undefined ? {} : { entry, ...column } };
  if (ORDER_CODES.has(code)) return { path: ['/sets/order'], query: level === undefined ? {} : { level } };
  if (desk === 'sets' || level === undefined)
    return { path: ['/sets'], query: level === undefined ? {} : { at: level, ...column } };
  if (desk === 'sections') return { path: ['/sections', level], query: item === undefined ? {} : { item } };
  if (desk === 'cells') return { path: ['/cells', level], query: position ? { at: position.join(',') } : {} };
  if (item !== undefined) return { path: ['/layout', level], query: { item } };
  // A name is changed on the Sets desk, a count in Layout.
  if (desk === 'pack')
    return { path: code === 'PACK_COUNT' || code === 'PACK_EMPTY' ? ['/layout', level] : ['/sets'], query: {} };
  if (desk === 'budget' && !position) return { path: ['/budget'], query: {} };
  return { path: ['/sight', level], query: position ? { at: position.join(',') } : {} };
}
