import { strToU8, unzipSync, zipSync } from 'fflate';
import { roomGrid, smallCollection, smallPng } from '../testing';
import type { CollectionContent } from '../model/collection-content';
import { EMPTY_CONTENT } from '../items';
import { sha256Hex } from '../json/sha256';
import { archiveCollection } from './archive-collection';
import { ARCHIVE_VERSION } from './archive-files';
import { restoreCollection } from './restore-collection';

let content: CollectionContent;
let archive: Uint8Array;

beforeAll(async () => {
  content = await smallCollection();
  archive = archiveCollection(content);
});

/** The archive with some files replaced, its index made to agree. */
function rebuilt(change: (files: Record<string, Uint8Array>) => void): Uint8Array {
  const files = unzipSync(archive);
  delete files['index.json'];
  change(files);
  const index = {
    format: 'stravel-archive',
    version: 3,
    files: Object.entries(files).map(([path, bytes]) => ({ path, bytes: bytes.length, sha256: sha256Hex(bytes) })),
  };
  return zipSync({ 'index.json': strToU8(JSON.stringify(index)), ...files });
}

function withJson(path: string, change: (json: never) => void): Uint8Array {
  return rebuilt((files) => {
    const json = JSON.parse(Buffer.from(files[path]).toString('utf8')) as never;
    change(json);
    files[path] = strToU8(JSON.stringify(json));
  });
}

