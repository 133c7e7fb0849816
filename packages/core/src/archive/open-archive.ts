import { Unzip, UnzipInflate, strFromU8, unzipSync } from 'fflate';
import { CoreError } from '../errors';
import type { Json } from '../model/json';
import { parseJson } from '../json/canonical-json';
import { sha256Hex } from '../json/sha256';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, INDEX_PATH } from './archive-files';

/** What an archive may cost to open. */
export interface ArchiveLimits {
  /** All files together, unpacked, bytes. Default 1 GiB. */
  readonly unpackedBytes: number;
  /** Number of files. Default 100,000. */
  readonly files: number;
}

export const DEFAULT_ARCHIVE_LIMITS: ArchiveLimits = { unpackedBytes: 1073741824, files: 100000 };

const ALLOWED_PATH =
  /^(?:[a-z]+(?:-[a-z]+)*\.json|(?:levels|strata|kits)\/[A-Za-z0-9_-][A-Za-z0-9._-]*\.(?:json|glb)|pictures\/[0-9a-f]{64}\.(?:png|jpg|webp))$/;

/**
 * The files of an archive by path, each checked against the index. Nothing is unpacked before its claims are checked.
 * @throws CoreError 'ARCHIVE_UNREADABLE' | 'ARCHIVE_PATH' | 'ARCHIVE_TOO_LARGE' | 'ARCHIVE_NEWER' | 'ARCHIVE_FILE', naming the file
 */
export function openArchive(
  bytes: Uint8Array,
  limits: ArchiveLimits = DEFAULT_ARCHIVE_LIMITS,
): Map<string, Uint8Array> {
  return checkedFiles(unpack(bytes, limits));
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

/** Compressed bytes that are read at once: at most a thousand times as many come out before they are counted. */
const SLICE_BYTES = 16384;

function unpack(bytes: Uint8Array, limits: ArchiveLimits): Map<string, Uint8Array> {
  const claims = readClaims(bytes, limits);
  const files = new Map<string, Uint8Array>();
  const fail = (message: string, name: string): CoreError =>
    new CoreError('ARCHIVE_UNREADABLE', `archive: ${message}`, { path: name });
  const unzip = new Unzip((file) => {
    const { name } = file;
    const claimed = claims.get(name);
    if (claimed === undefined || files.has(name))
      throw fail(`${JSON.stringify(name.slice(0, 200))} differs from its entry in the list of files`, name);
    const out = new Uint8Array(claimed);
    files.set(name, out);
    let at = 0;
    file.ondata = (error, chunk, isLast) => {
      // What was thrown here comes back once more.
      const thrown: unknown = error;
      if (thrown instanceof CoreError) throw thrown;
      if (error) throw fail(`${name} cannot be unpacked, ${error.message}`, name);
      // What a zip says of itself is only believed as far as it is true.
      if (at + chunk.length > claimed)
        throw new CoreError('ARCHIVE_TOO_LARGE', `archive: ${name} claims ${claimed} bytes and contains more`, {
          path: name,
        });
      out.set(chunk, at);
      at += chunk.length;
      if (isLast && at !== claimed) throw fail(`${name} claims ${claimed} bytes and contains ${at}`, name);
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += SLICE_BYTES)
      unzip.push(bytes.subarray(at, at + SLICE_BYTES), at + SLICE_BYTES >= bytes.length);
  } catch (cause) {
    if (cause instanceof CoreError) throw cause;
    throw notWhole(bytes, cause);
  }
  const missing = [...claims.keys()].find((name) => !files.has(name));
  if (missing !== undefined) throw fail(`${missing} is listed in the zip, but its content is missing`, missing);
  return files;
}

/** The files that a zip lists, with the sizes that it claims; nothing is unpacked. */
function readClaims(bytes: Uint8Array, limits: ArchiveLimits): Map<string, number> {
  const claims = new Map<string, number>();
  let total = 0;
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!ALLOWED_PATH.test(name))
          throw new CoreError(
            'ARCHIVE_PATH',
            `archive: the path ${JSON.stringify(name.slice(0, 200))} is not one that an archive can contain`,
            { path: name },
          );
        if (claims.has(name)) throw new CoreError('ARCHIVE_PATH', `archive: ${name} is in it twice`, { path: name });
        claims.set(name, originalSize);
        total += originalSize;
        if (claims.size > limits.files || total > limits.unpackedBytes) {
          throw new CoreError(
            'ARCHIVE_TOO_LARGE',
            `archive: at ${name} it claims ${claims.size} files of ${total} bytes, the limits are ${limits.files} and ${limits.unpackedBytes}`,
            { path: name },
          );
        }
        return false;
      },
    });
  } catch (cause) {
    if (cause instanceof CoreError) throw cause;
    throw notWhole(bytes, cause);
  }
  return claims;
}

function notWhole(bytes: Uint8Array, cause: unknown): CoreError {
  return new CoreError(
    'ARCHIVE_UNREADABLE',
    `archive: its ${bytes.length} bytes are not a complete zip, ${(cause as Error).message}`,
    {},
    { cause },
  );
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
