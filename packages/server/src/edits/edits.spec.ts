import { invertOperations, type Json, type LoggedEdit, type Operation } from '@stravel/core';
import { readEvents } from '../testing/read-events';
import { edit, removeFolder, rename, startTestServer, type TestServer } from '../testing/test-server';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

const EDITS = '/api/collections/small/edits';
const move = (before: number[], after: number[]): Operation => ({
  document: 'own',
  kind: 'placement',
  id: 'p1',
  field: 'position',
  before,
  after,
});

describe('the edit log over HTTP', () => {
  it('gives what a person did without what it changed, and each edit whole by its id', async () => {
    const made = edit([rename('one', 'First')]);
    expect((await test.post('/api/collections/small/edits', made)).status).toBe(201);
    const listed = (await (await test.get(`/api/collections/small/edits?person=${made.person}`)).json()) as {
      edits: unknown[];
    };
    expect(listed.edits).toEqual([{ id: made.id, label: made.label, undoes: null }]);
    expect(await (await test.get(`/api/collections/small/edits/${made.id}`)).json()).toMatchObject({
      id: made.id,
      sequence: 1,
      operations: made.operations,
    });
    expect((await test.get('/api/collections/small/edits/gone')).status).toBe(404);
    expect((await test.get(`/api/collections/other/edits/${made.id}`)).status).toBe(404);
  });

  it('removes no piece from under its placements, but both together', async () => {
    const content = await test.server.collections.give('small');
    const piece = content.records.piece['pin'] as unknown as Json;
    const placement = content.strata.get('own')?.placement[0] as unknown as Json;
    const drop = (document: string, kind: 'piece' | 'placement', id: string, before: Json): Operation => ({
      document,
      kind,
      id,
      field: null,
      before,
      after: null,
    });
    const refused = await test.post(EDITS, edit([drop('records', 'piece', 'pin', piece)]));
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      422,
      'edit: piece pin cannot be removed, 1 placement in the stratum Own still uses it',
    ]);
    expect(
      (
        await test.post(
          EDITS,
          edit([drop('own', 'placement', 'p1', placement), drop('records', 'piece', 'pin', piece)]),
        )
      ).status,
    ).toBe(201);
  });

  it('removes no piece from under a placement that only one level has', async () => {
    const { records, strata } = await test.server.collections.give('small');
    const placement = strata.get('own')?.placement[0] as unknown as Record<string, Json>;
    const added = {
      id: 'p9..two',
      level: 'two',
      kind: 'placement',
      target: 'p9',
      change: 'added',
      fields: { ...placement, id: 'p9' },
      was: {},
    };
    expect(
      (
        await test.post(
          EDITS,
          edit([{ document: 'base', kind: 'patch', id: added.id, field: null, before: null, after: added }]),
        )
      ).status,
    ).toBe(201);
    const drop = (document: string, kind: 'piece' | 'placement', id: string, before: Json): Operation => ({
      document,
      kind,
      id,
      field: null,
      before,
      after: null,
    });
    const refused = await test.post(
      EDITS,
      edit([
        drop('own', 'placement', 'p1', placement),
        drop('records', 'piece', 'pin', records.piece['pin'] as unknown as Json),
      ]),
    );
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      422,
      'edit: piece pin cannot be removed, 1 placement in the stratum Base still uses it',
    ]);
  });

  it('appends, answers the same id again without doubling, and gives the log back', async () => {
    const first = edit([rename('one', 'uno')]);
    expect((await test.post(EDITS, first)).status).toBe(201);
    const again = await test.post(EDITS, first);
    expect(again.status).toBe(200);
    expect(await again.json()).toMatchObject({ sequence: 1 });
    const { edits } = (await (await test.get(`${EDITS}?after=0`)).json()) as { edits: LoggedEdit[] };
    expect(edits.map(({ id, sequence, person }) => [id, sequence, person])).toEqual([[first.id, 1, 'tester']]);
  });

  it('refuses an edit whose old value no longer holds, whole, with what stands now', async () => {
    await test.post(EDITS, edit([rename('one', 'uno')]));
    const refused = await test.post(
      EDITS,
      edit([
        { document: 'records', kind: 'level', id: 'two', field: 'name', before: 'two', after: 'due' },
        rename('one', 'eins'),
      ]),
    );
    expect(refused.status).toBe(409);
    expect(refused.headers.get('content-type')).toContain('application/problem+json');
    const problem = (await refused.json()) as { conflicts: { index: number; current: unknown }[]; requestId: string };
    expect(problem.conflicts.map(({ index, current }) => [index, current])).toEqual([[1, 'uno']]);
    expect(problem.requestId).toMatch(/^[0-9a-f-]{36}$/);
    expect(
      (
        await test.post(
          EDITS,
          edit([{ document: 'records', kind: 'level', id: 'two', field: 'name', before: 'two', after: 'zwei' }]),
        )
      ).status,
    ).toBe(201);
  });

  it('removes no entry, register or carried value from under its users, unless the same edit releases them', async () => {
    const make = (kind: Operation['kind'], record: { id: string }): Operation => ({
      document: 'records',
      kind,
      id: record.id,
      field: null,
      before: null,
      after: record as never,
    });
    const drop = (operation: Operation): Operation => ({ ...operation, before: operation.after, after: null });
    const register = make('register', { id: 'tides', name: 'Tides', help: '', order: 'a' } as { id: string });
    const entry = make('entry', { id: 'ebb', register: 'tides', name: 'Ebb', order: 'a', values: {} } as {
      id: string;
    });
    const field = make('field', {
      id: 'tide',
      key: 'tide',
      name: 'Tide',
      type: 'entry',
      choices: [],
      order: 'b',
      target: 'tides',
    } as { id: string });
    const value = make('carriedValue', { id: 'shards', name: 'Shards', start: 0, counts: 'once', order: 'a' } as {
      id: string;
    });
    const order = make('levelOrder', {
      id: 'one',
      rules: [{ kind: 'value', value: 'shards', least: 3 }],
      gains: [],
      resets: [],
    } as { id: string });
    const link: Operation = {
      document: 'records',
      kind: 'level',
      id: 'one',
      field: 'values.tide',
      before: null,
      after: 'ebb',
    };
    expect((await test.post(EDITS, edit([register, entry, field, value, order, link]))).status).toBe(201);
    const refusal = async (operation: Operation) => {
      const refused = await test.post(EDITS, edit([drop(operation)]));
      return [refused.status, ((await refused.json()) as { detail: string }).detail];
    };
    expect(await refusal(entry)).toEqual([
      422,
      expect.stringContaining('entry ebb cannot be removed, Tide of one still uses it'),
    ]);
    expect(await refusal(register)).toEqual([
      422,
      expect.stringContaining('the field Tide, its entry Ebb still use it'),
    ]);
    expect(await refusal(value)).toEqual([
      422,
      expect.stringContaining('carriedValue shards cannot be removed, the level one still uses it'),
    ]);
    expect((await test.post(EDITS, edit([{ ...link, before: 'ebb', after: null }, drop(entry)]))).status).toBe(201);
    expect(await refusal(register)).toEqual([422, expect.stringContaining('the field Tide still uses it')]);
    expect((await test.post(EDITS, edit([drop(field), drop(register), drop(order), drop(value)]))).status).toBe(201);
  });

  it('refuses a field whose pattern is none, and a rule of no kind', async () => {
    const make = (kind: Operation['kind'], record: object): Operation => ({
      document: 'records',
      kind,
      id: 'x',
      field: null,
      before: null,
      after: record as never,
    });
    const detail = async (operation: Operation) =>
      ((await (await test.post(EDITS, edit([operation]))).json()) as { detail: string }).detail;
    expect(
      await detail(
        make('field', { id: 'x', key: 'x', name: 'X', type: 'text', choices: [], order: 'b', pattern: '(' }),
      ),
    ).toContain('pattern must be a regular expression');
    expect(
      await detail({
        ...make('levelOrder', { id: 'one', rules: [{ kind: 'luck' }], gains: [], resets: [] }),
        id: 'one',
      }),
    ).toContain('must be an unlock rule');
    expect(
      await detail({
        ...make('levelOrder', { id: 'one', rules: [], gains: [{ value: 'v', least: 3, most: 1 }], resets: [] }),
        id: 'one',
      }),
    ).toContain('max must not be below min');
  });

  it('lets edits of different fields of one level both stand', async () => {
    const answers = await Promise.all([
      test.post(EDITS, edit([rename('one', 'uno')])),
      test.post(
        EDITS,
        edit([{ document: 'records', kind: 'level', id: 'one', field: 'values.mood', before: 'ember', after: 'dark' }]),
      ),
    ]);
    expect(answers.map(({ status }) => status)).toEqual([201, 201]);
  });

  it('writes edits that wait together, each under its own rule, and numbers them without gaps', async () => {
    const twice = edit([rename('one', 'uno')]);
    const due = edit([{ document: 'records', kind: 'level', id: 'two', field: 'name', before: 'two', after: 'due' }]);
    const stale = edit([rename('one', 'eins')]);
    // Handed over together and in this order, which a network does not promise.
    const answers = await Promise.allSettled(
      [twice, stale, due, twice].map((one) => test.server.edits.append('small', one)),
    );
    expect(
      answers.map((answer) => (answer.status === 'fulfilled' ? answer.value.isNew : (answer.reason as Error).message)),
    ).toEqual([true, 'edit: 1 value is no longer what the edit took them to be', true, false]);
    const { edits } = (await (await test.get(EDITS)).json()) as { edits: LoggedEdit[] };
    expect(edits.map(({ sequence }) => sequence)).toEqual([1, 2]);
    expect(new Set(edits.map(({ id }) => id)).size).toBe(2);
  });

  it('takes an edit back by its inverse under the same rule', async () => {
    const forward = edit([move([1.25, 0, -2], [3, 0, 0])]);
    await test.post(EDITS, forward);
    expect((await test.post(EDITS, edit(invertOperations(forward.operations), { undoes: forward.id }))).status).toBe(
      201,
    );
    expect((await test.post(EDITS, edit(invertOperations(forward.operations), { undoes: forward.id }))).status).toBe(
      409,
    );
  });

  it.each([
    ['NaN', [move([1.25, 0, -2], [null as never, 0, 0])], /placement p1: position\[0\]/],
    ['an absurd number', [move([1.25, 0, -2], [1e12, 0, 0])], /position\[0\]/],
    ['a missing number', [move([1.25, 0, -2], [1, 2])], /placement p1/],
    [
      'an unknown field',
      [{ document: 'records', kind: 'level', id: 'one', field: 'colour', before: null, after: 'red' }],
      /colour/,
    ],
    [
      'planes that enclose nothing',
      [
        {
          document: 'base',
          kind: 'block',
          id: 'slab',
          field: 'planes',
          before: [
            [1, 0, 0, 10],
            [-1, 0, 0, 10],
            [0, 1, 0, 1],
            [0, -1, 0, 0],
            [0, 0, 1, 10],
            [0, 0, -1, 10],
          ],
          after: [
            [1, 0, 0, -10],
            [-1, 0, 0, -10],
            [0, 1, 0, 1],
            [0, -1, 0, 0],
          ],
        },
      ],
      /block slab: .*enclose nothing/,
    ],
    [
      'a piece that is missing',
      [{ document: 'own', kind: 'placement', id: 'p1', field: 'piece', before: 'pin', after: 'nail' }],
      /points at the piece nail/,
    ],
    [
      'a stratum that is missing',
      [
        {
          document: 'nowhere',
          kind: 'marker',
          id: 'x',
          field: null,
          before: null,
          after: { id: 'x', kind: 'spawn', position: [0, 0, 0], turn: 0 },
        },
      ],
      /points at the stratum nowhere/,
    ],
  ] as const)('refuses %s, says where, and saves nothing', async (_name, operations, message) => {
    const response = await test.post(EDITS, edit(operations as unknown as Operation[]));
    expect(response.status).toBe(422);
    expect(((await response.json()) as { detail: string }).detail).toMatch(message);
    expect(((await (await test.get(EDITS)).json()) as { edits: unknown[] }).edits).toEqual([]);
  });

  it('refuses what is no JSON, too large, or for no collection', async () => {
    const raw = await fetch(`${test.url}${EDITS}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"id":',
    });
    expect([raw.status, ((await raw.json()) as { title: string }).title]).toEqual([400, 'BODY_NOT_JSON']);
    const large = await fetch(`${test.url}${EDITS}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ text: 'x'.repeat(33 * 1024 * 1024) }),
    });
    expect([large.status, ((await large.json()) as { title: string }).title]).toEqual([413, 'BODY_TOO_LARGE']);
    expect((await test.post('/api/collections/none/edits', edit([rename('one', 'x')]))).status).toBe(404);
  });

  it('follows edits as server events and resumes after a break', async () => {
    const stream = readEvents(`${test.url}/api/collections/small/events?after=0`, ['edit'], 2);
    await test.post(EDITS, edit([rename('one', 'a')]));
    await test.post(EDITS, edit([rename('a', 'b')]));
    const seen = await stream;
    expect(seen.map(({ id }) => id)).toEqual(['1', '2']);
    await test.post(EDITS, edit([rename('b', 'c')]));
    const resumed = await readEvents(`${test.url}/api/collections/small/events?after=0`, ['edit'], 1, {
      'Last-Event-ID': '2',
    });
    expect(resumed[0].id).toBe('3');
  });

  it('keeps everything over snapshots and a new start', async () => {
    let at = [1.25, 0, -2];
    for (let i = 0; i < 300; i++) {
      const next = [i, 0, i % 7];
      expect((await test.post(EDITS, edit([move(at, next)]))).status).toBe(201);
      at = next;
    }
    await test.database.queue.settled();
    const index = (await (await test.get('/api/collections/small/documents/own')).json()) as { sequence: number };
    expect(index.sequence).toBeGreaterThanOrEqual(256);
    await test.stop();
    test = await startTestServer(test.dataFolder);
    expect((await test.post(EDITS, edit([move(at, [0, 0, 0])]))).status).toBe(201);
    expect((await test.post(EDITS, edit([move(at, [0, 0, 0])]))).status).toBe(409);
  });
});
