import { Unzip, UnzipInflate, unzipSync } from 'fflate';
import { CoreError } from '../../errors';

/** What a zip may cost to open. */
export interface ZipLimits {
  /** All files together, unpacked, bytes. */
  readonly unpackedBytes: number;
  readonly files: number;
}

/** Which rule a zip breaks: it cannot be read, has a path twice or one that is not wanted there, or is too large. */
export type ZipRule = 'UNREADABLE' | 'PATH' | 'TOO_LARGE';

export interface ZipReading {
  readonly limits: ZipLimits;
  /** Whether a file is unpacked; may throw where there must be no such file. */
  readonly isWanted: (path: string) => boolean;
  /** The error for a broken rule. @param path of the file, '' where it is the zip itself */
  readonly fault: (rule: ZipRule, message: string, path: string, cause?: unknown) => CoreError;
}

/** Compressed bytes that are read at once: at most a thousand times as many come out before they are counted. */
const SLICE_BYTES = 16384;

/** The files of a zip by path. Nothing is unpacked before its claims are checked. @throws what `fault` makes */
export function unpackZip(bytes: Uint8Array, reading: ZipReading): Map<string, Uint8Array> {
  const { isWanted, fault } = reading;
  const claims = readClaims(bytes, reading);
  const files = new Map<string, Uint8Array>();
  const unzip = new Unzip((file) => {
    const { name } = file;
    const claimed = claims.get(name);
    if (claimed === undefined && !isWanted(name)) return;
    if (claimed === undefined || files.has(name))
      throw fault(
        'UNREADABLE',
        `${JSON.stringify(name.slice(0, 200))} differs from its entry in the list of files`,
        name,
      );
    const out = new Uint8Array(claimed);
    files.set(name, out);
    let at = 0;
    file.ondata = (error, chunk, isLast) => {
      // What was thrown here comes back once more.
      const thrown: unknown = error;
      if (thrown instanceof CoreError) throw thrown;
      if (error) throw fault('UNREADABLE', `${name} cannot be unpacked, ${error.message}`, name);
      // What a zip says of itself is only believed as far as it is true.
      if (at + chunk.length > claimed)
        throw fault('TOO_LARGE', `${name} claims ${claimed} bytes and contains more`, name);
      out.set(chunk, at);
      at += chunk.length;
      if (isLast && at !== claimed)
        throw fault('UNREADABLE', `${name} claims ${claimed} bytes and contains ${at}`, name);
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += SLICE_BYTES)
      unzip.push(bytes.subarray(at, at + SLICE_BYTES), at + SLICE_BYTES >= bytes.length);
  } catch (cause) {
    if (cause instanceof CoreError) throw cause;
    throw notWhole(bytes, reading, cause);
  }
  const missing = [...claims.keys()].find((name) => !files.has(name));
  if (missing !== undefined)
    throw fault('UNREADABLE', `${missing} is listed in the zip, but its content is missing`, missing);
  return files;
}

/** The files that a zip lists, with the sizes that it claims; nothing is unpacked. */
function readClaims(bytes: Uint8Array, reading: ZipReading): Map<string, number> {
  const { limits, isWanted, fault } = reading;
  const claims = new Map<string, number>();
  let total = 0;
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!isWanted(name)) return false;
        if (claims.has(name)) throw fault('PATH', `${name} is in it twice`, name);
        claims.set(name, originalSize);
        total += originalSize;
        if (claims.size > limits.files || total > limits.unpackedBytes)
          throw fault(
            'TOO_LARGE',
            `at ${name} it claims ${claims.size} files of ${total} bytes, the limits are ${limits.files} and ${limits.unpackedBytes}`,
            name,
          );
        return false;
      },
    });
  } catch (cause) {
    if (cause instanceof CoreError) throw cause;
    throw notWhole(bytes, reading, cause);
  }
  return claims;
}

function notWhole(bytes: Uint8Array, { fault }: ZipReading, cause: unknown): CoreError {
  return fault(
    'UNREADABLE',
    `its ${bytes.length} bytes are not a complete zip, ${(cause as Error).message}`,
    '',
    cause,
  );
}
