import { strFromU8 } from 'fflate';
import { CoreError } from '../errors';
import { unpackZip, type ZipLimits, type ZipRule } from '../formats/zip/unpack-zip';
import type { Json } from '../model/json';
import { parseJson } from '../json/canonical-json';
import { sha256Hex } from '../json/sha256';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, INDEX_PATH } from './archive-files';

/** What an archive may cost to open. */
export const DEFAULT_ARCHIVE_LIMITS: ZipLimits = { unpackedBytes: 1073741824, files: 100000 };

const ALLOWED_PATH =
  /^(?:[a-z]+(?:-[a-z]+)*\.json|(?:levels|strata|kits)\/[A-Za-z0-9_-][A-Za-z0-9._-]*\.(?:json|glb)|pictures\/[0-9a-f]{64}\.(?:png|jpg|webp))$/;

/**
 * The files of an archive by path, each checked against the index. Nothing is unpacked before its claims are checked.
 * @throws CoreError 'ARCHIVE_UNREADABLE' | 'ARCHIVE_PATH' | 'ARCHIVE_TOO_LARGE' | 'ARCHIVE_NEWER' | 'ARCHIVE_FILE', naming the file
 */
export function openArchive(bytes: Uint8Array, limits: ZipLimits = DEFAULT_ARCHIVE_LIMITS): Map<string, Uint8Array> {
  return checkedFiles(
    unpackZip(bytes, {
      limits,
      isWanted: (path) => {
        if (ALLOWED_PATH.test(path)) return true;
        throw fault(
          'PATH',
          `the path ${JSON.stringify(path.slice(0, 200))} is not one that an archive can contain`,
          path,
        );
      },
      fault,
    }),
  );
}

function fault(rule: ZipRule, message: string, path: string, cause?: unknown): CoreError {
  return new CoreError(`ARCHIVE_${rule}`, `archive: ${message}`, { path }, { cause });
}

/** Whether a path is one that an archive may hold. */
export function isArchivePath(path: string): boolean {
  return ALLOWED_PATH.test(path);
}

/**
 * The files of an archive without its index, each checked against that.
 * @param given by path, the index among them @throws CoreError 'ARCHIVE_UNREADABLE' | 'ARCHIVE_NEWER' | 'ARCHIVE_FILE', naming the file
 */
export function checkedFiles(given: ReadonlyMap<string, Uint8Array>): Map<string, Uint8Array> {
  const files = new Map(given);
  const indexBytes = files.get(INDEX_PATH);
  if (!indexBytes)
    throw new CoreError('ARCHIVE_UNREADABLE', `archive: it has no ${INDEX_PATH}, so it is not a Stravel archive`);
  files.delete(INDEX_PATH);
  const listed = readIndex(parseJson(text(indexBytes, INDEX_PATH), INDEX_PATH));
  for (const { path, length, sha256 } of listed) {
    const file = files.get(path);
    if (!file) throw new CoreError('ARCHIVE_FILE', `archive: ${path} is in the index but not in the archive`, { path });
    if (file.length !== length || sha256Hex(file) !== sha256) {
      throw new CoreError('ARCHIVE_FILE', `archive: ${path} is not what the index says, it was cut off or changed`, {
        path,
      });
    }
  }
  if (files.size !== listed.length) {
    const known = new Set(listed.map((entry) => entry.path));
    const extra = [...files.keys()].find((path) => !known.has(path)) as string;
    throw new CoreError('ARCHIVE_FILE', `archive: ${extra} is in the archive but not in the index`, { path: extra });
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

function readIndex(index: Json): { path: string; length: number; sha256: string }[] {
  const { format, version, files } = (typeof index === 'object' && index !== null ? index : {}) as {
    readonly [key: string]: Json;
  };
  if (format !== ARCHIVE_FORMAT || typeof version !== 'number' || !Array.isArray(files)) {
    throw new CoreError(
      'ARCHIVE_UNREADABLE',
      `archive: ${INDEX_PATH} says the format ${JSON.stringify(format)}, must be "${ARCHIVE_FORMAT}" with a version and files`,
    );
  }
  if (version > ARCHIVE_VERSION) {
    throw new CoreError(
      'ARCHIVE_NEWER',
      `archive: its version is ${version}, this Stravel reads up to ${ARCHIVE_VERSION}; open it with a newer one`,
      { version },
    );
  }
  return files.map((entry: Json, i) => {
    const { path, bytes, sha256 } = (typeof entry === 'object' && entry !== null ? entry : {}) as {
      readonly [key: string]: Json;
    };
    if (typeof path !== 'string' || typeof bytes !== 'number' || typeof sha256 !== 'string') {
      throw new CoreError('ARCHIVE_UNREADABLE', `archive: ${INDEX_PATH} files[${i}] needs path, bytes and sha256`);
    }
    return { path, length: bytes, sha256 };
  });
}
