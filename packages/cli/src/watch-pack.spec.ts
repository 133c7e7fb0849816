import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { boxPlanes, type Operation } from '@stravel/core';
import { openCollections, type PackSummary } from '@stravel/server';
import { edit, removeFolder, rename, startTestServer, type TestServer } from '../../server/src/testing/test-server';
import { watchPack } from './commands/watch-pack';

interface Manifest {
  readonly edit: number;
  readonly stale: readonly string[];
}

const said: string[] = [];
const say = (text: string): Promise<void> => {
  said.push(text);
  return Promise.resolve();
};

let test: TestServer;
let folder: string;
let end: AbortController;

beforeEach(async () => {
  test = await startTestServer();
  await test.server.jobs.start();
  folder = mkdtempSync(join(tmpdir(), 'stravel-watch-'));
  end = new AbortController();
  said.length = 0;
});

afterEach(() => {
  end.abort();
  removeFolder(test.dataFolder);
  rmSync(folder, { recursive: true, force: true });
});

const read = <T>(path: string): T => JSON.parse(readFileSync(join(folder, path), 'utf8')) as T;
const watch = (access = openCollections.overNetwork(test.url)): Promise<void> =>
  watchPack(access, { collection: 'small', folder, choice: {}, asJson: true }, end.signal, say);
const summaries = (): PackSummary[] => said.map((text) => JSON.parse(text) as PackSummary);

/** Comes back when something holds, or when the test is over. */
async function until(holds: () => boolean): Promise<void> {
  while (!holds() && !end.signal.aborted) await new Promise((resolve) => setTimeout(resolve, 20));
}
const packedUpTo = (sequence: number): Promise<void> =>
  until(() => summaries().some((one) => one.edit >= sequence && one.stale.length === 0));

const addBlock = (id: string): Operation => ({
  document: 'own',
  kind: 'block',
  id,
  field: null,
  before: null,
  after: {
    id,
    name: '',
    position: [3, 0, 3],
    turn: [0, 0, 0],
    planes: boxPlanes([1, 3, 4]).map((plane) => [...plane]),
    sight: 'hides',
    material: 'brick',
  },
});

describe('a pack that is watched', () => {
  it('writes what an edit changed, tells what is seen as stale until it is baked, and ends when it is told to', async () => {
    const watching = watch();
    await packedUpTo(0);
    const seen = readFileSync(join(folder, 'levels/one/sight.json'), 'utf8');
    // A name changes no sight.
    await test.server.edits.append('small', edit([rename('one', 'Uno')]));
    await packedUpTo(1);
    expect(read<{ name: string }>('levels/one.json').name).toBe('Uno');
    const renamed = summaries().at(-1);
    expect(renamed?.written).toEqual(['game.json', 'levels/one.json', 'manifest.json']);
    // A block does: it is there before the bake, and the manifest says so.
    await test.server.edits.append('small', edit([addBlock('x1')]));
    await packedUpTo(2);
    const packs = summaries();
    const stale = packs.find((one) => one.edit === 2 && one.stale.length > 0);
    expect(stale?.stale).toEqual(['levels/one/sight.json']);
    expect(stale?.written).toContain('levels/one.json');
    expect(stale?.written).not.toContain('levels/one/sight.json');
    expect(packs.at(-1)?.written).toEqual(['levels/one/sight.json', 'manifest.json']);
    expect(read<Manifest>('manifest.json')).toMatchObject({ edit: 2, stale: [] });
    expect(readFileSync(join(folder, 'levels/one/sight.json'), 'utf8')).not.toBe(seen);
    end.abort();
    await watching;
    await test.stop();
  }, 60000);

  it('leaves the pack as it is where the check refuses, and goes on with the next edit', async () => {
    const watching = watch();
    await packedUpTo(0);
    const before = read<Manifest>('manifest.json');
    const far: Operation = {
      document: 'own',
      kind: 'placement',
      id: 'p1',
      field: 'scale',
      before: [1, 1, 1],
      after: [500, 1, 1],
    };
    await test.server.edits.append('small', edit([far]));
    await until(() => said.some((text) => text.includes('"error"')));
    expect(said.at(-1)).toContain('the check found 1 error');
    expect(read<Manifest>('manifest.json')).toEqual(before);
    await test.server.edits.append('small', edit([{ ...far, before: [500, 1, 1], after: [2, 1, 1] }]));
    await packedUpTo(2);
    end.abort();
    await watching;
    await test.stop();
  }, 60000);

  it('ends with the server, and needs one', async () => {
    const watching = watch();
    await packedUpTo(0);
    const ended = expect(watching).rejects.toThrow('the server has stopped');
    await test.stop();
    await ended;
    const { access, close } = await openCollections.fromFolder(test.dataFolder);
    await expect(watch(access)).rejects.toThrow('start ./stravel serve first');
    await close();
  }, 60000);
});
