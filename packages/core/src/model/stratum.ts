export const STRATUM_ROLES = ['base', 'structure', 'section', 'dressing', 'events', 'light'] as const;
export type StratumRole = (typeof STRATUM_ROLES)[number];

/** A slice of content: what is known of it without opening it. */
export interface Stratum {
  readonly id: string;
  readonly name: string;
  readonly role: StratumRole;
  /** Id of the level that owns it, null when it is shared. */
  readonly owner: string | null;
  /** Kit to which it belongs as an assembly; absent for what stands in the stacks of levels. */
  readonly kit?: string | null;
  /** Assemblies that stand in it or once did, in order of id: from them one knows, without opening it, what it reaches. */
  readonly assemblies?: readonly string[] | null;
}
