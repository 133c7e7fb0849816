import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  boxPlanes,
  type Json,
  type Operation,
  plainJson,
  PLAIN_TARGET,
  type Finding,
  type KitLoad,
} from '@stravel/core';
import { AssetStore } from '../collections/asset-store';
import type { LevelBakes } from '../bakes/bake-service';
import type { JobEvent } from '../jobs/job-service';
import { edit, removeFolder, startTestServer, type TestServer } from '../testing/test-server';
import { byKind } from '../testing/level-bakes';
import type { PackSummary } from './pack-service';

let test: TestServer;
let folder: string;

beforeEach(async () => {
  test = await startTestServer();
  folder = mkdtempSync(join(tmpdir(), 'stravel-pack-'));
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
  rmSync(folder, { recursive: true, force: true });
});

const pack = (into = folder): Promise<PackSummary> => test.server.packs.pack('small', into, { withAllPurposes: false });
const rename = (before: string, after: string): Operation => ({
  document: 'records',
  kind: 'level',
  id: 'two',
  field: 'name',
  before,
  after,
});
const addBlock: Operation = {
  document: 'own',
  kind: 'block',
  id: 'x1',
  field: null,
  before: null,
  after: {
    id: 'x1',
    name: '',
    position: [2, 0, 2],
    turn: [0, 0, 0],
    planes: boxPlanes([1, 1, 1]),
    sight: 'hides',
    material: 'brick',
  },
};
async function ended(id: string): Promise<JobEvent> {
  for (;;) {
    const job = (await (await test.get(`/api/collections/small/jobs/${id}`)).json()) as JobEvent;
    if (job.state !== 'queued' && job.state !== 'running') return job;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

describe('packing', () => {
  it('writes all files once, and later only those that changed', async () => {
    const first = await pack();
    expect(first).toMatchObject({ levels: 2, kits: 1, unchanged: 0, removed: [] });
    expect(first.written).toEqual([
      'game.json',
      'kits/kit.json',
      'kits/kit/pin.glb',
      'levels/one.json',
      'levels/one/resident.glb',
      'levels/one/sight.json',
      'levels/two.json',
      'levels/two/resident.glb',
      'levels/two/sight.json',
      'manifest.json',
    ]);
    const before = statSync(join(folder, 'levels/two.json')).mtimeMs;
    expect(await pack()).toMatchObject({ written: [], unchanged: 9, removed: [] });
    await test.post('/api/collections/small/edits', edit([addBlock]));
    expect((await pack()).written).toEqual([
      'levels/one.json',
      'levels/one/resident.glb',
      'levels/one/sight.json',
      'manifest.json',
    ]);
    expect(statSync(join(folder, 'levels/two.json')).mtimeMs).toBe(before);
    await test.post('/api/collections/small/edits', edit([rename('two', 'Salt Road')]));
    // Its files stay under the game.
    expect(await pack()).toMatchObject({
      written: ['game.json', 'levels/two.json', 'manifest.json'],
      removed: [],
    });
    await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'records', kind: 'level', id: 'two', field: 'key', before: 'two', after: 'salt-road' }]),
    );
    const renamed = await pack();
    expect(renamed.removed).toEqual(['levels/two.json', 'levels/two/resident.glb', 'levels/two/sight.json']);
    expect([existsSync(join(folder, 'levels/two')), existsSync(join(folder, 'levels/salt-road.json'))]).toEqual([
      false,
      true,
    ]);
    // What somebody changed by hand is put right.
    writeFileSync(join(folder, 'kits/kit.json'), '{}');
    expect((await pack()).written).toEqual(['kits/kit.json']);
  }, 60000);

  it('weighs what the figures of its levels say, and looks only into kits that are used', async () => {
    const spare = {
      id: 'spare',
      name: 'Spare kit',
      key: 'spare',
      mesh: await new AssetStore(test.dataFolder).put(Buffer.from('no mesh')),
    };
    await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'records', kind: 'kit', id: 'spare', field: null, before: null, after: spare }]),
    );
    // A kit that no level uses is not read: it may be anything.
    await pack();
    const bytesOf = (path: string): number => statSync(join(folder, path)).size;
    const { loads } = (await (await test.get('/api/collections/small/kits/loads')).json()) as {
      loads: Record<string, KitLoad>;
    };
    expect(loads).toEqual({
      kit: {
        files: 1,
        memoryBytes: 0,
        diskBytes: bytesOf('kits/kit.json'),
        pieces: {
          pin: { files: 1, memoryBytes: expect.any(Number) as number, diskBytes: bytesOf('kits/kit/pin.glb') },
        },
      },
    });
    const { count } = (await test.server.bakes.list('small')).find(({ level }) => level === 'one') as LevelBakes;
    const files = [
      'levels/one.json',
      'levels/one/resident.glb',
      'levels/one/sight.json',
      'kits/kit/pin.glb',
      'kits/kit.json',
    ];
    const packed = files.reduce((sum, path) => sum + bytesOf(path), 0);
    const held = (count?.load.diskBytes ?? NaN) + bytesOf('levels/one/sight.json');
    expect(count?.load.files).toBe(files.length);
    expect(Math.abs(held - packed)).toBeLessThan(0.02 * packed + 300);
  }, 60000);

  it('refuses a folder that is no folder, holds something else, or cannot be written, and writes nothing', async () => {
    writeFileSync(join(folder, 'notes.txt'), 'mine');
    await expect(pack()).rejects.toThrow(
      `pack: the folder ${folder} contains something that is not a pack; choose an empty one`,
    );
    await expect(pack(join(folder, 'notes.txt'))).rejects.toThrow(
      `pack: the folder ${join(folder, 'notes.txt')} is not a folder`,
    );
    await expect(pack(join(folder, 'notes.txt', 'below'))).rejects.toThrow('is not a folder');
    // No one may write there, not even the superuser that tests run as.
    await expect(pack('/proc/stravel')).rejects.toThrow(
      /pack: the folder \/proc\/stravel cannot be written \(ENOENT|EACCES|EPERM/,
    );
    mkdirSync(join(folder, 'other'));
    writeFileSync(join(folder, 'other', 'manifest.json'), '{"format":"something"}');
    await expect(pack(join(folder, 'other'))).rejects.toThrow(
      'has a manifest.json that is not that of a pack; choose an empty one',
    );
    expect(readdirSync(folder).sort()).toEqual(['notes.txt', 'other']);
  }, 60000);

  it('refuses what the check finds errors in, and leaves the pack before as it was', async () => {
    await pack();
    const manifest = readFileSync(join(folder, 'manifest.json'), 'utf8');
    const level = { document: 'records', kind: 'level', id: 'one' } as const;
    const { strata, bounds } = (await test.server.collections.give('small')).records.level['one'];
    const unsound: Operation[] = [
      {
        document: 'records',
        kind: 'stratum',
        id: 'bare',
        field: null,
        before: null,
        after: { id: 'bare', name: 'Bare', role: 'structure', owner: 'one' },
      },
      {
        ...level,
        field: 'strata',
        before: strata as unknown as Json,
        after: [{ stratum: 'bare', switchedOff: false }],
      },
      { ...level, field: 'bounds', before: bounds as unknown as Json, after: null },
    ];
    await test.post('/api/collections/small/edits', edit(unsound));
    await expect(pack()).rejects.toThrow('pack: the check found 1 error, the first: Nothing is in one');
    expect(readFileSync(join(folder, 'manifest.json'), 'utf8')).toBe(manifest);
    const { findings } = (await (await test.get('/api/collections/small/pack/check')).json()) as {
      findings: { code: string }[];
    };
    expect(findings.map(({ code }) => code)).toEqual(['PACK_EMPTY']);
  }, 60000);

  it('is of one moment, whatever is changed while it runs, and names the number of the last edit', async () => {
    await test.post('/api/collections/small/edits', edit([rename('two', 'Salt Road')]));
    let changed: Promise<unknown> | undefined;
    const onProgress = (fraction: number): void => {
      if (fraction < 0.06 || changed) return;
      changed = test.post('/api/collections/small/edits', edit([rename('Salt Road', 'Brine Road'), addBlock]));
    };
    const told = await test.server.packs.pack('small', folder, { withAllPurposes: false }, { onProgress });
    expect(((await changed) as Response).status).toBe(201);
    expect(told.edit).toBe(1);
    const read = (path: string) =>
      JSON.parse(readFileSync(join(folder, path), 'utf8')) as { name: string; edit: number };
    expect([read('manifest.json').edit, read('levels/two.json').name]).toEqual([1, 'Salt Road']);
    const before = readFileSync(join(folder, 'levels/one/sight.json'), 'utf8');
    const next = await pack();
    expect([next.edit, read('levels/two.json').name]).toEqual([2, 'Brine Road']);
    expect(readFileSync(join(folder, 'levels/one/sight.json'), 'utf8')).not.toBe(before);
    // What is kept is of what stands now, never of the moment that is past.
    expect((await test.server.bakes.list('small')).map((one) => byKind(one).sight.state)).toEqual(['fresh', 'fresh']);
  }, 60000);

  it('leaves levels out that are named', async () => {
    await test.server.packs.pack('small', folder, { withAllPurposes: false, without: ['one'] });
    expect([existsSync(join(folder, 'levels/one.json')), existsSync(join(folder, 'levels/two.json'))]).toEqual([
      false,
      true,
    ]);
    const answer = await test.get('/api/collections/small/pack/check?without=..,x');
    expect([answer.status, ((await answer.json()) as { title: string }).title]).toEqual([400, 'PACK_REQUEST']);
    expect((await test.get('/api/collections/small/pack/check?without=one,gone')).status).toBe(200);
  }, 60000);

  it('writes as its target has it, and refuses one that is not there', async () => {
    const target = {
      ...PLAIN_TARGET,
      id: 'box',
      name: 'Box',
      order: 'a0',
      meshFiles: 'perKit',
      withAllPurposes: true,
      rules: { levelKeys: { isOn: true, max: 2 } },
    };
    await test.post(
      '/api/collections/small/edits',
      edit([
        { document: 'records', kind: 'target', id: 'box', field: null, before: null, after: plainJson(target) },
        { document: 'records', kind: 'level', id: 'two', field: 'purpose', before: 'play', after: 'test' },
      ]),
    );
    // Figures count the files of the first target.
    const { loads } = (await (await test.get('/api/collections/small/kits/loads')).json()) as {
      loads: Record<string, KitLoad>;
    };
    expect([loads['kit'].files, loads['kit'].pieces]).toEqual([2, undefined]);
    const checked = async (query: string): Promise<string[]> =>
      (
        (await (await test.get(`/api/collections/small/pack/check?${query}`)).json()) as { findings: Finding[] }
      ).findings.map(({ code, subject }) => `${code} ${subject}`);
    expect(await checked('')).toEqual(['PACK_FILE_NAME one', 'PACK_FILE_NAME two']);
    expect(await checked('target=BOX&all=no')).toEqual(['PACK_FILE_NAME one']);
    const lost = await test.get('/api/collections/small/pack/check?target=Tower');
    expect([lost.status, ((await lost.json()) as { detail: string }).detail]).toEqual([
      422,
      'pack: there is no target Tower; there are: Box',
    ]);
    await expect(test.server.packs.pack('small', folder, { target: 'Tower' })).rejects.toThrow('no target Tower');
    await expect(test.server.packs.pack('small', folder, {})).rejects.toThrow('the check found 2 errors');
    await test.post(
      '/api/collections/small/edits',
      edit([
        {
          document: 'records',
          kind: 'target',
          id: 'box',
          field: 'rules.levelKeys',
          before: { isOn: true, max: 2 },
          after: null,
        },
      ]),
    );
    const { written } = await test.server.packs.pack('small', folder, {});
    expect(written).toEqual(expect.arrayContaining(['kits/kit.glb', 'levels/two.json']));
    expect(JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8'))).toMatchObject({
      target: { id: 'box', name: 'Box', meshFiles: 'perKit' },
    });
    const { chunks } = JSON.parse(readFileSync(join(folder, 'levels/one.json'), 'utf8')) as {
      chunks: { kits: string[]; meshes: string[] }[];
    };
    expect(chunks.map(({ kits, meshes }) => [kits, meshes])).toEqual([[['kits/kit.json'], ['kits/kit.glb']]]);
    await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'records', kind: 'target', id: 'box', field: 'compression', before: null, after: 'meshopt' }]),
    );
    expect((await test.server.packs.pack('small', folder, {})).written).toEqual(['kits/kit.glb', 'manifest.json']);
    expect(readFileSync(join(folder, 'kits/kit.glb')).includes('EXT_meshopt_compression')).toBe(true);
  }, 60000);

  it('lets two packs into one folder wait for each other', async () => {
    const both = await Promise.all([pack(), pack()]);
    const [first, second] = both.sort((a, b) => b.written.length - a.written.length);
    expect([first.written.length, second.written.length, second.unchanged]).toEqual([10, 0, 9]);
    expect(readdirSync(folder).sort()).toEqual(['game.json', 'kits', 'levels', 'manifest.json']);
    // The one that fails does not hold up the next.
    const controller = new AbortController();
    controller.abort();
    const broken = test.server.packs.pack('small', folder, {}, { signal: controller.signal });
    const after = pack();
    await expect(broken).rejects.toThrow(/cancelled/);
    expect((await after).written).toEqual([]);
  }, 60000);

  it('stops midway when it is cancelled and leaves nothing behind', async () => {
    const controller = new AbortController();
    const run = test.server.packs.pack(
      'small',
      folder,
      { withAllPurposes: false },
      { signal: controller.signal, onProgress: (fraction) => fraction > 0.3 && controller.abort() },
    );
    await expect(run).rejects.toThrow(/cancelled/);
    expect(readdirSync(folder)).toEqual([]);
  }, 60000);

  it('writes a level again that no edit has touched where somebody changed or removed its file', async () => {
    await pack();
    const file = join(folder, 'levels/one.json');
    const text = readFileSync(file, 'utf8');
    expect((await pack()).written).toEqual([]);
    writeFileSync(file, '{}');
    expect((await pack()).written).toEqual(['levels/one.json']);
    rmSync(join(folder, 'levels/one/sight.json'));
    expect((await pack()).written).toEqual(['levels/one/sight.json']);
    expect(readFileSync(file, 'utf8')).toBe(text);
    // Edits count from the one that the pack has on, also such as were made while it was written.
    const packing = pack();
    await test.server.edits.append('small', edit([rename('two', 'Due')]));
    await packing;
    await pack();
    expect(readFileSync(join(folder, 'levels/two.json'), 'utf8')).toContain('"name": "Due"');
  }, 60000);

  it('runs as a job of the page below the data folder, and tells what it wrote', async () => {
    await test.server.jobs.start();
    const { id } = (await (
      await test.post('/api/collections/small/pack', { folder: 'build', withAllPurposes: false })
    ).json()) as JobEvent;
    const job = await ended(id);
    expect([job.state, (job.result as PackSummary).levels]).toEqual(['done', 2]);
    expect(existsSync(join(test.dataFolder, 'packs/small/build/manifest.json'))).toBe(true);
    for (const body of [
      { folder: '../out', withAllPurposes: false },
      { folder: 'build', target: 7 },
      { folder: 'build', target: 'x'.repeat(201) },
      { folder: 'a', withAllPurposes: false, more: 1 },
    ]) {
      expect(((await (await test.post('/api/collections/small/pack', body)).json()) as { title: string }).title).toBe(
        'PACK_REQUEST',
      );
    }
  }, 60000);
});

