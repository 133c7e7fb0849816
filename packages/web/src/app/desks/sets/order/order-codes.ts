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
