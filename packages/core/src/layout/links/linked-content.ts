import { contentOfSome, kindsWith, listOf } from '../../items';
import type { ItemKind, StratumContent } from '../../model/items';

/** Of a stratum's content its links, and all that links may begin and end at. */
export function linkedContent(content: StratumContent): Partial<StratumContent> {
  const { link, group } = content;
  return { ...contentOf(content, kindsWith('linked')), link, group };
}

/** Some kinds of a stratum's content. */
export function contentOf(content: StratumContent, kinds: Iterable<ItemKind>): Partial<StratumContent> {
  return contentOfSome(kinds, (kind) => listOf(content, kind));
}