describe('archive', () => {
  it('restores to the same and archives again to equal bytes', () => {
    const back = restoreCollection(archive);
    expect(back.records).toEqual(content.records);
    expect(back.strata).toEqual(content.strata);
    expect(Buffer.compare(Buffer.from(archiveCollection(back)), Buffer.from(archive))).toBe(0);
  });

  it('carries the pictures that fields hold, and no others', () => {
    const picture = smallPng(2, 2);
    const name = sha256Hex(picture);
    const { records } = content;
    const withPicture: CollectionContent = {
      ...content,
      records: {
        ...records,
        field: {
          ...records.field,
          p: { id: 'p', key: 'p', name: 'Picture', type: 'picture', choices: [], order: 'z' },
        },
        level: {
          ...records.level,
          one: { ...records.level['one'], values: { p: name } },
          two: { ...records.level['two'], values: { p: 'f'.repeat(64) } },
        },
      },
      assets: new Map([...content.assets, [name, picture], ['e'.repeat(64), smallPng(1, 1)]]),
    };
    const bytes = archiveCollection(withPicture);
    expect(Object.keys(unzipSync(bytes)).filter((path) => path.startsWith('pictures/'))).toEqual([
      `pictures/${name}.png`,
    ]);
    const back = restoreCollection(bytes);
    expect(back.assets.get(name)).toEqual(picture);
    expect(Buffer.compare(Buffer.from(archiveCollection(back)), Buffer.from(bytes))).toBe(0);
    const broken = rebuilt((files) => (files[`pictures/${name}.png`] = strToU8('no picture')));
    expect(() => restoreCollection(broken)).toThrow(/pictures\/.*: it is not a picture/);
    const renamed = rebuilt((files) => (files[`pictures/${'a'.repeat(64)}.png`] = picture));
    expect(() => restoreCollection(renamed)).toThrow(/its SHA-256 is/);
  });

  it('gives equal bytes whatever the order of keys', () => {
    const shuffled: CollectionContent = {
      ...content,
      records: { ...content.records, level: { two: content.records.level['two'], one: content.records.level['one'] } },
    };
    expect(Buffer.compare(Buffer.from(archiveCollection(shuffled)), Buffer.from(archive))).toBe(0);
  });

  it('refuses content that it does not know, and two levels with one key', () => {
    const strange = withJson(
      'strata/base.json',
      (json: { content: Record<string, unknown> }) => (json.content['ladder'] = []),
    );
    expect(() => restoreCollection(strange)).toThrow(
      'strata/base.json: the stratum base holds “ladder”, which this Stravel does not know; open it with the Stravel that wrote it',
    );
    expect(() =>
      restoreCollection(
        withJson('levels/one.json', (json: { level: Record<string, unknown> }) => (json.level['key'] = 'two')),
      ),
    ).toThrow(/the key two of level two is taken by the level one/);
    expect(() =>
      restoreCollection(
        withJson('levels/one.json', (json: { level: Record<string, unknown> }) => (json.level['key'] = 'One')),
      ),
    ).toThrow(/levels\/one.json: level one: key must be small letters/);
  });

  it('keeps shared strata apart from levels', () => {
    expect(Object.keys(unzipSync(archive)).sort()).toEqual([
      'acceptances.json',
      'carried-values.json',
      'cell-grids.json',
      'collection.json',
      'devices.json',
      'entries.json',
      'fields.json',
      'index.json',
      'kits/kit.glb',
      'kits/kit.json',
      'level-orders.json',
      'levels/one.json',
      'levels/two.json',
      'registers.json',
      'rehearsals.json',
      'sets.json',
      'strata/base.json',
      'table-views.json',
      'targets.json',
    ]);
  });

  it.each([
    ['something else', () => strToU8('not a zip at all'), /are not a complete zip/],
    ['an empty file', () => new Uint8Array(0), /are not a complete zip/],
    ['a truncated one', () => archive.slice(0, archive.length - 40), /are not a complete zip/],
    ['a zip of something else', () => zipSync({ 'readme.json': strToU8('{}') }), /has no index.json/],
    [
      'a path that climbs out',
      () => zipSync({ '../evil.json': strToU8('{}') }),
      /"..\/evil.json" is not one that an archive can contain/,
    ],
    [
      'an absolute path',
      () => zipSync({ '/etc/passwd.json': strToU8('{}') }),
      /is not one that an archive can contain/,
    ],
    [
      'a newer version',
      () =>
        zipSync({ 'index.json': strToU8(`{"format":"stravel-archive","version":${ARCHIVE_VERSION + 1},"files":[]}`) }),
      /its version is \d+, this Stravel reads up to \d+/,
    ],
    [
      'a changed file',
      () => zipSync({ ...unzipSync(archive), 'sets.json': strToU8('{}') }),
      /sets.json is not what the index says/,
    ],
    [
      'a file that is not listed',
      () => zipSync({ ...unzipSync(archive), 'levels/x.json': strToU8('{}') }),
      /levels\/x.json is in the archive but not in the index/,
    ],
    [
      'a file that is missing',
      () => zipSync(Object.fromEntries(Object.entries(unzipSync(archive)).filter(([path]) => path !== 'sets.json'))),
      /sets.json is in the index but not in the archive/,
    ],
  ])('refuses %s', (_name, make, message) => {
    expect(() => restoreCollection(make())).toThrow(message);
  });

  it('refuses an entry that holds more or less than it claims, without unpacking what it does not claim', () => {
    const honest = zipSync({ 'levels/bomb.json': new Uint8Array(30000000) });
    /** The zip with another claim, in the list of files and before the file itself. */
    const claiming = (bytes: number): Uint8Array => {
      const zip = Buffer.from(honest);
      for (let at = 0; at < zip.length - 4; at++) {
        if (zip.readUInt32LE(at) === 0x04034b50) zip.writeUInt32LE(bytes, at + 22);
        if (zip.readUInt32LE(at) === 0x02014b50) zip.writeUInt32LE(bytes, at + 24);
      }
      return new Uint8Array(zip);
    };
    expect(() => restoreCollection(claiming(10))).toThrow(
      /^archive: levels\/bomb.json claims 10 bytes and contains more$/,
    );
    expect(() => restoreCollection(claiming(30000001))).toThrow(
      /levels\/bomb.json claims 30000001 bytes and contains 30000000/,
    );
  });

  it('refuses files that nest deeper than 64, in a named error', () => {
    const deep = rebuilt(
      (files) =>
        (files['sets.json'] = strToU8(
          `{"format":"stravel-table","version":3,"kind":"set","rows":${'['.repeat(2000)}${']'.repeat(2000)}}`,
        )),
    );
    expect(() => restoreCollection(deep)).toThrow(/^sets\.json: nests lists and tables deeper than 64/);
  });

  it('refuses what would unpack beyond the limit before unpacking it', () => {
    const bomb = zipSync({ 'levels/bomb.json': new Uint8Array(3000000) });
    expect(bomb.length).toBeLessThan(10000);
    expect(() => restoreCollection(bomb, { unpackedBytes: 1000000, files: 10 })).toThrow(
      /claims 1 files of 3000000 bytes, the limits are 10 and 1000000/,
    );
    expect(() => restoreCollection(archive, { unpackedBytes: 1e9, files: 3 })).toThrow(/claims 4 files/);
  });

  it.each([
    [
      'a level without a set',
      'levels/one.json',
      (json: { level: { set: string } }) => (json.level.set = 'gone'),
      /^levels\/one\.json: .*level one points at the set gone/,
    ],
    [
      'a field that nobody knows',
      'levels/one.json',
      (json: { level: Record<string, unknown> }) => (json.level['colour'] = 'red'),
      /levels\/one.json: level one: .*colour/,
    ],
    [
      'an absurd number',
      'levels/one.json',
      (json: { strata: { content: { placement: { position: unknown[] }[] } }[] }) =>
        (json.strata[0].content.placement[0].position = [1, 'NaN', 2]),
      /levels\/one.json: placement p1: position\[1\]/,
    ],
    [
      'a missing number',
      'levels/one.json',
      (json: { strata: { content: { placement: { position: unknown[] }[] } }[] }) =>
        (json.strata[0].content.placement[0].position = [1, 2]),
      /placement p1/,
    ],
    [
      'planes that enclose nothing',
      'strata/base.json',
      (json: { content: { block: { planes: number[][] }[] } }) => (json.content.block[0].planes[3][3] = -50),
      /strata\/base.json: block slab: .*enclose nothing/,
    ],
    [
      'a file of a newer version',
      'sets.json',
      (json: { version: number }) => (json.version = 9),
      /sets.json: its version is 9/,
    ],
    [
      'a record twice',
      'sets.json',
      (json: { rows: unknown[] }) => json.rows.push(json.rows[0]),
      /sets.json: the set works is in the archive twice/,
    ],
    [
      'a piece without a mesh',
      'kits/kit.json',
      (json: { pieces: { name: string }[] }) => (json.pieces[0].name = 'nail'),
      /kits\/kit.glb: it has no mesh named nail/,
    ],
  ])('names the file and the fault of %s', (_name, path, change, message) => {
    expect(() => restoreCollection(withJson(path, change as (json: never) => void))).toThrow(message);
  });

  it('refuses a GLB that is something else, cut off or claims too much', () => {
    const replace = (bytes: Uint8Array) => () =>
      restoreCollection(
        rebuilt((files) => {
          const kit = JSON.parse(Buffer.from(files['kits/kit.json']).toString('utf8')) as { kit: { mesh: string } };
          kit.kit.mesh = sha256Hex(bytes);
          files['kits/kit.json'] = strToU8(JSON.stringify(kit));
          files['kits/kit.glb'] = bytes;
        }),
      );
    const glb = [...content.assets.values()][0];
    expect(replace(strToU8('definitely not a mesh, but long enough'))).toThrow(
      /kits\/kit.glb: glb: does not start as a GLB does/,
    );
    expect(replace(glb.slice(0, glb.length - 4))).toThrow(/claims \d+ bytes, has \d+/);
    const claiming = glb.slice();
    new DataView(claiming.buffer).setUint32(12, 0xffffff00, true);
    expect(replace(claiming)).toThrow(/its JSON claims 4294967040 bytes/);
    const changed = (from: string, to: string): Uint8Array => {
      if (from.length !== to.length) throw new Error('the JSON must keep its length');
      const text = Buffer.from(glb).toString('latin1');
      expect(text).toContain(from);
      return Uint8Array.from(Buffer.from(text.replace(from, to), 'latin1'));
    };
    expect(replace(changed('"count":3', '"count":9'))).toThrow(
      /kits\/kit.glb: glb: accessors\[\d\] claims 9 elements, bufferViews\[\d\] has \d+ bytes/,
    );
    expect(replace(changed('"byteLength":72', '"byteLength":99'))).toThrow(
      /glb: bufferViews\[\d\] claims bytes .* 99 of \d+/,
    );
  });

  it('carries a level of 400 blocks', () => {
    const blocks = roomGrid(10, 10).blocks.map((block) => ({
      ...block,
      name: '',
      sight: 'hides' as const,
      material: 'brick',
    }));
    const large: CollectionContent = {
      ...content,
      strata: new Map([...content.strata, ['own', { ...EMPTY_CONTENT, block: blocks }]]),
    };
    expect(restoreCollection(archiveCollection(large)).strata.get('own')?.block).toHaveLength(402);
  });
});
