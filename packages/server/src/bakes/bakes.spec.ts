import { boxPlanes, levelSightInput, sightKey, type Operation, type SightResult } from '@stravel/core';
import type { JobEvent } from '../jobs/job-service';
import { JobRepository } from '../jobs/job-repository';
import { edit, removeFolder, startTestServer, type TestServer } from '../testing/test-server';
import type { LevelBakes } from './bake-service';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

const list = async (): Promise<Record<string, LevelBakes>> => {
  const { levels } = (await (await test.get('/api/collections/small/bakes')).json()) as { levels: LevelBakes[] };
  return Object.fromEntries(levels.map((bakes) => [bakes.level, bakes]));
};
const addBlock = (sight: 'hides' | 'decor', id: string): Operation => ({
  document: 'own',
  kind: 'block',
  id,
  field: null,
  before: null,
  after: { id, name: '', position: [2, 0, 2], turn: [0, 0, 0], planes: boxPlanes([1, 1, 1]), sight, material: 'brick' },
});
async function finished(id: string): Promise<JobEvent> {
  for (;;) {
    const job = (await (await test.get(`/api/collections/small/jobs/${id}`)).json()) as JobEvent;
    if (job.state !== 'queued' && job.state !== 'running') return job;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

describe('bakes over HTTP', () => {
  it('bakes what is stale as a job, and only a hiding block makes sight stale again', async () => {
    await test.server.jobs.start();
    expect((await list())['one'].sight.state).toBe('none');
    const { id } = (await (await test.post('/api/collections/small/jobs/bake-stale', {})).json()) as JobEvent;
    expect((await finished(id)).state).toBe('done');
    const baked = await list();
    expect([baked['one'].sight.state, baked['one'].figures.state, baked['two'].sight.state]).toEqual(['fresh', 'fresh', 'fresh']);
    await test.post('/api/collections/small/edits', edit([addBlock('decor', 'x1')]));
    const decorated = (await list())['one'];
    expect([decorated.sight.state, decorated.figures.state]).toEqual(['fresh', 'stale']);
    await test.post('/api/collections/small/edits', edit([addBlock('hides', 'x2')]));
    expect([(await list())['one'].sight.state, (await list())['two'].sight.state]).toEqual(['stale', 'fresh']);
  }, 60000);

  it('takes a page’s bake only of what stands now, and only when it is sound', async () => {
    const { content } = await test.server.bakes.input('small', 'one');
    const key = sightKey(levelSightInput(content));
    const { sight } = await test.server.bakes.bake('small', 'one');
    const put = (body: unknown, headers: Record<string, string>) =>
      fetch(`${test.url}/api/collections/small/bakes/sight/one`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/vnd.stravel.bake+json', ...headers },
        body: JSON.stringify(body),
      });
    expect((await put(sight, { 'Stravel-Key': key })).status).toBe(204);
    const wrong = (await (await put(sight, { 'Stravel-Key': 'f'.repeat(64) })).json()) as { title: string };
    expect(wrong.title).toBe('BAKE_STALE');
    const oneWay: SightResult = { ...sight, visible: sight.visible.map((_set, i) => (i === 0 ? sight.pockets.map((_pocket, k) => k) : [])) };
    const damaged = [{ ...sight, visible: [] }, { ...sight, version: 99 }, oneWay, { ...sight, pockets: [{}] }, null];
    for (const body of damaged) expect(((await (await put(body, { 'Stravel-Key': key })).json()) as { title: string }).title).toMatch(/BAKE_INVALID|BODY_NOT_JSON/);
  }, 60000);

  it('takes up a job that a server left running, and gives up after three', async () => {
    const rows = new JobRepository(test.database);
    const row = { collection: 'small', kind: 'bake-stale', input: '{}', progress: 0.4, stage: '', error: null, created_at: '2026-01-01', changed_at: '2026-01-01' };
    await rows.create({ ...row, id: 'left', state: 'running', attempts: 1 });
    await rows.create({ ...row, id: 'cursed', state: 'running', attempts: 3 });
    await test.server.jobs.start();
    expect((await finished('left')).state).toBe('done');
    const cursed = await finished('cursed');
    expect([cursed.state, cursed.error]).toEqual(['failed', 'the server ended 3 times while it ran']);
  }, 60000);

  it('cancels a waiting job for good', async () => {
    const { id } = (await (await test.post('/api/collections/small/jobs/bake-stale', {})).json()) as JobEvent;
    expect((await fetch(`${test.url}/api/collections/small/jobs/${id}`, { method: 'DELETE' })).status).toBe(204);
    await test.server.jobs.start();
    expect((await finished(id)).state).toBe('cancelled');
    expect((await list())['one'].sight.state).toBe('none');
  }, 60000);
});
