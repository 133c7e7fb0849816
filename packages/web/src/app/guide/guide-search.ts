import MiniSearch from 'minisearch';
import type { GuideSection } from './guide-sections';

const MAX_FOUND = 20;

/** Finds sections by words, their beginnings, and words with a letter wrong; titles count most. */
export class GuideSearch {
  private readonly byId: ReadonlyMap<string, GuideSection>;
  private readonly index = new MiniSearch<GuideSection>({
    fields: ['title', 'of', 'text'],
    storeFields: ['isReference'],
    searchOptions: {
      boost: { title: 4, of: 2 },
      prefix: true,
      combineWith: 'AND',
      boostDocument: (_id, _word, stored) => (stored?.['isReference'] === true ? 0.3 : 1),
      fuzzy: (word) => (word.length > 4 ? 0.2 : false),
    },
  });

  constructor(sections: readonly GuideSection[]) {
    this.byId = new Map(sections.map((section) => [section.id, section]));
    this.index.addAll(sections);
  }

  /** The best first; none where a word occurs nowhere. */
  find(words: string): GuideSection[] {
    return this.index
      .search(words)
      .slice(0, MAX_FOUND)
      .flatMap(({ id }) => this.byId.get(String(id)) ?? []);
  }
}
