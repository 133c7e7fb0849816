import { CoreError } from '../errors';
import type { DroppedFile } from '../formats/dropped-file';
import { HEAD_BYTES } from '../formats/format-spec';
import { ARCHIVE } from '../formats/zip/spec';
import { unpackZip } from '../formats/zip/unpack-zip';

/** Most bytes of all files of one drop. */
const MAX_IMPORT_BYTES = 1024 * 1024 * 1024;
/** Files of one zip at most. */
const MAX_ZIP_FILES = 100000;
/** What systems put beside files for themselves. */
const OF_SYSTEMS = /(^|\/)(__MACOSX\/|\.|Thumbs\.db$|desktop\.ini$)/i;

/** The files with those in zips instead of the zips, named with their folders. @throws CoreError 'IMPORT_FILES' when they are too large together */
export function unpackedFiles(files: readonly DroppedFile[]): DroppedFile[] {
  let left = MAX_IMPORT_BYTES;
  const unpacked = files.flatMap((file): DroppedFile[] => {
    if (!ARCHIVE.isOf(file.bytes.subarray(0, HEAD_BYTES))) return [file];
    const inside = unpackZip(file.bytes, {
      limits: { unpackedBytes: left, files: MAX_ZIP_FILES },
      isWanted: (path) => !path.endsWith('/') && !OF_SYSTEMS.test(path),
      fault: (_rule, message, path, cause) =>
        new CoreError('IMPORT_FILES', `import: ${file.name}, ${message}`, { path }, { cause }),
    });
    for (const { length } of inside.values()) left -= length;
    return [...inside].map(([path, bytes]) => ({ name: `${file.name}/${path}`, bytes }));
  });
  const total = unpacked.reduce((sum, { bytes }) => sum + bytes.length, 0);
  if (total > MAX_IMPORT_BYTES)
    throw new CoreError(
      'IMPORT_FILES',
      `import: takes at most ${MAX_IMPORT_BYTES} bytes together, the files have ${total}`,
    );
  return unpacked;
}
