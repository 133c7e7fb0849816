/** A finding that a person accepts for now. Its id is the finding's id. */
export interface Acceptance {
  readonly id: string;
  readonly reason: string;
  /** Date on which it asks again, 'YYYY-MM-DD'. */
  readonly until: string;
  readonly person: string;
}
