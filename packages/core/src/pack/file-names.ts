/** Names that no file may have on some system that a game is built on. */
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d|manifest)$/;

/** A name as the name of a file, without ending: small letters, digits and dashes; '' when nothing of it can stay. */
export function packFileName(name: string): string {
  return name
    .normalize('NFD')
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
}

/** What is wrong with the file name of something, undefined when nothing is. @param mostLetters of the target */
export function fileNameFault(fileName: string, mostLetters: number): string | undefined {
  if (fileName === '') return 'has no letter or digit that a file name could be made of';
  if (RESERVED.test(fileName)) return `would be the file ${fileName}, a name that some systems keep for themselves`;
  if (fileName.length > mostLetters) return `would be a file name of ${fileName.length} letters, at most ${mostLetters} are taken`;
  return undefined;
}
