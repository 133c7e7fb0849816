import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { fileSchemas } from '@stravel/core';

/** Writes the JSON Schemas of the archive's files from the source that validates them. */
for (const [name, schema] of Object.entries(fileSchemas())) {
  writeFileSync(
    fileURLToPath(new URL(`../docs/formats/${name}`, import.meta.url)),
    `${JSON.stringify(schema, null, 2)}\n`,
  );
}
