import { invertOperations, type LoggedEdit, type Operation } from '@stravel/core';
import { edit, removeFolder, rename, startTestServer, type TestServer } from '../testing/test-server';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

interface History {
  readonly edits: readonly LoggedEdit[];
  readonly strata: readonly string[];
  readonly hasMore: boolean;
}
const history = async (level: string, query = ''): Promise<History> =>
  (await (await test.get(`/api/collections/small/levels/${level}/history${query}`)).json()) as History;
const send = async (label: string, ...operations: Operation[]) => {
  const sent = edit(operations, { label });
  expect((await test.post('/api/collections/small/edits', sent)).status).toBe(201);
  return sent;
};
const labels = ({ edits }: History) => edits.map(({ label }) => label);
const move = (x: number): Operation => ({
  document: 'own',
  kind: 'placement',
  id: 'p1',
  field: 'position',
  before: [1.25, 0, -2],
  after: [x, 0, -2],
});

describe('the history of a level over HTTP', () => {
  it('has what touched the level and the strata it owns, newest first, and nothing of others', async () => {
    await send('rename one', rename('one', 'uno'));
    await send('rename two', { ...rename('two', 'due'), id: 'two' });
    await send('move', move(4));
    await send('name the stratum', {
      document: 'records',
      kind: 'stratum',
      id: 'own',
      field: 'name',
      before: 'Own',
      after: 'Eigen',
    });
    // It mentions the level without being about it.
    await send('an order', {
      document: 'records',
      kind: 'levelOrder',
      id: 'two',
      field: null,
      before: null,
      after: { id: 'two', rules: [{ kind: 'after', levels: ['one'], need: 'all' }], gains: [], resets: [] },
    });
    await send('a shared block', {
      document: 'base',
      kind: 'block',
      id: 'slab',
      field: 'name',
      before: 'slab',
      after: 'floor',
    });
    const all = await history('one');
    expect([labels(all), all.strata, all.hasMore]).toEqual([
      ['name the stratum', 'move', 'rename one'],
      ['own'],
      false,
    ]);
    expect(labels(await history('two'))).toEqual(['an order', 'rename two']);
  });

  it('is read in parts, and knows strata that are gone', async () => {
    const stratum = { id: 'extra', name: 'Extra', role: 'dressing', owner: 'one' };
    const made = await send('make', {
      document: 'records',
      kind: 'stratum',
      id: 'extra',
      field: null,
      before: null,
      after: stratum,
    });
    await send('fill', {
      document: 'extra',
      kind: 'marker',
      id: 'x',
      field: null,
      before: null,
      after: { id: 'x', kind: 'pickup', position: [0, 0, 0], turn: 0 },
    });
    await send('empty', {
      document: 'extra',
      kind: 'marker',
      id: 'x',
      field: null,
      before: { id: 'x', kind: 'pickup', position: [0, 0, 0], turn: 0 },
      after: null,
    });
    await send('take away', ...invertOperations(made.operations));
    const all = await history('one');
    expect([labels(all), all.strata]).toEqual([
      ['take away', 'empty', 'fill', 'make'],
      ['extra', 'own'],
    ]);
    expect(labels(await history('one', '?below=4&after=1'))).toEqual(['empty', 'fill']);
  });

  it('says when there never was such a level, and refuses a range that is none', async () => {
    expect((await test.get('/api/collections/small/levels/nowhere/history')).status).toBe(422);
    expect((await test.get('/api/collections/small/levels/one/history?below=soon')).status).toBe(400);
    expect(labels(await history('one'))).toEqual([]);
  });
});
