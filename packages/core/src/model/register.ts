import type { FieldValue } from './field';

/** A table of definitions that belong to the game and not to one level: moods, abilities, places. */
export interface Register {
  readonly id: string;
  /** In the plural: what its entries are. */
  readonly name: string;
  readonly help: string;
  readonly order: string;
  /** Whether its entries are kinds of volume or of marker; absent or null: neither. */
  readonly kindsOf?: 'volume' | 'marker' | null;
}

/** One line of a register. */
export interface Entry {
  readonly id: string;
  readonly register: string;
  readonly name: string;
  readonly order: string;
  readonly values: Readonly<Record<string, FieldValue>>;
}