describe('meshes sent by a page', () => {
  const put = (bytes: Uint8Array, type = 'model/gltf-binary') =>
    fetch(`${test.url}/api/assets`, {
      method: 'PUT',
      headers: { 'Content-Type': type },
      body: bytes as Uint8Array<ArrayBuffer>,
    });

  it('are kept when they are sound, and refused when they claim more than they have', async () => {
    const { assets } = await test.server.collections.give('small');
    const [[name, bytes]] = assets;
    expect(await (await put(bytes)).json()).toEqual({ name });
    const claims = bytes.slice();
    new DataView(claims.buffer).setUint32(8, 2 ** 31, true);
    expect(await (await put(claims)).json()).toMatchObject({
      title: 'GLB_UNREADABLE',
      detail: `glb: claims 2147483648 bytes, has ${bytes.length}`,
    });
    expect((await put(bytes, 'text/plain')).status).toBe(415);
  }, 60000);

  it('must be there before a kit names them', async () => {
    const name = 'f'.repeat(64);
    const before = (await test.server.collections.give('small')).records.kit['kit'].mesh;
    const answer = await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'records', kind: 'kit', id: 'kit', field: 'mesh', before, after: name }]),
    );
    expect(await answer.json()).toMatchObject({
      title: 'EDIT_REFERENCE',
      detail: `edit: kit kit points at the mesh ${name}, which does not exist`,
    });
  });

  it('must have what a piece is named after, and a collection keeps one record of itself: else its archive could not be read back', async () => {
    const { records } = await test.server.collections.give('small');
    const { name } = records.piece['pin'];
    const renamed = await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'records', kind: 'piece', id: 'pin', field: 'name', before: name, after: 'nail' }]),
    );
    expect(await renamed.json()).toMatchObject({
      title: 'EDIT_REFERENCE',
      detail: 'edit: piece pin is named nail, the mesh of the kit kit has nothing of that name',
    });
    const { collection } = records.collection as unknown as Record<string, Json>;
    const second: Operation = {
      document: 'records',
      kind: 'collection',
      id: 'other',
      field: null,
      before: null,
      after: { ...(collection as object), id: 'other' },
    };
    const none: Operation = {
      document: 'records',
      kind: 'collection',
      id: 'collection',
      field: null,
      before: collection,
      after: null,
    };
    for (const [operations, count] of [
      [[second], 2],
      [[none], 0],
    ] as const) {
      const answer = await test.post('/api/collections/small/edits', edit([...operations]));
      const detail = `edit: a collection has one record of itself, after this it would have ${count}; change its fields instead`;
      expect([answer.status, await answer.json()]).toEqual([
        422,
        expect.objectContaining({ title: 'EDIT_COLLECTION', detail }),
      ]);
    }
    expect((await test.post('/api/collections/small/edits', edit([none, second]))).status).toBe(201);
  });
});
