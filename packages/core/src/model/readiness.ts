/** What a collection asks of a level before it counts as ready. */
export interface ReadinessRules {
  /** Ids of fields that must be filled. */
  readonly fields: readonly string[];
  /** At least one marker of the kind stands in the level. */
  readonly spawn: boolean;
  readonly exit: boolean;
  /** It has a code, and no other level has it. */
  readonly code: boolean;
  /** Its bakes agree with what stands. */
  readonly bakes: boolean;
  /** No open finding of the severity error is about it. */
  readonly findings: boolean;
  /** Ids of devices on which it must be within budget. */
  readonly devices: readonly string[];
}

/** What is asked as long as nobody chose otherwise. */
export const DEFAULT_READINESS: ReadinessRules = {
  fields: [],
  spawn: true,
  exit: true,
  code: false,
  bakes: true,
  findings: true,
  devices: [],
};
