import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createRunContext } from '@stravel/core';
import { compareWalks, type WalkForecast } from '@stravel/core/pack-walk';
import { ALL_SAVINGS, PackWalk } from '@stravel/walker';
import { cinderbrine } from '../../../../demo/cinderbrine';
import { removeFolder, startTestServer, type TestServer } from '../testing/test-server';

let test: TestServer;
const context = createRunContext();
const PACK = '/api/collections/demo/packs/console';
const walked = ['sorting-hall', 'low-water', 'potash-grotto'];

beforeAll(async () => {
  test = await startTestServer();
  const content = await cinderbrine();
  await test.server.collections.take('demo', content);
  const without = Object.values(content.records.level).flatMap(({ key }) => (walked.includes(key) ? [] : [key]));
  const folder = join(test.dataFolder, 'packs', 'demo', 'console');
  await test.server.packs.pack('demo', folder, { target: 'Console build', without });
}, 120000);

afterAll(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

const read = async (path: string): Promise<Uint8Array> => {
  const answer = await test.get(`${PACK}/${path}`);
  if (!answer.ok) throw new Error(`${answer.status} ${path}`);
  return new Uint8Array(await answer.arrayBuffer());
};

describe('walking a pack of the demo', () => {
  it.each([
    ['low-water', 'handheld'],
    ['sorting-hall', 'desk-tower'],
    ['potash-grotto', 'handheld'],
  ])('%s on %s does what its forecast says', async (level, kind) => {
    const { records } = await test.server.collections.give('demo');
    const device = Object.values(records.device).find(({ name }) => name.toLowerCase().replace(' ', '-') === kind);
    if (!device) throw new Error(kind);
    const walk = await PackWalk.open(read, level, context);
    const own = Object.values(records.rehearsal).find((one) => records.level[one.level].key === level);
    const { knots, floorMetres } = own ?? walk.ways[0];
    const way = { knots, floorMetres, speedMetresPerSecond: own?.speedMetresPerSecond ?? 6, device: device.id };
    const answer = await test.post('/api/collections/demo/pack/forecast', { level, target: 'Console build', ...way });
    expect(answer.status).toBe(200);
    const { edit, forecast } = (await answer.json()) as { edit: number; forecast: WalkForecast };
    expect(edit).toBe(walk.pack.edit);
    const measured = await walk.run({ ...way, floors: forecast.floors }, device, ALL_SAVINGS, context);
    const { differences, sameObjects, agreeing, stops } = compareWalks(forecast, measured);
    expect(stops).toBeGreaterThan(10);
    expect([differences, sameObjects, agreeing]).toEqual([[], stops, stops]);
    expect(measured.loads.map(({ key }) => key)).toEqual(forecast.loads.map(({ key }) => key));
    for (const [i, { key, lateMs }] of measured.late.entries())
      expect([key, Math.abs(lateMs - forecast.late[i].lateMs) <= measured.frameMs]).toEqual([key, true]);
    if (level === 'low-water') expect(measured.late.length).toBeGreaterThan(0);
  });

  it('says which levels are packed, and nothing for a folder without a pack', async () => {
    expect(await (await test.get(PACK)).json()).toEqual({
      levels: walked.map((key) => `levels/${key}.json`),
    });
    expect(await (await test.get('/api/collections/demo/packs/another')).json()).toEqual({ levels: null });
  });

  it('has browsers ask again for each file, which may be of another pack by then', async () => {
    const file = await test.get(`${PACK}/manifest.json`);
    expect(file.headers.get('cache-control')).toBe('no-cache');
    expect(file.headers.get('etag')).not.toBeNull();
  });

  it.each([
    [`${PACK}/levels/none.json`, 404],
    [`${PACK}/../../../stravel.sqlite`, 404],
    [`${PACK}/..%2f..%2f..%2fstravel.sqlite`, 404],
    [`${PACK}/%2e%2e/%2e%2e/%2e%2e/stravel.sqlite`, 404],
    [`${PACK}/levels`, 404],
    [`${PACK}/.stravel-staging/levels/low-water.json`, 404],
    ['/api/collections/demo/packs/Console%20build/manifest.json', 404],
    ['/api/collections/demo/packs/..%2fdemo/manifest.json', 404],
    ['/api/collections/none/packs/console/manifest.json', 404],
  ])('gives no file for %s', async (path, status) => {
    writeFileSync(join(test.dataFolder, 'packs', 'demo', 'secret.txt'), 'secret');
    const answer = await test.get(path);
    expect(answer.status).toBe(status);
    expect(await answer.text()).not.toContain('SQLite');
  });

  it.each([
    [{ level: '../x' }, 'level must be the key of a level'],
    [{ knots: [[0, 0]] }, 'knots field must have at least 2 items'],
    [
      {
        knots: [
          [0, 0],
          [NaN, 1],
        ],
      },
      'knots[1]',
    ],
    [{ speedMetresPerSecond: 0 }, 'speedMetresPerSecond must be greater than 0'],
    [{ device: 7 }, 'device must be a `string`'],
    [{ more: 1 }, 'unspecified keys: more'],
  ])('refuses a walk with %j', async (change, text) => {
    const way = {
      level: 'low-water',
      knots: [
        [0, 0],
        [9, 9],
      ],
      floorMetres: 0,
      speedMetresPerSecond: 6,
      device: 'x',
    };
    const answer = await test.post('/api/collections/demo/pack/forecast', { ...way, ...change });
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as { detail: string }).detail).toContain(text);
  });

  it('says what a walk lacks: its level, its device, its length', async () => {
    const way = {
      level: 'low-water',
      knots: [
        [0, 0],
        [9, 9],
      ],
      floorMetres: 0,
      speedMetresPerSecond: 6,
      device: 'x',
    };
    const detail = async (change: object): Promise<string> => {
      const answer = await test.post('/api/collections/demo/pack/forecast', { ...way, ...change });
      expect(answer.status).toBeGreaterThanOrEqual(400);
      return ((await answer.json()) as { detail: string }).detail;
    };
    expect(await detail({ level: 'none' })).toContain('there is no level with the key none');
    expect(await detail({})).toContain('there is no device x');
    expect(await detail({ target: 'Nobody' })).toContain('Nobody');
  });
});
