import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { smallCollection, smallPng } from '../testing';
import { FORMATS, FORMAT_IDS, type FormatId } from '.';
import { HEAD_BYTES } from './format-spec';
import { acceptOf, fileFault, formatOfFile, type ChosenFile } from './told-files';

const file = (name: string, content: Uint8Array | string, bytes?: number): ChosenFile => {
  const whole = typeof content === 'string' ? strToU8(content) : content;
  return { name, bytes: bytes ?? whole.length, head: whole.subarray(0, HEAD_BYTES) };
};
const png = smallPng(3, 2);
const utf16 = (text: string): Uint8Array =>
  Uint8Array.from([
    0xff,
    0xfe,
    ...[...text].flatMap((letter) => [letter.charCodeAt(0) & 255, letter.charCodeAt(0) >> 8]),
  ]);

describe('a file that somebody chose', () => {
  it('is known by how it begins, whatever it is called', async () => {
    const [glb] = [...(await smallCollection()).assets.values()];
    const files: readonly [FormatId | undefined, ChosenFile][] = [
      ['glb', file('pin.png', glb)],
      ['png', file('pin.glb', png)],
      ['jpeg', file('photo', Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 0, 16))],
      ['archive', file('works.zip', zipSync({ 'a.txt': strToU8('a') }))],
      ['archive', file('empty.zip', zipSync({}))],
      ['obj', file('rock.txt', '# a rock\n\nmtllib rock.mtl\nv 0 0 0\n')],
      ['mtl', file('rock.data', 'newmtl stone\nKd 1 1 1\n')],
      // What holds remarks so far goes by its name.
      ['obj', file('rock.obj', `#${' long licence'.repeat(500)}\n`)],
      ['mtl', file('rock.mtl', '# nothing yet\n')],
      ['csv', file('levels.csv', 'name;order\nYard;1\n')],
      ['csv', file('levels.csv', utf16('name\tcode\nYard\t1'))],
      ['csv', file('one-column.txt', 'name\nYard\n')],
      // A table may begin as an OBJ would; its name says what it is.
      ['csv', file('shapes.csv', 'o name,f size\n')],
      ['csv', file('tags.csv', '<id>;<name>\n1;a\n')],
      ['gltf', file('scene.json', '{ "asset": {} }')],
      [undefined, file('noise.csv', Uint8Array.of(1, 2, 3, 0, 255))],
      [undefined, file('nothing', '')],
    ];
    for (const [format, one] of files) expect([one.name, formatOfFile(one)]).toEqual([one.name, format]);
  });

  it('that is not wanted is told what it is, and what to choose', () => {
    const mesh: readonly FormatId[] = ['glb', 'obj'];
    const end = 'Choose a GLB mesh or an OBJ mesh (.glb, .obj).';
    expect(fileFault(file('pin.glb', png), mesh)).toBe(`pin.glb is a PNG picture. ${end}`);
    expect(fileFault(file('pin.glb', ''), mesh)).toBe(`pin.glb is empty. ${end}`);
    // By its first key, or by what it says of itself.
    for (const text of ['{"scene":0,"asset":{"version":"2.0"}}', '{ "asset": {} }', '{"accessors": [1'])
      expect(fileFault(file('hall.txt', text), mesh)).toBe(`hall.txt is a glTF mesh. ${end}`);
    expect(fileFault(file('hall.txt', '{"other": 1}'), mesh)).toBe(`hall.txt is a JSON file. ${end}`);
    expect(fileFault(file('a.pdf', '%PDF-1.7'), mesh)).toBe(`a.pdf is a PDF document. ${end}`);
    expect(fileFault(file('a', '<svg xmlns="x"/>'), mesh)).toBe(`a is an SVG drawing. ${end}`);
    expect(fileFault(file('a', '<!DOCTYPE html><p>'), mesh)).toBe(`a is an HTML page. ${end}`);
    expect(fileFault(file('data.sqlite', 'SQLite format 3\u0000....'), mesh)).toBe(
      `data.sqlite is an SQLite database. ${end}`,
    );
    expect(fileFault(file('odd.bin', Uint8Array.of(7, 0, 1, 200)), mesh)).toBe(
      `odd.bin is of a kind that Stravel does not read. ${end}`,
    );
    expect(fileFault(file('works.zip', zipSync({})), ['csv'])).toBe(
      'works.zip is a zip archive. Choose a CSV table (.csv, .tsv, .txt).',
    );
    const workbook = zipSync({ '[Content_Types].xml': strToU8('<Types/>'), 'xl/workbook.xml': strToU8('<w/>') });
    expect(fileFault(file('levels.xlsx', workbook), ['csv'])).toBe(
      'levels.xlsx is an Office Open XML document. Choose a CSV table (.csv, .tsv, .txt).',
    );
    const table = zipSync({ mimetype: strToU8('application/vnd.oasis.opendocument.spreadsheet') });
    expect(fileFault(file('levels.ods', table), ['archive'])).toBe(
      'levels.ods is an OpenDocument file. Choose a zip archive (.zip).',
    );
    expect(fileFault(file('pin.png', png), ['png'])).toBeUndefined();
    // An OBJ is a text as well, so that it may be taken for a table where one is wanted and nothing says otherwise.
    expect(fileFault(file('rows', 'v 1\nv 2\n'), ['csv'])).toBeUndefined();
    expect(fileFault(file('rock.obj', 'v 1\nv 2\n'), ['csv'])).toContain('rock.obj is an OBJ mesh.');
  });

  it('may be too large', () => {
    const { maxBytes } = FORMATS.png;
    expect(fileFault(file('map.png', png, maxBytes), ['png'])).toBeUndefined();
    expect(fileFault(file('map.png', png, maxBytes + 1), ['png'])).toBe(
      'map.png has 64 MB; a PNG picture may have 64 MB at most.',
    );
  });

  it('is offered by endings and types', () => {
    expect(acceptOf(['png', 'jpeg'])).toBe('.png,.jpg,.jpeg,image/png,image/jpeg');
  });

  it('is listed in the guide with its endings and its limit', () => {
    const guide = readFileSync(join(__dirname, '../../../../docs/guide/files-and-limits.md'), 'utf8');
    for (const id of FORMAT_IDS) {
      const { words, extensions, maxBytes } = FORMATS[id];
      const name = words.replace(/^an? /, '');
      expect(guide).toContain(`| ${name} | ${extensions.join(', ')} | ${(maxBytes / 1e6).toFixed(0)} MB |`);
    }
  });
});
