import { heldAt, type Finding, type RecordTables } from '@stravel/core';

/** Findings as rows of a file, in the order in which they are listed. */
export function findingsCsvRows(findings: readonly Finding[], tables: Pick<RecordTables, 'level'>): string[][] {
  return [
    ['Severity', 'Desk', 'Level', 'Code', 'Message', 'Why it matters', 'X', 'Y', 'Z'],
    ...findings.map(({ severity, desk, code, message, why, place }) => [
      severity,
      desk,
      place.level === undefined ? '' : (heldAt(tables.level, place.level)?.name ?? place.level),
      code,
      message,
      why,
      ...(place.position ?? ['', '', '']).map(String),
    ]),
  ];
}
