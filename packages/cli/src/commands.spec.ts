import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { SightResult } from '@stravel/core';

const MAIN = join(__dirname, '../dist/main.js');
const folder = mkdtempSync(join(tmpdir(), 'stravel-commands-'));
const dataFolder = join(folder, 'data');

interface Ended {
  readonly code: number;
  readonly out: string;
  readonly err: string;
}

/** Needs the build; `./stravel test` builds before it comes here. */
function stravel(...parameters: string[]): Promise<Ended> {
  return stravelIn({}, ...parameters);
}

function stravelIn(more: NodeJS.ProcessEnv, ...parameters: string[]): Promise<Ended> {
  const env = { ...process.env, PORT: '0', STRAVEL_DATA: dataFolder, STRAVEL_LOG: 'silent', ...more };
  return new Promise((resolve) => {
    execFile(process.execPath, [MAIN, ...parameters], { env, cwd: folder, maxBuffer: 1e8 }, (error, out, err) => {
      resolve({ code: typeof error?.code === 'number' ? error.code : error ? 1 : 0, out, err });
    });
  });
}

function demo(): Promise<ChildProcess> {
  const child = spawn(process.execPath, [MAIN, 'demo'], {
    env: { ...process.env, PORT: '0', STRAVEL_DATA: dataFolder, STRAVEL_LOG: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    child.stdout.on('data', (data: Buffer) => /Stravel is at/.test(data.toString()) && resolve(child));
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
}

describe('the shell', () => {
  let server: ChildProcess;

  beforeAll(async () => {
    server = await demo();
  }, 60000);

  afterAll(() => {
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  });

  it('bakes through the server that runs, and prints what anyone can check', async () => {
    const { code, out } = await stravel('bake', 'sight', 'Kiln Tunnels', '--json');
    expect(code).toBe(0);
    const baked = JSON.parse(out) as SightResult & { level: string };
    expect(baked.level).toBe('Kiln Tunnels');
    expect(baked.closed).toBe(true);
    expect(baked.visible).toHaveLength(baked.pockets.length);
    // Both pockets of every opening lie on it and see each other.
    for (const { pockets, polygon, plane } of baked.openings) {
      expect(baked.visible[pockets[0]]).toContain(pockets[1]);
      for (let i = 0; i < polygon.length; i += 3) {
        const [x, y, z] = polygon.slice(i, i + 3);
        expect(Math.abs(plane[0] * x + plane[1] * y + plane[2] * z - plane[3])).toBeLessThan(1e-6);
        for (const pocket of pockets) {
          for (const [nx, ny, nz, d] of baked.pockets[pocket].planes)
            expect(nx * x + ny * y + nz * z - d).toBeLessThan(1e-5);
        }
      }
    }
    const words = await stravel('bake', 'sight', 'weighbridge');
    expect([words.code, words.out]).toEqual([0, expect.stringContaining('open to the outside')]);
  }, 120000);

  it('ends with 2 and a line that names what was wrong', async () => {
    const wrong = join(folder, 'wrong.zip');
    writeFileSync(wrong, 'not a zip');
    for (const [parameters, message] of [
      [['bake', 'sight', 'Nowhere'], 'there is no level with the key, name or id Nowhere'],
      [['restore', wrong], 'is text. Choose a zip archive (.zip).'],
      [['restore', join(folder, 'absent.zip')], 'absent.zip'],
      [['archive', join(folder, 'none/x.zip')], 'none/x.zip'],
      [['archive', 'x.zip', '--collection', 'gone'], 'there is no collection gone; there are: cinderbrine'],
    ] as const) {
      const { code, err } = await stravel(...parameters);
      expect([code, err]).toEqual([2, expect.stringContaining(message)]);
      expect(err.trim().split('\n')).toHaveLength(1);
    }
    expect((await stravel('dance')).code).not.toBe(0);
  }, 120000);

  it('archives, restores and archives again to equal bytes, with the server gone', async () => {
    const ended = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGKILL');
    await ended;
    expect((await stravel('archive', 'first.zip')).code).toBe(0);
    const restored = await stravel('restore', 'first.zip');
    expect(restored.code).toBe(0);
    const id = /as the collection (\S+)/.exec(restored.out)?.[1] ?? '';
    expect((await stravel('archive', 'second.zip', '--collection', id)).code).toBe(0);
    expect(readFileSync(join(folder, 'second.zip')).equals(readFileSync(join(folder, 'first.zip')))).toBe(true);
    // What is in the collection already changes nothing; what was changed is put back by one edit.
    expect((await stravel('restore', 'first.zip', '--into', id)).out).toBe(`${id} holds that already\n`);
    expect((await stravel('archive', 'changed/', '--collection', id)).code).toBe(0);
    const path = join(folder, 'changed/levels/sorting-hall.json');
    writeFileSync(path, readFileSync(path, 'utf8').replace('"name": "Sorting Hall"', '"name": "Sorting Room"'));
    expect((await stravel('index', 'changed')).code).toBe(0);
    expect((await stravel('restore', 'changed', '--into', id, '--preview')).out).toBe(
      `level: 0 added, 1 changed, 0 removed\n1 change would be made in ${id}\n`,
    );
    expect((await stravel('restore', 'changed', '--into', id)).out).toContain(
      `1 change was made in ${id}, as one edit`,
    );
    expect((await stravel('restore', 'changed', '--into', id)).out).toBe(`${id} holds that already\n`);
    // What points at nothing in a file edited by hand is read, and told.
    writeFileSync(path, readFileSync(path, 'utf8').replace(/("position": \[)/, '"group": "nowhere", $1'));
    expect((await stravel('index', 'changed')).code).toBe(0);
    expect((await stravel('restore', 'changed')).out).toMatch(
      /is back as the collection \S+\nlevels\/sorting-hall\.json: group of the \w+ \S+ points at nowhere, which does not exist\n$/,
    );
    expect((await stravel('restore', 'changed', '--into', 'gone')).err).toContain('there is no collection gone');
    const both = await stravel('archive', 'third.zip');
    expect([both.code, both.err]).toEqual([2, expect.stringContaining('name one with --collection')]);
  }, 120000);

  it('checks and packs: exit 0 when it can, 1 when the check finds errors, 2 when call or input is wrong', async () => {
    const own = ['--collection', 'cinderbrine'];
    expect(await stravel('check', ...own)).toMatchObject({ code: 0, out: 'no errors, ready to pack\n' });
    const first = await stravel('pack', 'out', ...own);
    expect(first).toMatchObject({ code: 0 });
    expect(first.out).toMatch(
      /^24 levels and 3 kits are in out, as of edit 0, \d+ bytes: \d+ files written, 0 unchanged, 0 removed\n$/,
    );
    expect((await stravel('pack', 'out', ...own)).out).toMatch(/: 0 files written, \d+ unchanged, 0 removed\n$/);
    const { masks } = JSON.parse(readFileSync(join(folder, 'out/levels/mould-room.json'), 'utf8')) as {
      masks: { picture: string }[];
    };
    const picture = readFileSync(join(folder, 'out', masks[0].picture));
    expect([picture.subarray(1, 4).toString(), picture.readUInt32BE(16), picture.readUInt32BE(20)]).toEqual([
      'PNG',
      640,
      440,
    ]);
    // The second target writes a file for each piece; both say in JSON what a build script needs.
    const tower = await stravel('pack', 'tower', ...own, '--target', 'tower BUILD', '--json');
    expect(JSON.parse(tower.out)).toMatchObject({ findings: [], levels: 24, kits: 3, unchanged: 0, removed: [] });
    expect((JSON.parse(tower.out) as { written: string[] }).written).toContain('kits/works-kit/rail-4-m.glb');
    expect(JSON.parse((await stravel('check', ...own, '--json')).out)).toEqual({ findings: [] });
    expect(await stravel('check', ...own, '--target', 'Hand')).toMatchObject({
      code: 2,
      err: 'stravel: pack: there is no target Hand; there are: Console build, Tower build\n',
    });
    writeFileSync(join(folder, 'a-file'), '');
    const refused = await stravel('pack', 'a-file', ...own);
    expect(refused).toMatchObject({
      code: 2,
      err: `stravel: pack: the folder ${join(folder, 'a-file')} is not a folder\n`,
    });
    const unwritable = await stravel('pack', '/proc/stravel', ...own);
    expect(unwritable.code).toBe(2);
    expect(unwritable.err).toContain('pack: the folder /proc/stravel cannot be written');
    expect((await stravel('pack')).code).toBe(2);
    expect((await stravel('pack', '--what')).code).toBe(2);
    expect(await stravel('check', '--collection', 'none')).toMatchObject({ code: 2 });
    // The same through a server that holds the folder.
    server = await demo();
    expect((await stravel('pack', 'out', ...own)).out).toMatch(/: 0 files written, \d+ unchanged, 0 removed\n$/);
    const { port } = JSON.parse(readFileSync(join(dataFolder, 'stravel.lock'), 'utf8')) as { port: number };
    const { chunks } = JSON.parse(readFileSync(join(folder, 'out/levels/sorting-hall.json'), 'utf8')) as {
      chunks: { placements: { piece: string }[] }[];
    };
    const { piece } = chunks.flatMap(({ placements }) => placements)[0];
    const huge = { id: 'huge', piece, position: [0, 0, 0], turn: [0, 0, 0], scale: [900, 1, 1] };
    const operations = [
      { document: 'works-base', kind: 'placement', id: 'huge', field: null, before: null, after: huge },
    ];
    const body = JSON.stringify({ id: 'place-huge', person: 'tester', label: 'place', undoes: null, operations });
    await fetch(`http://127.0.0.1:${port}/api/collections/cinderbrine/edits`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body,
    });
    const found = await stravel('check', ...own);
    expect(found).toMatchObject({ code: 1, err: 'stravel: the check found 1 error\n' });
    expect(found.out).toMatch(/error PACK_SCALE: A placement of .* is scaled by 900; Console build takes 0.01 to 100/);
    expect((await stravel('pack', 'out', ...own)).code).toBe(1);
  }, 120000);

  it('makes collections, lists, backs up while a server runs, verifies, and keeps plain folders', async () => {
    const made = await stravel('new', 'Tern Harbour', '--devices', 'handheld');
    expect(made.out).toMatch(/^Tern Harbour is the new collection [0-9a-f-]{36}\n$/);
    const id = made.out.trim().split(' ').at(-1) ?? '';
    expect(await stravel('new', '')).toMatchObject({ code: 2 });
    expect((await stravel('new', 'Oven', '--devices', 'toaster')).err).toContain(
      'there is no standard device toaster; there are: handheld',
    );
    expect((await stravel('list')).out).toMatch(new RegExp(`${id} {2}Tern Harbour, 1 level, changed `));
    // The server holds the folder: verify must wait for it, a backup need not.
    expect(await stravel('verify')).toMatchObject({
      code: 2,
      err: expect.stringContaining('is in use by process') as string,
    });
    expect((await stravel('backup', 'copy')).out).toMatch(
      /^the data folder is in copy, with \d+ mesh and picture files and \d+ bakes/,
    );
    expect((await stravel('backup', 'copy')).err).toContain('is not empty; name an empty or a new one');
    expect((await stravel('archive', 'plain/', '--collection', id)).out).toMatch(
      /: 15 files written, 0 unchanged, 0 removed\n$/,
    );
    expect((await stravel('archive', 'plain/', '--collection', id)).out).toMatch(
      /: 0 files written, 15 unchanged, 0 removed\n$/,
    );
    const level = join(folder, 'plain/levels/new-level.json');
    writeFileSync(level, readFileSync(level, 'utf8').replace('"name": "New level"', '"name": "Quay"'));
    expect((await stravel('restore', 'plain')).err).toContain('If you edited the files, run: stravel index plain');
    expect((await stravel('index', 'plain')).out).toBe('plain lists 14 files\n');
    expect((await stravel('restore', 'plain')).out).toMatch(/^Tern Harbour is back as the collection /);
  }, 120000);

  it('says its version, and names what is not there without making it', async () => {
    const alone = (...parameters: string[]): Promise<Ended> =>
      stravelIn({ STRAVEL_DATA: join(folder, 'no-data') }, ...parameters);
    expect(await alone('--version')).toMatchObject({
      code: 0,
      out: expect.stringMatching(/^\d+\.\d+\.\d+\n$/) as string,
    });
    expect(await alone('list')).toMatchObject({
      code: 0,
      out: 'no collections yet; make one with: stravel new NAME\n',
    });
    for (const call of [['check'], ['verify'], ['archive', 'x.zip'], ['pack', 'x'], ['bake', 'sight', 'x']]) {
      expect(await alone(...call)).toMatchObject({
        code: 2,
        out: '',
        err: `stravel: there is no data folder ${join(folder, 'no-data')}; name one with STRAVEL_DATA, or make a collection with: stravel new NAME\n`,
      });
    }
    for (const call of ['restore', 'index'])
      expect((await alone(call, '/no/such')).err).toBe('stravel: there is no file or folder /no/such\n');
    expect(existsSync(join(folder, 'no-data'))).toBe(false);
  }, 120000);

  it('ends quietly when nobody reads what it prints', async () => {
    const child = spawn(
      process.execPath,
      [MAIN, 'bake', 'sight', 'Kiln Tunnels', '--json', '--collection', 'cinderbrine'],
      {
        env: { ...process.env, PORT: '0', STRAVEL_DATA: dataFolder, STRAVEL_LOG: 'silent' },
        stdio: ['ignore', 'pipe', 'pipe'],
      },
    );
    child.stdout.destroy();
    let err = '';
    child.stderr.on('data', (data: Buffer) => (err += data.toString()));
    const code = await new Promise((resolve) => child.once('close', resolve));
    expect([code, err]).toEqual([0, '']);
  }, 120000);
});
