/** Most letters of a key; with its ending it is a file name on every system that a game is built on. */
export const MAX_KEY_LETTERS = 60;
/** What every key looks like: small letters, digits, single dashes between them. */
export const KEY_PATTERN = /^[a-z0-9]+(?:-[a-z0-9]+)*$/;
/** Names that no file may have on some system that a game is built on. */
const RESERVED = /^(?:con|prn|aux|nul|com\d|lpt\d)$/;

/** A name as a key: without accents and apostrophes, in small letters, digits and dashes, cut at a dash; '' when nothing of it can stay. */
export function keyFromName(name: string): string {
  const whole = name
    .normalize('NFD')
    .toLowerCase()
    .replace(/[\u0300-\u036f'’]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  if (whole.length <= MAX_KEY_LETTERS) return whole;
  const cut = whole.slice(0, MAX_KEY_LETTERS + 1);
  const dash = cut.lastIndexOf('-');
  return dash > 0 ? cut.slice(0, dash) : cut.slice(0, MAX_KEY_LETTERS);
}

/** What is wrong with a key, undefined when nothing is. Whether it is free is another question. */
export function keyFault(key: string): string | undefined {
  if (!KEY_PATTERN.test(key))
    return 'must be small letters a to z, digits and single dashes between them, such as sorting-hall';
  if (key.length > MAX_KEY_LETTERS) return `must have at most ${MAX_KEY_LETTERS} letters, has ${key.length}`;
  if (RESERVED.test(key)) return `must not be ${key}, a file name that some systems keep for themselves`;
  return undefined;
}
