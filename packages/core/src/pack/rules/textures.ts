import { keyFromName } from '../../fields/key-text';
import { refused, type PackRule } from './rule';

export const TEXTURES: PackRule = {
  kit: ({ kit, inspection }) =>
    inspection.missingTextures.map((texture) =>
      refused({
        code: 'PACK_TEXTURE_MISSING',
        subject: `${kit.id}.${keyFromName(texture)}`,
        place: { kit: kit.id },
        message: `The texture ${texture} of ${kit.name} is not in its GLB`,
        why: 'Its pieces would be drawn without it. Import the pieces’ files again, with their pictures.',
      }),
    ),
};

export const TEXTURE_SIZE: PackRule = {
  kit: ({ kit, inspection }, { max }, { target }) =>
    inspection.textures
      .filter(({ widthPixels, heightPixels }) => Math.max(widthPixels, heightPixels) > max)
      .map(({ name, widthPixels, heightPixels }) =>
        refused({
          code: 'PACK_TEXTURE_LARGE',
          subject: `${kit.id}.${keyFromName(name)}`,
          place: { kit: kit.id },
          message: `The texture ${name} of ${kit.name} is ${widthPixels} by ${heightPixels} pixels; ${target.name} takes ${max}`,
          why: 'The game that loads this target could not hold it.',
        }),
      ),
};

/** What compressed meshes need. */
const MESHOPT = 'EXT_meshopt_compression';

export const EXTENSIONS: PackRule = {
  kit: ({ kit, inspection }, { text }, { target }) => {
    const allowed = new Set(namesIn(text));
    const packed = target.compression === 'meshopt' ? [MESHOPT] : [];
    return [...inspection.extensions, ...packed]
      .filter((extension) => !allowed.has(extension))
      .map((extension) =>
        refused({
          code: 'PACK_EXTENSION',
          subject: `${kit.id}.${extension}`,
          place: { kit: kit.id },
          message: `The meshes of ${kit.name} use the glTF extension ${extension}, which ${target.name} does not allow`,
          why: 'The game would draw them wrongly, or not at all. Import the pieces’ files again without it, or allow it in the target.',
        }),
      );
  },
};

/** The names in a text that has commas between them. */
export function namesIn(text: string): string[] {
  return text
    .split(',')
    .map((name) => name.trim())
    .filter((name) => name !== '');
}
