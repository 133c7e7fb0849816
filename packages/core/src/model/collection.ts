import type { ViewSettings } from './view-settings';

/** All the levels of one game: what stands once for the whole. */
export interface CollectionSettings {
  /** Always 'collection'. */
  readonly id: string;
  readonly name: string;
  /** Names of the ranks of sets from the top, for example Part, Chapter. */
  readonly ranks: readonly string[];
  /** Absent or null: DEFAULT_VIEW. */
  readonly view?: ViewSettings | null;
}
