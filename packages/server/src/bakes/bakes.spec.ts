import { bakeKey, boxPlanes, levelSightInput, type Json, type Operation } from '@stravel/core';
import type { JobEvent } from '../jobs/job-service';
import { JobRepository } from '../jobs/job-repository';
import { edit, removeFolder, startTestServer, type TestServer } from '../testing/test-server';
import { bakeLevel, byKind, type BakesByKind } from '../testing/level-bakes';
import type { LevelBakes } from './bake-service';
import type { CollectionShelf } from './collection-shelf';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

const list = async (): Promise<Record<string, BakesByKind>> => {
  const { levels } = (await (await test.get('/api/collections/small/bakes')).json()) as { levels: LevelBakes[] };
  return Object.fromEntries(levels.map((bakes) => [bakes.level, byKind(bakes)]));
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
  it('gives what the start page draws: play levels in order, devices, figures', async () => {
    const shelf = async (): Promise<CollectionShelf> =>
      (await (await test.get('/api/collections/small/shelf')).json()) as CollectionShelf;
    const before = await shelf();
    expect(before.levels.map(({ id, values }) => [id, values])).toEqual([
      ['one', {}],
      ['two', {}],
    ]);
    expect([before.sets.length > 0, before.devices]).toEqual([true, []]);
    expect(before.bakes.map((bakes) => [bakes.level, byKind(bakes).figures.state])).toEqual([
      ['one', 'none'],
      ['two', 'none'],
    ]);
    await bakeLevel(test.server, 'small', 'two');
    const [, two] = (await shelf()).bakes;
    const { figures } = byKind(two);
    expect([two.count === null, figures.state, figures.summary === null]).toEqual([false, 'fresh', false]);
    const level = { document: 'records', kind: 'level' as const, id: 'two', field: 'purpose' };
    await test.post('/api/collections/small/edits', edit([{ ...level, before: 'play', after: 'test' }]));
    const after = await shelf();
    expect([after.levels.map(({ id }) => id), after.bakes.map(({ level: id }) => id)]).toEqual([['one'], ['one']]);
    expect((await test.get('/api/collections/nowhere/shelf')).status).toBe(404);
  }, 60000);

  it('bakes what is stale as a job, and only a hiding block makes sight stale again', async () => {
    await test.server.jobs.start();
    expect((await list())['one'].sight.state).toBe('none');
    const { id } = (await (await test.post('/api/collections/small/jobs/bake-stale', {})).json()) as JobEvent;
    expect((await finished(id)).state).toBe('done');
    const baked = await list();
    expect([baked['one'].sight.state, baked['one'].figures.state, baked['two'].sight.state]).toEqual([
      'fresh',
      'fresh',
      'fresh',
    ]);
    expect(baked['one'].sight.key).toBe(baked['one'].sight.current);
    await test.post('/api/collections/small/edits', edit([addBlock('decor', 'x1')]));
    const decorated = (await list())['one'];
    expect([decorated.sight.state, decorated.figures.state]).toEqual(['fresh', 'stale']);
    await test.post('/api/collections/small/edits', edit([addBlock('hides', 'x2')]));
    expect([(await list())['one'].sight.state, (await list())['two'].sight.state]).toEqual(['stale', 'fresh']);
    const changed = (await list())['one'].sight;
    expect([changed.key === baked['one'].sight.key, changed.current === changed.key]).toEqual([true, false]);
  }, 60000);

  it('bakes assemblies with their level, and a change within one makes every level that has it stale', async () => {
    const records = (kind: string, id: string, field: string | null, before: unknown, after: unknown) =>
      ({ document: 'records', kind, id, field, before, after }) as Operation;
    const within = (id: string): Operation => ({ ...addBlock('hides', id), document: 'bay' });
    const made = await test.post(
      '/api/collections/small/edits',
      edit([
        records('stratum', 'bay', null, null, { id: 'bay', name: 'Bay', role: 'structure', owner: null, kit: 'kit' }),
        within('wall'),
        records('stratum', 'own', 'assemblies', null, ['bay']),
        {
          document: 'own',
          kind: 'assembly',
          id: 'use',
          field: null,
          before: null,
          after: { id: 'use', assembly: 'bay', position: [10, 0, 0], turn: 90 },
        } as Operation,
      ]),
    );
    expect(made.status).toBe(201);
    const { content } = await test.server.bakes.scenes.of('small', 'one');
    const own = content.strata.find(({ stratum }) => stratum.id === 'own');
    expect(own?.content.block.find(({ id }) => id === 'use.wall')).toMatchObject({
      position: [12, 0, -2],
      turn: [90, 0, 0],
    });
    for (const level of ['one', 'two']) await bakeLevel(test.server, 'small', level);
    expect([(await list())['one'].sight.state, (await list())['two'].sight.state]).toEqual(['fresh', 'fresh']);
    await test.post('/api/collections/small/edits', edit([within('wall-2')]));
    expect([(await list())['one'].sight.state, (await list())['two'].sight.state]).toEqual(['stale', 'fresh']);
  }, 60000);

  it('goes on without a stratum that was deleted meanwhile, and refuses what is still sent to it', async () => {
    const { one } = (await test.server.bakes.scenes.of('small', 'one')).content.level.strata.reduce<
      Record<string, string>
    >((all, { stratum }) => ({ ...all, one: stratum }), {});
    const { stratum } = (await test.server.bakes.scenes.of('small', 'one')).content.strata.find(
      (entry) => entry.stratum.id === one,
    ) ?? { stratum: null };
    const remove = {
      document: 'records',
      kind: 'stratum',
      id: one,
      field: null,
      before: stratum,
      after: null,
    } as unknown as Operation;
    const refused = await test.post('/api/collections/small/edits', edit([remove]));
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      422,
      expect.stringContaining('cannot be removed, the level one still uses it'),
    ]);
    const { level } = (await test.server.collections.give('small')).records;
    const stackWithout = (id: string): Operation => {
      const { strata } = level[id];
      return {
        document: 'records',
        kind: 'level',
        id,
        field: 'strata',
        before: strata as unknown as Json,
        after: strata.filter((entry) => entry.stratum !== one) as unknown as Json,
      };
    };
    const users = Object.keys(level).filter((id) => level[id].strata.some((entry) => entry.stratum === one));
    expect((await test.post('/api/collections/small/edits', edit([...users.map(stackWithout), remove]))).status).toBe(
      201,
    );
    const late = await test.post(
      '/api/collections/small/edits',
      edit([{ ...addBlock('hides', 'late'), document: one }]),
    );
    expect([late.status, ((await late.json()) as { detail: string }).detail]).toEqual([
      422,
      expect.stringContaining(one),
    ]);
    const { content } = await test.server.bakes.scenes.of('small', 'one');
    expect(content.strata.some((entry) => entry.stratum.id === one)).toBe(false);
    expect((await test.get('/api/collections/small/bakes')).status).toBe(200);
  }, 60000);

  it('lists all levels though one of them cannot be baked current', async () => {
    await bakeLevel(test.server, 'small', 'one');
    const size = { columns: 10, rows: 10, squareMetres: 1, heightMetres: 3 };
    const walk = { openShare: 0.4, birthChance: 0, mostWalkers: 1, border: 60, stepLimit: 1000, seed: 'x' };
    const recipe = {
      id: 'r',
      name: 'Cave',
      kind: 'burrow',
      position: [50, 0, 50],
      ...size,
      ...walk,
      material: 'brick',
      hasMarkers: false,
    };
    const posted = await test.post(
      '/api/collections/small/edits',
      edit([{ document: 'own', kind: 'recipe', id: 'r', field: null, before: null, after: recipe }]),
    );
    expect(posted.status).toBe(201);
    const answer = await test.get('/api/collections/small/bakes');
    expect(answer.status).toBe(200);
    const { one, two } = await list();
    expect([one.sight.state, one.count, two.sight.state]).toEqual(['unknown', null, 'none']);
  }, 60000);

  it('makes what a page has baked itself, only of what stands now, and reads nothing that is sent along', async () => {
    const { content } = await test.server.bakes.scenes.of('small', 'one');
    const key = bakeKey('sight', levelSightInput(content));
    const put = (headers: Record<string, string>, body?: string) =>
      fetch(`${test.url}/api/collections/small/bakes/sight/one`, { method: 'PUT', headers, body });
    expect((await put({ 'Stravel-Key': key })).status).toBe(204);
    const kept = await (await test.get('/api/collections/small/bakes/sight/one')).json();
    await test.database.models.bakes.destroy({ where: { collection: 'small' } });
    expect(
      (await put({ 'Stravel-Key': key, 'Content-Type': 'application/json' }, JSON.stringify({ closed: false }))).status,
    ).toBe(204);
    expect(await (await test.get('/api/collections/small/bakes/sight/one')).json()).toEqual(kept);
    const titleOf = async (answer: Promise<Response>) => ((await (await answer).json()) as { title: string }).title;
    expect(await titleOf(put({ 'Stravel-Key': 'f'.repeat(64) }))).toBe('BAKE_STALE');
    expect(await titleOf(put({}))).toBe('BAKE_INVALID');
  }, 60000);

  it('counts a level before any bake, and bakes one in which nothing blocks the view', async () => {
    const before = (await list())['two'];
    expect(before).toMatchObject({ sight: { state: 'none' }, figures: { state: 'none' }, count: { findings: [] } });
    const { records, strata } = await test.server.collections.give('small');
    const clear = (strata.get('base')?.block ?? []).map((block): Operation => ({
      document: 'base',
      kind: 'block',
      id: block.id,
      field: null,
      before: block as unknown as Json,
      after: null,
    }));
    const unbounded: Operation = {
      document: 'records',
      kind: 'level',
      id: 'two',
      field: 'bounds',
      before: records.level['two'].bounds as unknown as Json,
      after: null,
    };
    const floor = { id: 'f', name: 'Floor', position: [2, 0, 2], squareMetres: 1, columns: 8, rows: 8, squares: {} };
    const ground: Operation = { document: 'base', kind: 'tileFloor', id: 'f', field: null, before: null, after: floor };
    expect((await test.post('/api/collections/small/edits', edit([...clear, unbounded, ground]))).status).toBe(201);
    const { sight, figures } = await bakeLevel(test.server, 'small', 'two');
    expect([sight.closed, sight.wayOut, sight.pockets.length, sight.findings.map(({ code }) => code)]).toEqual([
      false,
      null,
      1,
      expect.arrayContaining(['SIGHT_OPEN']),
    ]);
    const { count, figures: held } = (await list())['two'];
    expect(held.state).toBe('fresh');
    expect(count).toMatchObject({ load: { files: 2, kits: { files: 0 } }, bound: { triangles: figures.triangles } });
  }, 60000);

  it('keeps a rehearsal, and makes it stale by a block, a device or a path, not by a note', async () => {
    const device = {
      id: 'd',
      name: 'Handheld',
      order: 'a0',
      budget: { triangles: 1, drawCalls: 1, memoryBytes: 1, loadMs: 1, diskBytes: 1 },
      seekMs: 1,
      diskBytesPerSecond: 1e6,
      unpackBytesPerSecond: 1e6,
      activationSliceMs: 1,
      activationBytesPerMs: 1000,
      framesPerSecond: 30,
    };
    const grid = {
      id: 'one',
      sizeMetres: 10,
      origin: [0, 0],
      loadMetres: 5,
      dropMetres: 9,
      readyMetres: 0,
      resident: [],
    };
    const walk = {
      id: 'w',
      level: 'one',
      name: 'Along',
      knots: [
        [-5, 0],
        [5, 0],
      ],
      floorMetres: 0,
      speedMetresPerSecond: 2,
      device: 'd',
    };
    const create = (kind: 'device' | 'cellGrid' | 'rehearsal', after: { id: string }): Operation => ({
      document: 'records',
      kind,
      id: after.id,
      field: null,
      before: null,
      after: after as never,
    });
    await test.post(
      '/api/collections/small/edits',
      edit([create('device', device), create('cellGrid', grid), create('rehearsal', walk)]),
    );
    const state = async (): Promise<string> => (await list())['one'].rehearsals[0].state;
    const run = () => test.post('/api/collections/small/bakes/rehearsal/w', {});
    expect(await state()).toBe('none');
    expect(await (await run()).json()).toMatchObject({ figures: { lengthMetres: 10, durationMs: 5000 }, gaps: [] });
    expect(await state()).toBe('fresh');
    const change = (
      kind: Operation['kind'],
      id: string,
      field: string,
      before: unknown,
      after: unknown,
    ): Operation => ({
      document: 'records',
      kind,
      id,
      field,
      before: before as never,
      after: after as never,
    });
    await test.post('/api/collections/small/edits', edit([change('level', 'one', 'code', 'ONE', 'UNO')]));
    expect(await state()).toBe('fresh');
    for (const operation of [
      addBlock('decor', 'x9'),
      change('device', 'd', 'seekMs', 1, 2),
      change('rehearsal', 'w', 'speedMetresPerSecond', 2, 3),
    ]) {
      await test.post('/api/collections/small/edits', edit([operation]));
      expect(await state()).toBe('stale');
      await run();
      expect(await state()).toBe('fresh');
    }
    // The thread reads collisions out of the kit's GLB; one that it lacks is named.
    const collision = { shape: 'mesh', triangles: 1, vertices: 3, bytes: 48, digest: '0'.repeat(64) };
    await test.post('/api/collections/small/edits', edit([change('piece', 'pin', 'collision', null, collision)]));
    expect(await state()).toBe('stale');
    expect((await run()).status).toBe(200);
    const own = { ...collision, shape: 'own' };
    await test.post('/api/collections/small/edits', edit([change('piece', 'pin', 'collision', collision, own)]));
    const refused = (await (await run()).json()) as { detail: string };
    expect(refused.detail).toMatch(/^rehearsal: the collision of \w+ is not in its kit’s GLB/);
    expect(await (await test.post('/api/collections/small/bakes/rehearsal/gone', {})).json()).toMatchObject({
      title: 'BAKE_MISSING',
      detail: 'bake: there is no rehearsal of gone',
    });
  }, 60000);

  it('takes up a job that a server left running, and gives up after three', async () => {
    const rows = new JobRepository(test.database);
    const row = {
      collection: 'small',
      kind: 'bake-stale',
      input: '{}',
      progress: 0.4,
      stage: '',
      error: null,
      result: null,
      created_at: '2026-01-01',
      changed_at: '2026-01-01',
    };
    await rows.createUnlessSame({ ...row, id: 'left', state: 'running', attempts: 1 });
    await rows.createUnlessSame({ ...row, id: 'cursed', input: '{"again":true}', state: 'running', attempts: 3 });
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
