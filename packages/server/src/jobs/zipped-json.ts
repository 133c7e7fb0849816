import { gunzipSync, gzipSync } from 'node:zlib';

/** What threads do with JSON that may be long. */
export const JSON_TASKS = {
  'zip-json': (value: unknown): Uint8Array => gzipSync(JSON.stringify(value)),
  'unzip-json': (gzipped: Uint8Array): unknown => JSON.parse(gunzipSync(gzipped).toString('utf8')),
  'write-json': (value: unknown): Uint8Array => Buffer.from(JSON.stringify(value)),
} as const;
