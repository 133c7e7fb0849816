import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { BUDGET_MEASURES } from '@stravel/core';
import { CAUSE_WORDS, causeWords } from './cause-words';

const CORE = join(__dirname, '../../../../core/src');

/** Codes that findings of the core are made with: as a field, or as the first of what a function is handed. */
function codesOfFindings(): string[] {
  const codes = readdirSync(CORE, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.spec.ts'))
    .map((name) => readFileSync(join(CORE, name), 'utf8'))
    .filter((text) => /\bfinding\(/.test(text))
    .flatMap((text) => [
      ...text.matchAll(/\bcode: (?:\w+ \? '([A-Z_]+)' : )?'([A-Z_]+)'/g),
      ...text.matchAll(/\b(?:found|tell|say)\(\s*(?:\w+,\s*){0,2}'([A-Z_]+)'/g),
    ])
    .flatMap(([, ...found]) => found.filter((code): code is string => code !== undefined));
  return [
    ...new Set([...codes, ...BUDGET_MEASURES.map((one) => `OVER_${one.replace(/([A-Z])/g, '_$1').toUpperCase()}`)]),
  ];
}

describe('the words of a cause', () => {
  it('are there for every code that a check gives', () => {
    const codes = codesOfFindings();
    expect(codes.length).toBeGreaterThan(40);
    expect(codes.filter((code) => !Object.hasOwn(CAUSE_WORDS, code))).toEqual([]);
  });

  it('of a code that is not known are its own', () => {
    expect([causeWords('OVER_TRIANGLES'), causeWords('NEW_FAULT'), causeWords('constructor')]).toEqual([
      'Over triangle budget',
      'New fault',
      'Constructor',
    ]);
  });
});
