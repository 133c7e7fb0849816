import { Marked, type Token } from 'marked';

/** A page of docs as it is written. */
export interface GuideSource {
  readonly id: string;
  readonly text: string;
  /** For looking things up: found after what explains a desk. */
  readonly isReference?: boolean;
}

/** What stands under one heading. */
export interface GuideSection {
  /** Page and heading: 'layout/links'; of what stands before the first heading, the page alone. */
  readonly id: string;
  readonly page: string;
  /** Title of the page. */
  readonly of: string;
  readonly title: string;
  readonly html: string;
  readonly isReference: boolean;
  /** Words without markup, for the search. */
  readonly text: string;
}

/** A heading in an address: small letters, digits and dashes. */
export function slugOf(heading: string): string {
  return heading
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
}

const PICTURES = /^\.\.\/screenshots\//;
const PAGE = /^(?:\.\.\/)?([a-z-]+)\.md$/;

/** The sections of a page: one for each heading of the second rank. Pictures are served beside the page; links lead within the guide. */
export function sectionsOf(
  { id, text, isReference = false }: GuideSource,
  isPage: (id: string) => boolean,
): GuideSection[] {
  const marked = new Marked({
    renderer: {
      image: ({ href, text: label }) => `<img src="${href.replace(PICTURES, 'guide/')}" alt="${label}">`,
      link({ href, tokens }) {
        const words = this.parser.parseInline(tokens);
        const page = PAGE.exec(href)?.[1];
        return page !== undefined && isPage(page)
          ? `<a href="guide:${page}">${words}</a>`
          : `${words} (${href.replace(/^(\.\.\/)+/, 'docs/')})`;
      },
    },
  });
  const parts: { title: string; tokens: Token[] }[] = [{ title: '', tokens: [] }];
  for (const token of marked.lexer(text)) {
    if (token.type === 'heading' && token['depth'] === 1) parts[0].title = String(token['text']);
    else if (token.type === 'heading' && token['depth'] === 2) parts.push({ title: String(token['text']), tokens: [] });
    else parts[parts.length - 1].tokens.push(token);
  }
  const of = parts[0].title;
  return parts
    .filter(({ tokens }, i) => i === 0 || tokens.length > 0)
    .map(({ title, tokens }, i) => {
      const html = marked.parser(tokens);
      return {
        id: i === 0 ? id : `${id}/${slugOf(title)}`,
        page: id,
        of,
        title,
        html,
        isReference,
        text: html
          .replace(/<[^>]*>/g, ' ')
          .replace(/&[a-z]+;|&#\d+;/g, ' ')
          .replace(/\s+/g, ' ')
          .trim(),
      };
    });
}
