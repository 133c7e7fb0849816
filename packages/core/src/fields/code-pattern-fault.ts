import type { CodePattern } from '../model/code-pattern';

/** Why a pattern for codes is of no use; null when it is. */
export function codePatternFault({ alphabet, length }: CodePattern): string | null {
  const letters = [...alphabet.toUpperCase()];
  const twice = letters.find((letter, i) => letters.indexOf(letter) !== i);
  if (letters.length < 2) return 'A code pattern needs at least two different characters.';
  if (twice !== undefined) return `${twice} is in the characters twice; upper and lower case count as one.`;
  if (letters.some((letter) => letter.trim() === '')) return 'A code must not have blanks.';
  if (!Number.isInteger(length) || length < 1 || length > 40)
    return `A code must be 1 to 40 characters long, is ${length}.`;
  return null;
}
