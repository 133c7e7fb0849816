import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { GuideSearch } from './guide-search';
import { sectionsOf, slugOf, type GuideSource } from './guide-sections';

const DOCS = join(__dirname, '../../../../../docs');
const APP = join(__dirname, '..');
const pages: GuideSource[] = readdirSync(join(DOCS, 'guide'))
  .filter((name) => name !== 'README.md')
  .map((name) => ({ id: name.replace('.md', ''), text: readFileSync(join(DOCS, 'guide', name), 'utf8') }));
const sections = pages.flatMap((page) => sectionsOf(page, (id) => pages.some((one) => one.id === id)));
const DESKS = ['sets', 'layout', 'sections', 'cells', 'detail', 'sight', 'budget', 'pack'];

describe('a page of the guide', () => {
  it('falls into what stands under its headings, by hand', () => {
    const page = {
      id: 'p',
      text: '# Page\n\nFirst.\n\n## A head: of *two*\n\nSee [other](other.md), [far](../formats/x.md).\n\n![Pic](../screenshots/a.png)\n\n## Empty\n',
    };
    const [first, second, ...rest] = sectionsOf(page, (id) => id === 'other');
    expect([first.id, first.title, first.text, second.id, second.of, rest]).toEqual([
      'p',
      'Page',
      'First.',
      'p/a-head-of-two',
      'Page',
      [],
    ]);
    expect(second.html).toContain('<a href="guide:other">other</a>');
    expect(second.html).toContain('far (docs/formats/x.md)');
    expect(second.html).toContain('<img src="guide/a.png" alt="Pic">');
    expect(slugOf('  Save & undo! ')).toBe('save-undo');
  });

  it('says of every desk what goes in, what comes out and what to do first', () => {
    for (const desk of DESKS) {
      const head = sections.find(({ id }) => id === `${desk}/what-goes-in-what-comes-out-first-steps`);
      expect([desk, head?.text]).toEqual([desk, expect.stringMatching(/Goes in .+ Comes out .+ First .+/)]);
    }
  });

  it('shows pictures that are there, under 20 in all', () => {
    const shown = pages.flatMap(({ text }) =>
      [...text.matchAll(/\]\(\.\.\/screenshots\/([^)]+)\)/g)].map(([, name]) => name),
    );
    const there = readdirSync(join(DOCS, 'screenshots'));
    expect(there.length).toBeLessThan(20);
    expect(shown.filter((name) => !there.includes(name))).toEqual([]);
    expect(shown.length).toBeGreaterThan(12);
  });

  it('links to files that are there', () => {
    for (const { text } of pages)
      for (const [, href] of text.matchAll(/\]\(([^)]+)\)/g))
        expect(() => readFileSync(join(DOCS, 'guide', href))).not.toThrow();
  });

  it('has a section for every question mark of the application', () => {
    const asked = readdirSync(APP, { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.(html|ts)$/.test(name) && !name.endsWith('.spec.ts'))
      .flatMap((name) =>
        [...readFileSync(join(APP, name), 'utf8').matchAll(/<sv-help[^>]*about="([^"]+)"/g)].map(([, about]) => about),
      );
    expect(asked.length).toBeGreaterThan(15);
    expect(asked.filter((about) => !sections.some(({ id }) => id === about))).toEqual([]);
  });
});

describe('the search of the guide', () => {
  const search = new GuideSearch(sections);
  const found = (words: string): string[] => search.find(words).map(({ id }) => id);

  it('finds by title first, by the beginning of words, and with a letter wrong', () => {
    expect(found('links')[0]).toBe('layout/links');
    expect(found('mask')[0]).toBe('layout/masks');
    expect(found('readin')).toContain('sets/readiness');
    expect(found('assembleis')).toContain('layout/assemblies');
    expect(found('tile goal')).toContain('layout/tile-floors');
  });

  it('finds what explains a desk before what is looked up', () => {
    const text = '# Page\n\n## Tile floors\n\nThe goal.\n';
    const twice = [
      ...sectionsOf({ id: 'model', text, isReference: true }, () => false),
      ...sectionsOf({ id: 'layout', text }, () => false),
    ];
    expect(new GuideSearch(twice).find('tile goal').map(({ id }) => id)).toEqual([
      'layout/tile-floors',
      'model/tile-floors',
    ]);
  });

  it('finds nothing by words that are nowhere, by one of two, or by no word', () => {
    expect([found('xylophone'), found('mask xylophone'), found(' . ')]).toEqual([[], [], []]);
  });
});
