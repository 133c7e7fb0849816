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
  /** Place among the links of its emitter, sorted as text. Those without one come first, in order of id. */
  readonly order?: string | null;
}

/** Links of one emitter in the order in which the person put them. */
export function compareLinks(a: Pick<Link, 'id' | 'order'>, b: Pick<Link, 'id' | 'order'>): number {
  const [first, second] = [a.order ?? '', b.order ?? ''];
  if (first !== second) return first < second ? -1 : 1;
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}
