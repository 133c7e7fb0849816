import { MEGABYTE, firstLine, type FormatSpec } from '../format-spec';

/** What holds nothing but remarks so far may be one. */
function beginsWith(head: Uint8Array, statement: RegExp): boolean {
  const line = firstLine(head);
  return (line === '' && head.length > 0) || (line !== undefined && statement.test(line));
}

export const OBJ: FormatSpec = {
  words: 'an OBJ mesh',
  extensions: ['.obj'],
  mediaTypes: ['model/obj'],
  text: 'named',
  isOf: (head) =>
    beginsWith(head, /^(?:v[npt]?|[fglops]|mg|lod|bevel|[cd]_interp|call|cstype|deg|mtllib|usemtl|maplib|usemap)\s/),
  maxBytes: 1000 * MEGABYTE,
  task: 'read-pieces',
};

export const MTL: FormatSpec = {
  words: 'an MTL file of materials',
  extensions: ['.mtl'],
  mediaTypes: ['model/mtl'],
  text: 'named',
  isOf: (head) => beginsWith(head, /^newmtl\s/),
  maxBytes: 64 * MEGABYTE,
  task: null,
};
