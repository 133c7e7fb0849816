import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { fileSchemas, packSchemas } from '@stravel/core';

/** Writes the JSON Schemas of the files of archives, from the source that validates them, and of packs. */
for (const [name, schema] of Object.entries({ ...fileSchemas(), ...packSchemas() })) {
  writeFileSync(
    fileURLToPath(new URL(`../docs/formats/${name}`, import.meta.url)),
    `${JSON.stringify(schema, null, 2)}\n`,
  );
}
