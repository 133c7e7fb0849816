import { CSV } from './csv/spec';
import type { FormatSpec } from './format-spec';
import { GLB } from './glb/spec';
import { GLTF } from './gltf/spec';
import { MTL, OBJ } from './obj/spec';
import { JPEG, KTX2, PNG, WEBP } from './pictures/spec';
import { ARCHIVE } from './zip/spec';

/** Every format that comes in: a new one is a room and a line here. Of those that a text may be, the narrower ones come first. */
export const FORMATS = {
  glb: GLB,
  png: PNG,
  jpeg: JPEG,
  webp: WEBP,
  ktx2: KTX2,
  archive: ARCHIVE,
  gltf: GLTF,
  mtl: MTL,
  obj: OBJ,
  csv: CSV,
} as const satisfies Readonly<Record<string, FormatSpec>>;

export type FormatId = keyof typeof FORMATS;
export const FORMAT_IDS = Object.keys(FORMATS) as readonly FormatId[];
