import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { archiveJson, fileSchemas, packSchemas } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import Ajv2020 from 'ajv/dist/2020';

const FOLDER = join(__dirname, '../../../docs/formats');

describe('the published JSON Schemas', () => {
  it('are what the source of validation says; `npm run schemas` writes them', () => {
    for (const [name, schema] of Object.entries({ ...fileSchemas(), ...packSchemas() })) {
      expect(JSON.parse(readFileSync(join(FOLDER, name), 'utf8'))).toEqual(schema);
    }
  });

  it('take every file of an archive, and refuse one with a fault', async () => {
    const ajv = new Ajv2020({ strict: false });
    const check = Object.fromEntries(
      Object.entries(fileSchemas()).map(([name, schema]) => [name, ajv.compile(schema)]),
    );
    const files = archiveJson(await smallCollection());
    expect(files.size).toBeGreaterThan(6);
    for (const [path, json] of files) {
      const kind = path.startsWith('levels/')
        ? 'level'
        : path.startsWith('strata/')
          ? 'stratum'
          : path.startsWith('kits/')
            ? 'kit'
            : 'table';
      const validate = check[`${kind}.schema.json`];
      expect([path, validate(json), validate.errors]).toEqual([path, true, null]);
    }
    const level = JSON.parse(JSON.stringify(files.get('levels/one.json'))) as {
      strata: { content: { placement: { position: unknown[] }[] } }[];
    };
    level.strata[0].content.placement[0].position = [1, 'NaN', 2];
    expect(check['level.schema.json'](level)).toBe(false);
  });
});
