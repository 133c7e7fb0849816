import type { CodePattern } from '../model/code-pattern';

/** Why a pattern for codes is of no use; null when it is. */
export function codePatternFault({ alphabet, length }: CodePattern): string | null {
  const letters = [...alphabet.toUpperCase()];
  const twice = letters.find((letter, i) => letters.indexOf(letter) !== i);
  if (letters.length < 2) return 'A code needs at least two different characters to be made of.';
  if (twice !== undefined) return `${twice} stands twice in the alphabet; capitals and small letters count as one.`;
  if (letters.some((letter) => letter.trim() === '')) return 'A code must not have blanks.';
  if (!Number.isInteger(length) || length < 1 || length > 40)
    return `A code must be 1 to 40 characters long, is ${length}.`;
  return null;
}
