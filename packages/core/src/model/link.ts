import type { FieldValue } from './field';

export const LINK_EVENTS = ['enter', 'leave', 'last leaves', 'used'] as const;
export type LinkEvent = (typeof LINK_EVENTS)[number];

/** When something happens to one thing, another does something. */
export interface Link {
  readonly id: string;
  /** Id of a volume or marker of the level. */
  readonly emitter: string;
  readonly event: LinkEvent;
  /** Who must do it, in the game's own words; '' is anyone. */
  readonly who: string;
  /** Only the first time. */
  readonly once: boolean;
  readonly delaySeconds: number;
  /** What the target does, in the game's own words. */
  readonly action: string;
  /** Id of an item or group of the level. */
  readonly target: string;
  readonly arguments: Readonly<Record<string, FieldValue>>;
  /** Place among the links of its emitter, sorted as text. Those without one come first, by id. */
  readonly order?: string | null;
}
