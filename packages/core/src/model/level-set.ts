/** A named group of levels, nested to any depth. */
export interface LevelSet {
  readonly id: string;
  readonly name: string;
  /** Id of the set above, null at the top. */
  readonly parent: string | null;
  readonly order: string;
  readonly binned: string | null;
}
