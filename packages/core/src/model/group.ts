export const GROUP_COLOURS = ['none', 'kiln', 'brine', 'moss', 'ochre', 'madder', 'slate'] as const;
export type GroupColour = (typeof GROUP_COLOURS)[number];

/** Why and since when a group is not part of the level. */
export interface SetAside {
  readonly reason: string;
  /** Date, year-month-day. */
  readonly since: string;
}

/** A named folder inside a stratum. Items name the group that they stand in. */
export interface Group {
  readonly id: string;
  readonly name: string;
  /** The group that it stands in; null at the top. */
  readonly parent: string | null;
  /** What it is for, in the words of the collection; may be ''. */
  readonly category: string;
  readonly colour: GroupColour;
  /** Not in test runs, still in the level. */
  readonly switchedOff: boolean;
  /** Why it must not be deleted by accident; '' when it may. */
  readonly guard: string;
  /** Kept, but not part of the level; null when it is part of it. */
  readonly aside: SetAside | null;
}

/** One folder of a group template. */
export interface GroupTemplatePart {
  readonly name: string;
  /** Index of the part that it stands in, which comes before it; null at the top. */
  readonly parent: number | null;
  readonly category: string;
  readonly colour: GroupColour;
}

/** Folders that are made together, as the collection likes them. */
export interface GroupTemplate {
  readonly name: string;
  readonly parts: readonly GroupTemplatePart[];
}
