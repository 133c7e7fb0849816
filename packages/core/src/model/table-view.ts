export const CONDITION_TESTS = ['is', 'is not', 'contains', 'at least', 'at most', 'is filled', 'is empty'] as const;
export type ConditionTest = (typeof CONDITION_TESTS)[number];
export const VIEW_JOINS = ['all', 'any'] as const;

/** What a record's value in a column must be. */
export interface ViewCondition {
  /** Id of a column: a field's id, or 'name', 'purpose', 'code'. */
  readonly column: string;
  readonly test: ConditionTest;
  /** As a person types it; ignored by 'is filled' and 'is empty'. */
  readonly text: string;
}

export interface ViewSort {
  readonly column: string;
  readonly descending: boolean;
}

export interface ColumnWidth {
  readonly column: string;
  readonly pixels: number;
}
export const MIN_COLUMN_PIXELS = 48;
export const MAX_COLUMN_PIXELS = 900;

/** What of a table is shown, and in which order. */
export interface ViewRules {
  /** Whether all conditions must hold, or any of them. */
  readonly join: (typeof VIEW_JOINS)[number];
  readonly conditions: readonly ViewCondition[];
  /** The first decides, the next breaks ties. None: order of play by set. */
  readonly sorts: readonly ViewSort[];
  /** Ids of columns that are not shown. */
  readonly hidden: readonly string[];
  /** Ids of columns in the order in which they stand; those that are not named follow as the fields stand. */
  readonly columns?: readonly string[] | null;
  /** Widths that a person chose. */
  readonly widths?: readonly ColumnWidth[] | null;
  /** How many columns, from the first, stay in view when the table scrolls sideways. */
  readonly frozen?: number | null;
  /** Id of the column by whose values the lines are gathered; absent or null: by set. */
  readonly group?: string | null;
}

export const PLAIN_VIEW: ViewRules = { join: 'all', conditions: [], sorts: [], hidden: [] };

/** A view that was kept under a name. */
export interface TableView extends ViewRules {
  readonly id: string;
  readonly name: string;
  readonly order: string;
  /** Register whose table it shows; null: the levels. */
  readonly register: string | null;
}
