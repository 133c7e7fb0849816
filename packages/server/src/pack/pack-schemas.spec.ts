import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MANIFEST_PATH, PLAIN_TARGET, packSchemas, type Json } from '@stravel/core';
import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import { unpackData } from '../../../../golden/folder';
import { variants } from '../../../../golden/content';
import { GOLDEN } from '../../../../golden/measure';
import { onFolder } from '../../../../golden/server';
import { removeFolder } from '../testing/test-server';

type Table = Record<string, Json>;
type FileJson = Table & { readonly format: string };

const SCHEMAS: Readonly<Record<string, string>> = {
  'stravel-pack': 'pack-manifest.schema.json',
  'stravel-pack-game': 'pack-game.schema.json',
  'stravel-pack-level': 'pack-level.schema.json',
  'stravel-pack-sight': 'pack-sight.schema.json',
  'stravel-pack-cells': 'pack-cells.schema.json',
  'stravel-pack-kit': 'pack-kit.schema.json',
};

let folder: string;
let pack: string;
let paths: readonly string[];
let schemas: Map<string, ValidateFunction>;

const read = (path: string): FileJson => JSON.parse(readFileSync(join(pack, path), 'utf8')) as FileJson;
const faultOf = (json: FileJson): string => {
  const validate = schemas.get(SCHEMAS[json.format]);
  if (!validate) return `no schema for ${json.format}`;
  return validate(json) ? '' : JSON.stringify(validate.errors?.[0]);
};

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'stravel-schemas-'));
  pack = join(folder, 'pack');
  unpackData(folder);
  await onFolder(folder, async (server) => {
    // It has every kind of item in every form, and links that lead anywhere: a check would refuse it.
    const given = await server.collections.giveWithoutAssets(GOLDEN);
    const [id, first] = [...given.content.strata][0];
    // Its data are older than walls.
    given.content.strata.set(id, { ...first, wall: variants('wall') });
    const both = { ...PLAIN_TARGET, placements: 'millimetre', withPlacementsJson: true } as const;
    const records = { ...given.content.records, target: { [both.id]: both } };
    const content = { ...given.content, records };
    await server.packs.packGiven(GOLDEN, { ...given, content }, pack, { withAllPurposes: true });
  });
  const manifest = read(MANIFEST_PATH) as unknown as { files: { path: string }[] };
  paths = [MANIFEST_PATH, ...manifest.files.map(({ path }) => path).filter((path) => path.endsWith('.json'))];
  const ajv = new Ajv2020({ strict: false });
  schemas = new Map(Object.entries(packSchemas()).map(([name, schema]) => [name, ajv.compile(schema)]));
}, 180000);

afterAll(() => removeFolder(folder));

describe('the JSON Schemas of a pack', () => {
  it('take every file of a pack with everything in it', () => {
    expect(paths.map((path) => [path, faultOf(read(path))])).toEqual(paths.map((path) => [path, '']));
    const formats = new Set(paths.map((path) => read(path).format));
    expect([...formats].sort()).toEqual(Object.keys(SCHEMAS).sort());
    // Each list that a level may have is in one of them.
    const level = packSchemas()['pack-level.schema.json'] as unknown as { properties: Table };
    const levels = paths.map(read).filter((json) => json.format === 'stravel-pack-level');
    expect(Object.keys(level.properties).filter((key) => !levels.some((one) => Object.hasOwn(one, key)))).toEqual([]);
  });

  it('refuse a key too many, one that is missing, and a value of another kind, in each file', () => {
    for (const path of paths) {
      const json = read(path);
      expect([path, faultOf({ ...json, stranger: 1 })]).not.toEqual([path, '']);
      for (const [key, value] of Object.entries(json)) {
        const other = typeof value === 'number' ? 'x' : 7.5;
        expect([path, key, faultOf({ ...json, [key]: other } as FileJson)]).not.toEqual([path, key, '']);
      }
    }
    const level = read('levels/one.json') as unknown as { chunks: Table[] };
    expect(
      faultOf({ ...level, chunks: [{ ...level.chunks[0], placements: [{ id: 'x' }] }] } as unknown as FileJson),
    ).not.toBe('');
  });
});
