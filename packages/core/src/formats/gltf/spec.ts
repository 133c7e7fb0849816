import { MEGABYTE, textOf, type FormatSpec } from '../format-spec';

/** What stands at the top of a glTF: its first key tells it from other JSON, or that it says what made it. */
const TOP =
  /^\s*\{\s*"(?:accessors|animations|asset|bufferViews|buffers|cameras|extensions|extensionsRequired|extensionsUsed|images|materials|meshes|nodes|samplers|scenes?|skins|textures)"\s*:|^\s*\{[^]*"asset"\s*:/;

/** glTF 2.0 as JSON, with buffers and pictures in it or beside it. */
export const GLTF: FormatSpec = {
  words: 'a glTF mesh',
  extensions: ['.gltf'],
  mediaTypes: ['model/gltf+json'],
  text: 'named',
  isOf: (head) => TOP.test(textOf(head) ?? ''),
  maxBytes: 1000 * MEGABYTE,
  task: 'read-pieces',
};
