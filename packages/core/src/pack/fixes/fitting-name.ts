import { pieceNameFault } from '../../detail/rename-pieces';
import { isNamedBy } from '../rules/piece-names';

/** So many numbers are tried behind a name that is taken. */
const MAX_NUMBER = 10000;

/**
 * A name after another that is by a pattern, and that nobody has: in small or capital letters, with its words joined in
 * another way, with what the pattern begins with before it.
 * @param isTaken whether somebody is called so already
 * @returns undefined where none of these is by the pattern
 */
export function fittingName(name: string, pattern: string, isTaken: (name: string) => boolean): string | undefined {
  const isFree = (one: string): boolean => !isTaken(one) && pieceNameFault(one, []) === '';
  for (const base of [name, ...forms(name, pattern)]) {
    if (!isNamedBy(pattern, base)) continue;
    if (isFree(base)) return base;
    for (const joint of ['_', '-', '', ' ']) {
      // One that does not fit with one number does not fit with others.
      if (!isNamedBy(pattern, `${base}${joint}2`)) continue;
      for (let n = 2; n < MAX_NUMBER; n++) {
        const numbered = `${base}${joint}${n}`;
        if (isNamedBy(pattern, numbered) && isFree(numbered)) return numbered;
      }
    }
  }
  return undefined;
}

/** A name in the ways in which games write names. */
function forms(name: string, pattern: string): string[] {
  const words = name
    .normalize('NFKD')
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .split(/[^A-Za-z0-9]+/)
    .filter((word) => word !== '');
  const small = words.map((word) => word.toLowerCase());
  const large = small.map((word) => word[0].toUpperCase() + word.slice(1));
  const plain = [
    name.toLowerCase(),
    name.toUpperCase(),
    ...[small, large, small.map((word) => word.toUpperCase()), words].flatMap((one) =>
      ['_', '-', '', ' '].map((joint) => one.join(joint)),
    ),
    small.slice(0, 1).concat(large.slice(1)).join(''),
  ];
  const before = /^\^?([A-Za-z0-9_-]+)(?![?*+{|])/.exec(pattern)?.[1] ?? '';
  const joined = before.endsWith('_') || before.endsWith('-') ? before : `${before}_`;
  return before === '' ? plain : [...plain.map((one) => before + one), ...plain.map((one) => joined + one), ...plain];
}
