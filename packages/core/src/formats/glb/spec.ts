import { MEGABYTE, begins, type FormatSpec } from '../format-spec';

/** glTF 2.0, binary: begins with "glTF". */
export const GLB: FormatSpec = {
  words: 'a GLB mesh',
  extensions: ['.glb'],
  mediaTypes: ['model/gltf-binary'],
  isOf: (head) => begins(head, [0x67, 0x6c, 0x54, 0x46]),
  maxBytes: 1000 * MEGABYTE,
  task: 'read-pieces',
};
