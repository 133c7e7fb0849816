import { strFromU8, unzipSync } from 'fflate';
import { CoreError } from '../../errors';
import type { Json } from '../../model/json';
import { parseJson } from '../canonical-json';
import { sha256Hex } from '../sha256';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, INDEX_PATH } from './archive-files';

/** What an archive may cost to open. */
export interface ArchiveLimits {
  /** All files together, unpacked, bytes. Default 1 GiB. */
  readonly unpackedBytes: number;
  /** Number of files. Default 100,000. */
  readonly files: number;
}

export const DEFAULT_ARCHIVE_LIMITS: ArchiveLimits = { unpackedBytes: 1073741824, files: 100000 };

const ALLOWED_PATH = /^(?:[a-z]+(?:-[a-z]+)*\.json|(?:levels|strata|kits)\/[A-Za-z0-9_-][A-Za-z0-9._-]*\.(?:json|glb)|pictures\/[0-9a-f]{64}\.(?:png|jpg|webp))$/;

/**
 * The files of an archive by path, each checked against the index. Nothing is unpacked before its claims are checked.
 * @throws CoreError 'ARCHIVE_UNREADABLE' | 'ARCHIVE_PATH' | 'ARCHIVE_TOO_LARGE' | 'ARCHIVE_NEWER' | 'ARCHIVE_FILE', naming the file
 */
export function openArchive(bytes: Uint8Array, limits: ArchiveLimits = DEFAULT_ARCHIVE_LIMITS): Map<string, Uint8Array> {
  const files = unpack(bytes, limits);
  const indexBytes = files.get(INDEX_PATH);
  if (!indexBytes) throw new CoreError('ARCHIVE_UNREADABLE', `archive: it has no ${INDEX_PATH}, so it is not a Stravel archive`);
  files.delete(INDEX_PATH);
  const listed = readIndex(parseJson(text(indexBytes, INDEX_PATH), INDEX_PATH));
  for (const { path, length, sha256 } of listed) {
    const file = files.get(path);
    if (!file) throw new CoreError('ARCHIVE_FILE', `archive: ${path} is in the index but not in the zip`, { path });
    if (file.length !== length || sha256Hex(file) !== sha256) {
      throw new CoreError('ARCHIVE_FILE', `archive: ${path} is not what the index says, it was cut off or changed`, { path });
    }
  }
  if (files.size !== listed.length) {
    const known = new Set(listed.map((entry) => entry.path));
    const extra = [...files.keys()].find((path) => !known.has(path)) as string;
    throw new CoreError('ARCHIVE_FILE', `archive: ${extra} is in the zip but not in the index`, { path: extra });
  }
  return files;
}

/** Text of a UTF-8 file. @throws CoreError 'ARCHIVE_FILE' */
export function text(bytes: Uint8Array, path: string): string {
  try {
    return strFromU8(bytes);
  } catch (cause) {
    throw new CoreError('ARCHIVE_FILE', `archive: ${path} is not UTF-8 text`, { path }, { cause });
  }
}

function unpack(bytes: Uint8Array, limits: ArchiveLimits): Map<string, Uint8Array> {
  const seen = new Set<string>();
  let total = 0;
  let unpacked: Record<string, Uint8Array>;
  try {
    unpacked = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!ALLOWED_PATH.test(name))
          throw new CoreError('ARCHIVE_PATH', `archive: the path ${JSON.stringify(name.slice(0, 200))} is not one that an archive holds`, { path: name });
        if (seen.has(name)) throw new CoreError('ARCHIVE_PATH', `archive: ${name} stands in it twice`, { path: name });
        seen.add(name);
        total += originalSize;
        if (seen.size > limits.files || total > limits.unpackedBytes) {
          throw new CoreError(
            'ARCHIVE_TOO_LARGE',
            `archive: at ${name} it claims ${seen.size} files of ${total} bytes, the limits are ${limits.files} and ${limits.unpackedBytes}`,
            { path: name },
          );
        }
        return true;
      },
    });
  } catch (cause) {
    if (cause instanceof CoreError) throw cause;
    throw new CoreError('ARCHIVE_UNREADABLE', `archive: its ${bytes.length} bytes are not a whole zip, ${(cause as Error).message}`, {}, { cause });
  }
  return new Map(Object.entries(unpacked));
}

function readIndex(index: Json): { path: string; length: number; sha256: string }[] {
  const { format, version, files } = (typeof index === 'object' && index !== null ? index : {}) as { readonly [key: string]: Json };
  if (format !== ARCHIVE_FORMAT || typeof version !== 'number' || !Array.isArray(files)) {
    throw new CoreError('ARCHIVE_UNREADABLE', `archive: ${INDEX_PATH} says the format ${JSON.stringify(format)}, must be "${ARCHIVE_FORMAT}" with a version and files`);
  }
  if (version > ARCHIVE_VERSION) {
    throw new CoreError('ARCHIVE_NEWER', `archive: its version is ${version}, this Stravel reads up to ${ARCHIVE_VERSION}; open it with a newer one`, { version });
  }
  return files.map((entry: Json, i) => {
    const { path, bytes, sha256 } = (typeof entry === 'object' && entry !== null ? entry : {}) as { readonly [key: string]: Json };
    if (typeof path !== 'string' || typeof bytes !== 'number' || typeof sha256 !== 'string') {
      throw new CoreError('ARCHIVE_UNREADABLE', `archive: ${INDEX_PATH} files[${i}] needs path, bytes and sha256`);
    }
    return { path, length: bytes, sha256 };
  });
}
