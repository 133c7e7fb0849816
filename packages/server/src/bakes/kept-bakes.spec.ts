import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { newRecipe, type BakeRef, type Json, type Operation } from '@stravel/core';
import { edit, removeFolder, startTestServer, type TestServer } from '../testing/test-server';
import { bakeLevel, byKind, type BakesByKind } from '../testing/level-bakes';
import { BakeStore } from './bake-store';
import { bakeFileName } from './bake-file';

let test: TestServer;
/** Kinds of the bakes that threads made. */
let made: string[];

beforeEach(async () => {
  test = await startTestServer();
  made = [];
  const run = test.server.threads.run.bind(test.server.threads);
  jest.spyOn(test.server.threads, 'run').mockImplementation((name, input, options) => {
    if (name === 'make-bake') made.push((input as { ref: BakeRef }).ref.kind);
    return run(name, input, options);
  });
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

const level = async (id = 'one'): Promise<BakesByKind> => {
  const found = (await test.server.bakes.list('small')).find((one) => one.level === id);
  if (!found) throw new Error(`no level ${id}`);
  return byKind(found);
};
const recipe = newRecipe('burrow', { id: 'r', name: 'Cave', seed: 'brine', isFirst: true });
const change = async (field: string | null, before: Json, after: Json): Promise<void> => {
  const operation: Operation = { document: 'own', kind: 'recipe', id: 'r', field, before, after };
  expect((await test.post('/api/collections/small/edits', edit([operation]))).status).toBe(201);
};
const addCave = (): Promise<void> => change(null, null, recipe as unknown as Json);

describe('kept bakes', () => {
  it('have each section made once after an edit, whoever asks for it', async () => {
    await addCave();
    await Promise.all([
      level(),
      level(),
      bakeLevel(test.server, 'small', 'one'),
      bakeLevel(test.server, 'small', 'one'),
    ]);
    expect(made.sort()).toEqual(['figures', 'section', 'sight']);
    expect((await level()).sections.map(({ subject, state }) => [subject, state])).toEqual([['own~r', 'fresh']]);
    await change('seed', 'brine', 'salt');
    const after = await level();
    expect([after.sight.state, after.figures.state, after.count === null]).toEqual(['stale', 'stale', false]);
    await test.server.packs.pack('small', join(test.dataFolder, 'pack'), { withAllPurposes: true, without: ['two'] });
    await bakeLevel(test.server, 'small', 'one');
    expect(made.slice(3).sort()).toEqual(['figures', 'section', 'sight']);
  }, 60000);

  it('are fresh again when what they were made of is back, without being made again', async () => {
    await addCave();
    await bakeLevel(test.server, 'small', 'one');
    const { sight } = await level();
    await change('seed', 'brine', 'salt');
    await bakeLevel(test.server, 'small', 'one');
    const count = made.length;
    await change('seed', 'salt', 'brine');
    const back = await level();
    expect([back.sight.state, back.sight.key, back.figures.state, made.length]).toEqual([
      'fresh',
      sight.key,
      'fresh',
      count,
    ]);
    const answer = await test.get('/api/collections/small/bakes/sight/one');
    expect([answer.headers.get('Stravel-Key'), ((await answer.json()) as { closed: boolean }).closed]).toEqual([
      sight.key,
      true,
    ]);
  }, 60000);

  it('of sight stay fresh when the walls are of another material, and figures do not', async () => {
    await addCave();
    await bakeLevel(test.server, 'small', 'one');
    await change('material', 'rock', 'salt');
    const { sight, figures, sections } = await level();
    expect([sight.state, figures.state, sections[0].state]).toEqual(['fresh', 'stale', 'fresh']);
  }, 60000);

  it('are not known while a section that takes long is made, and tell when it is there', async () => {
    await change(null, null, { ...recipe, stepLimit: 1e9 } as unknown as Json);
    const meanwhile = await level();
    expect([meanwhile.count, meanwhile.sight.state, meanwhile.sight.current]).toEqual([null, 'none', null]);
    for (let tries = 0; tries < 100 && (await level()).count === null; tries++)
      await new Promise((resolve) => test.server.bakes.events.once('bake', resolve));
    expect((await level()).sight.current).toMatch(/^[0-9a-f]{64}$/);
    expect(made.filter((kind) => kind === 'section')).toHaveLength(1);
  }, 60000);

  it('of what an edit has overtaken are not made to the end', async () => {
    const long = { ...recipe, columns: 2000, rows: 2000, openShare: 1, stepLimit: 1e9 };
    await change(null, null, long as unknown as Json);
    expect((await level()).count).toBeNull();
    await change('columns', 2000, 30);
    await change('rows', 2000, 30);
    await change('stepLimit', 1e9, 200000);
    const now = await level();
    expect([now.count === null, now.sections[0].state]).toEqual([false, 'fresh']);
    expect(await test.database.models.bakes.count({ where: { kind: 'section' } })).toBe(1);
  }, 60000);

  it('are made anew where their file is missing or was changed', async () => {
    await addCave();
    const before = await bakeLevel(test.server, 'small', 'one');
    for (const file of readdirSync(join(test.dataFolder, 'bakes')))
      writeFileSync(join(test.dataFolder, 'bakes', file), 'cut');
    expect((await test.get('/api/collections/small/bakes/sight/one')).status).toBe(404);
    expect(await bakeLevel(test.server, 'small', 'one')).toEqual(before);
    expect((await level()).figures.state).toBe('fresh');
    expect(readdirSync(join(test.dataFolder, 'bakes'))).toHaveLength(3);
  }, 60000);

  it('refuse what no page may send: other kinds, subjects that are not there, keys that are none', async () => {
    const title = async (method: string, path: string, key = 'f'.repeat(64)) => {
      const answer = await fetch(`${test.url}/api/collections/small/bakes/${path}`, {
        method,
        headers: { 'Stravel-Key': key },
      });
      return [answer.status, ((await answer.json()) as { title: string }).title];
    };
    expect(await title('GET', 'haunts/one')).toEqual([404, 'BAKE_KIND_UNKNOWN']);
    expect(await title('GET', 'constructor/one')).toEqual([404, 'BAKE_KIND_UNKNOWN']);
    expect(await title('POST', 'sight/gone')).toEqual([422, 'BAKE_MISSING']);
    expect(await title('PUT', 'section/own~gone')).toEqual([422, 'BAKE_MISSING']);
    expect(await title('PUT', 'sight/one')).toEqual([422, 'BAKE_STALE']);
    expect(made).toEqual([]);
  });
});

describe('the store of bakes', () => {
  const bake = (letter: string) => ({ bytes: new TextEncoder().encode(letter.repeat(100)), summary: {}, parts: {} });
  const names = (): string[] => readdirSync(join(test.dataFolder, 'bakes')).sort();
  const fileOf = (letter: string): string => bakeFileName(bake(letter).bytes);
  let time: number;
  const storeOf = (mostBytes: number): BakeStore =>
    new BakeStore(test.database, test.dataFolder, () => new Date(2026, 0, 1, 0, time++), mostBytes);

  beforeEach(() => {
    time = 0;
  });

  it('lets go what was not used for longest, never what stands or what a subject had last', async () => {
    const store = storeOf(250);
    const keep = (letter: string, subject: string) =>
      store.keep('small', { kind: 'sight', subject, key: letter }, bake(letter), (_kind, key) => key === 'c');
    await keep('a', 'one');
    await keep('b', 'one');
    await store.find('small', 'sight', 'a');
    await keep('c', 'one');
    // b was used before a.
    expect(names()).toEqual([fileOf('a'), fileOf('c')].sort());
    await keep('d', 'two');
    await keep('e', 'two');
    // c stands as things are, e is what two had last: only a and d may go.
    expect(names()).toEqual([fileOf('c'), fileOf('e')].sort());
    await keep('f', 'one');
    expect(names()).toEqual([fileOf('c'), fileOf('e'), fileOf('f')].sort());
  });

  it('never deletes a file that a row names, with two keys of the same bytes and writes at once', async () => {
    const store = storeOf(1e9);
    const same = bake('s');
    const never = (): boolean => false;
    await store.keep('small', { kind: 'sight', subject: 'one', key: 'k' }, same, never);
    for (let i = 0; i < 20; i++) {
      await Promise.all([
        store.keep('small', { kind: 'sight', subject: 'one', key: 'k' }, bake(String.fromCharCode(65 + i)), never),
        store.keep('small', { kind: 'sight', subject: 'two', key: `k${i}` }, same, never),
        store.dropUnused([fileOf('s')]),
      ]);
      for (const { path } of (
        await store.withKeys('small', ['k', ...Array.from({ length: i + 1 }, (_, n) => `k${n}`)])
      ).values())
        expect(existsSync(path)).toBe(true);
    }
  });

  it('clears up what a killed server left, and nothing that is named', async () => {
    const store = storeOf(1e9);
    await store.keep('small', { kind: 'sight', subject: 'one', key: 'k' }, bake('k'), () => false);
    for (const left of [`${fileOf('x')}.1234.part`, fileOf('y')])
      writeFileSync(join(test.dataFolder, 'bakes', left), 'cut');
    await test.server.bakes.begin();
    expect(names()).toEqual([fileOf('k')]);
  });

  it('forgets subjects that are gone and keeps their bakes', async () => {
    await bakeLevel(test.server, 'small', 'two');
    const { records } = await test.server.collections.give('small');
    const { strata } = records.level['two'];
    const stack = (before: unknown, after: unknown): Promise<Response> =>
      test.post(
        '/api/collections/small/edits',
        edit([
          {
            document: 'records',
            kind: 'level',
            id: 'two',
            field: 'strata',
            before: before as Json,
            after: after as Json,
          },
        ]),
      );
    await stack(strata, []);
    await test.server.bakes.list('small');
    expect(await test.database.models.bakeSubjects.count({ where: { subject: 'two' } })).toBe(0);
    await stack([], strata);
    expect((await level('two')).figures.state).toBe('fresh');
  }, 60000);
});
