import type { Link, LinkEvent } from '@stravel/core';

/** What someone does for each event, as a sentence says it. */
export const EVENT_WORDS: Readonly<Record<LinkEvent, string>> = {
  enter: 'enters',
  leave: 'leaves',
  'last leaves': 'is the last to leave',
  used: 'uses',
};

export const ONCE_WORDS = { again: 'every time', once: 'only the first time' } as const;

/** A link as a sentence that is only read. @param nameOf what a thing is called */
export function linkSentence(link: Link, nameOf: (id: string) => string): string {
  const who = link.who === '' ? 'anyone' : link.who;
  const wait = link.delaySeconds > 0 ? `wait ${link.delaySeconds} s, then ` : '';
  const once = link.once ? ONCE_WORDS.once : ONCE_WORDS.again;
  return `When ${who} ${EVENT_WORDS[link.event]} ${nameOf(link.emitter)}, ${wait}${link.action} ${nameOf(link.target)}, ${once}.`;
}
