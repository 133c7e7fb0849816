/** How much a finding matters: an error breaks the level, a warning costs, a note informs. */
export type Severity = 'error' | 'warning' | 'note';

/** Errors come first. */
export const SEVERITY_RANKS: Readonly<Record<Severity, number>> = { error: 0, warning: 1, note: 2 };

/** The desk whose check made the finding. */
export const FINDING_DESKS = ['sets', 'layout', 'sections', 'cells', 'detail', 'sight', 'budget', 'pack'] as const;
export type FindingDesk = (typeof FINDING_DESKS)[number];

/** Where a finding lies; enough to go there with one click. Positions in metres. */
export interface FindingPlace {
  readonly level?: string;
  readonly stratum?: string;
  readonly item?: string;
  readonly piece?: string;
  readonly kit?: string;
  readonly register?: string;
  readonly entry?: string;
  readonly field?: string;
  /** Ids of levels in the order in which they were played to show it. */
  readonly path?: readonly string[];
  readonly position?: readonly [number, number, number];
  /** A polyline to draw, for example the way out of a leak. */
  readonly line?: readonly (readonly [number, number, number])[];
}

/** A repair that Stravel can make by itself. */
export interface FindingFix {
  readonly id: 'new-code' | 'remove-item';
  readonly label: string;
}

/** A problem found by a check: what, where, why it matters, a way to fix it. */
export interface Finding {
  /** Stable over bakes: made of code and subject, never of a position in a list. */
  readonly id: string;
  readonly code: string;
  readonly desk: FindingDesk;
  readonly severity: Severity;
  /** Id of the record that the finding is about. */
  readonly subject: string;
  readonly place: FindingPlace;
  readonly message: string;
  readonly why: string;
  readonly fixes: readonly FindingFix[];
}

/** Builds a finding whose id is made of its code and subject. */
export function finding(parts: Omit<Finding, 'id' | 'fixes'> & { fixes?: readonly FindingFix[] }): Finding {
  return { ...parts, id: `${parts.code}:${parts.subject}`, fixes: parts.fixes ?? [] };
}
