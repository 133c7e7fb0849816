// Packs the built page's files once, as small as they get: at each request they would be packed anew, and larger.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const PACKED = /\.(js|css|svg)$/;
/** What is smaller gains nothing. */
const LEAST_BYTES = 1024;

export function compressPage(folder) {
  for (const name of readdirSync(folder, { recursive: true })) {
    if (!PACKED.test(name)) continue;
    const bytes = readFileSync(join(folder, name));
    if (bytes.length < LEAST_BYTES) continue;
    writeFileSync(
      join(folder, `${name}.br`),
      brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } }),
    );
    writeFileSync(join(folder, `${name}.gz`), gzipSync(bytes, { level: 9 }));
  }
}
