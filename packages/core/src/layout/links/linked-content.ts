import { kindsWith } from '../../items';
import type { ItemKind, StratumContent } from '../../model/items';

/** What links are read with, beside what they lead to. */
const WITH_LINKS: readonly ItemKind[] = ['link', 'group'];

/** Of a stratum's content its links, and all that links may begin and end at. */
export function linkedContent(content: StratumContent): Partial<StratumContent> {
  return contentOf(content, [...kindsWith('linked'), ...WITH_LINKS]);
}

/** Some kinds of a stratum's content. */
export function contentOf(content: StratumContent, kinds: Iterable<ItemKind>): Partial<StratumContent> {
  return Object.fromEntries([...new Set(kinds)].map((kind) => [kind, content[kind]])) as Partial<StratumContent>;
}
