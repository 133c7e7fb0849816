/** A statement of an OBJ or MTL file. */
export interface ObjStatement {
  readonly words: readonly string[];
  /** Number of its first line, from 1. */
  readonly line: number;
}

/** Statements whose last words are a name, in which a # is a letter. */
const NAMED = new Set(['o', 'g', 'usemtl', 'newmtl']);

/**
 * The statements of an OBJ or MTL file: lines without remarks and without those that are empty; a line that ends with \ goes on in
 * the next. Lines end with LF, CR LF, or CR alone in a file that has no LF.
 */
export function* objStatements(text: string): Generator<ObjStatement> {
  const end = text.includes('\n') ? '\n' : '\r';
  let line = 0;
  let [first, begun] = [1, ''];
  for (let at = 0; at <= text.length;) {
    let to = text.indexOf(end, at);
    if (to < 0) to = text.length;
    line++;
    if (begun === '') first = line;
    const part = text.slice(at, to).trimEnd();
    at = to + 1;
    if (part.endsWith('\\') && to < text.length) {
      begun += `${part.slice(0, -1)} `;
      continue;
    }
    const words = wordsOf(begun + part);
    begun = '';
    if (words.length > 0) yield { words, line: first };
  }
}

function wordsOf(line: string): string[] {
  const text = line.trim();
  if (text === '' || text.startsWith('#')) return [];
  const words = text.split(/\s+/);
  const remark = NAMED.has(words[0].toLowerCase()) ? -1 : words.findIndex((word) => word.startsWith('#'));
  return remark < 0 ? words : words.slice(0, remark);
}
