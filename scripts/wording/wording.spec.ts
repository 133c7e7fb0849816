import { fileURLToPath } from 'node:url';
import { PHRASES } from './phrases';
import { collectTexts, type Text } from './texts';

const texts = collectTexts(fileURLToPath(new URL('../..', import.meta.url)));
const told = ({ path, line, text }: Text): string => `${path}:${line}: ${text.trim().slice(0, 160)}`;

describe('what people read', () => {
  it('is collected from code, templates and docs', () => {
    for (const folder of ['packages/core/', 'packages/server/', 'packages/cli/', 'packages/web/', 'demo/', 'docs/'])
      expect(texts.filter(({ path }) => path.startsWith(folder)).length).toBeGreaterThan(50);
    expect(texts.filter(({ path }) => path.endsWith('.html')).length).toBeGreaterThan(400);
  });

  it.each(PHRASES.map((phrase) => [phrase.say, phrase] as const))('says %s', (_say, { found, except = [] }) => {
    const wrong = texts.filter(
      (one) => found.test(one.text) && !except.some(({ where }) => where.test(`${one.path}: ${one.text.trim()}`)),
    );
    expect(wrong.map(told)).toEqual([]);
  });
});
