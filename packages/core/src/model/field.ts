export const FIELD_TYPES = [
  'text',
  'long text',
  'number',
  'whole number',
  'yes/no',
  'choice',
  'date',
  'colour',
  'point',
  'picture',
  'level',
  'entry',
] as const;
/** What a field holds. 'level' and 'entry' are links, held as ids; a 'picture' is held as the name of its asset, a SHA-256. */
export type FieldType = (typeof FIELD_TYPES)[number];

/** A figure of a level that a field shows instead of a value of its own. */
export const FIELD_FIGURES = [
  'strata',
  'triangles of the worst pocket',
  'draw calls of the worst pocket',
  'memory bytes',
  'disk bytes',
  'markers',
  'placements',
] as const;
export type FieldFigure = (typeof FIELD_FIGURES)[number];

/** A typed value that every level, or every entry of a register, has. */
export interface Field {
  readonly id: string;
  /** Name of the value inside `values`. */
  readonly key: string;
  readonly name: string;
  readonly type: FieldType;
  /** Allowed values of a choice, in order; empty for other types. */
  readonly choices: readonly string[];
  readonly order: string;
  /** Register whose entries have it; absent or null: the levels. */
  readonly register?: string | null;
  /** Whether it holds a list of values of the type. */
  readonly list?: boolean | null;
  /** Heading under which it stands with others. */
  readonly group?: string | null;
  /** What a person should know who fills it. */
  readonly help?: string | null;
  /** What a new level or entry gets. */
  readonly default?: FieldValue;
  readonly required?: boolean | null;
  /** No two may have the same value, without regard to case. */
  readonly unique?: boolean | null;
  /** Range of a number, both ends allowed. */
  readonly low?: number | null;
  readonly high?: number | null;
  /** What text must match as a whole, a regular expression of the linear-time kind. */
  readonly pattern?: string | null;
  /** Of a link to an entry: the register. Of a link to a level: the set it must stand in, at any depth. */
  readonly target?: string | null;
  /** Shown instead of a value, read-only. */
  readonly figure?: FieldFigure | null;
  /** Of the figures 'markers' and 'placements': the one kind of marker, or the id of the one piece, that is counted; absent or null: all. */
  readonly counted?: string | null;
}

/** One value: dates are 'YYYY-MM-DD', colours '#rrggbb', points xyz in metres, links ids. */
export type FieldScalar = boolean | number | string | readonly [number, number, number];
/** A value of a field: null when not filled, a list when the field holds one. */
export type FieldValue = null | FieldScalar | readonly FieldScalar[];
