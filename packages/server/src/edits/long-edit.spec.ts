import {
  EDIT_LINES_TYPE,
  boxPlanes,
  linesOfEdit,
  type Block,
  type Edit,
  type Json,
  type LoggedEdit,
  type Operation,
} from '@stravel/core';
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
const COUNT = 1500;

const block = (i: number, over: Partial<Block> = {}): Block => ({
  id: `long-${i}`,
  name: '',
  position: [i, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([1, 2, 1]),
  sight: 'hides',
  material: 'stone',
  ...over,
});
const add = (one: Block): Operation => ({
  document: 'own',
  kind: 'block',
  id: one.id,
  field: null,
  before: null,
  after: one as unknown as Json,
});
const many = (over: (i: number) => Partial<Block> = () => ({})): Edit =>
  edit(Array.from({ length: COUNT }, (_unused, i) => add(block(i, over(i)))));

const sendLines = (text: string, type = EDIT_LINES_TYPE): Promise<Response> =>
  fetch(`${test.url}${EDITS}`, { method: 'POST', headers: { 'Content-Type': type }, body: text });
const send = (made: Edit): Promise<Response> => sendLines([...linesOfEdit(made)].join(''));
const blocksNow = async (): Promise<number> =>
  ((await test.server.collections.give('small')).strata.get('own')?.block ?? []).filter(({ id }) =>
    id.startsWith('long-'),
  ).length;
const detailOf = async (response: Response): Promise<string> => ((await response.json()) as { detail: string }).detail;

describe('an edit of many operations', () => {
  it('comes as lines, is kept once, and is read back whole', async () => {
    const made = many();
    const first = await send(made);
    expect(first.status).toBe(201);
    expect(await first.json()).toMatchObject({ sequence: 1 });
    expect([(await send(made)).status, await blocksNow()]).toEqual([200, COUNT]);
    const kept = (await (await test.get(`${EDITS}/${made.id}`)).json()) as LoggedEdit;
    expect(kept).toMatchObject({ ...made, sequence: 1 });
    // The log survives a restart as it was laid.
    await test.stop();
    test = await startTestServer(test.dataFolder);
    expect(await blocksNow()).toBe(COUNT);
  });

  it('is refused whole where one of them is at fault, in words', async () => {
    const thin = many((i) => (i === 1234 ? { planes: boxPlanes([1, 2, 1]).slice(0, 4) } : {}));
    const refused = await send(thin);
    expect([refused.status, await detailOf(refused)]).toEqual([422, expect.stringContaining('long-1234')]);
    const badKind = await send(many((i) => (i === 7 ? { sight: 'maybe' as never } : {})));
    expect([badKind.status, await detailOf(badKind)]).toEqual([422, expect.stringContaining('block long-7: sight')]);
    const other = many();
    const misnamed = await send({
      ...other,
      operations: other.operations.map((one, i) => (i === 9 ? { ...one, id: 'another' } : one)),
    });
    expect([misnamed.status, await detailOf(misnamed)]).toEqual([422, 'block another: id must be another']);
    const text = [...linesOfEdit(many())].join('');
    const broken = await sendLines(text.replace(/\n\{/, '\n{{'));
    expect([broken.status, await detailOf(broken)]).toEqual([422, expect.stringMatching(/^edit: line 2 is not JSON/)]);
    const deep = await sendLines(`${text}${'['.repeat(100)}\n`);
    expect([deep.status, await detailOf(deep)]).toEqual([400, expect.stringContaining('deeper than')]);
    expect(await blocksNow()).toBe(0);
  });

  it('is checked again where a later operation changed what was found sound', async () => {
    const made = many();
    const bent: Operation = { document: 'own', kind: 'block', id: 'long-3', field: 'name', before: '', after: 5 };
    const refused = await send({ ...made, operations: [...made.operations, bent] });
    expect([refused.status, await detailOf(refused)]).toEqual([422, expect.stringContaining('block long-3: name')]);
    const clash = await send({ ...made, operations: [...made.operations, made.operations[0]] });
    expect(clash.status).toBe(409);
    expect(await blocksNow()).toBe(0);
  });

  it('may come as JSON too, however long', async () => {
    const made = many(() => ({ name: 'x'.repeat(200), material: 'y'.repeat(200), group: 'z'.repeat(80) }));
    expect(JSON.stringify(made).length).toBeGreaterThan(1024 * 1024);
    expect([(await test.post(EDITS, made)).status, await blocksNow()]).toEqual([201, COUNT]);
  });

  it('is told of by its number, live and later, and short ones whole', async () => {
    const made = many();
    const told = async (count: number, long: string): Promise<[string, unknown][]> => {
      const url = `${test.url}/api/collections/small/events?after=0${long}`;
      return (await readEvents(url, ['long-edit', 'edit'], count)).map(({ event, data }) => [event, data]);
    };
    const live = told(2, '&long=fetched');
    await send(made);
    await test.post(EDITS, edit([rename('one', 'First')]));
    const expected = [
      ['long-edit', { sequence: 1, id: made.id }],
      ['edit', expect.objectContaining({ sequence: 2 })],
    ];
    expect([await live, await told(2, '&long=fetched')]).toEqual([expected, expected]);
    // A page that knows nothing of this gets it whole.
    expect((await told(1, ''))[0]).toEqual(['edit', expect.objectContaining({ ...made, sequence: 1 })]);
  });
});
