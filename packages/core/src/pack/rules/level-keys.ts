import { refused, type PackRule } from './rule';

/** Files are named by keys. */
export const LEVEL_KEYS: PackRule = {
  level: ({ level: { id, name, key } }, { max }, { target }) =>
    key.length <= max
      ? []
      : [
          refused({
            code: 'PACK_FILE_NAME',
            subject: id,
            place: { level: id },
            message: `The key of ${name} has ${key.length} letters; ${target.name} takes file names of ${max}`,
            why: 'The pack could not be unpacked everywhere. Give the level a shorter key on the Sets desk.',
          }),
        ],
};
