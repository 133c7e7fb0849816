import { pino } from 'pino';
import { CoreError, archiveCollection } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { removeFolder, startTestServer, type TestServer } from '../testing/test-server';
import { LocalJobQueue } from './job-queue';
import { JobRepository } from './job-repository';
import { JobService, type JobEvent, type JobHandler } from './job-service';
import { ThreadPool } from './thread-pool';

let test: TestServer;

beforeEach(async () => {
  test = await startTestServer();
});

afterEach(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

/** A service of its own with one kind of job. */
function serviceOf(handler: JobHandler): {
  jobs: JobService;
  ended: (id: string) => Promise<JobEvent>;
  told: JobEvent[];
} {
  const jobs = new JobService(
    new JobRepository(test.database),
    new LocalJobQueue(),
    { task: handler },
    () => new Date(),
    pino({ level: 'silent' }),
  );
  const told: JobEvent[] = [];
  jobs.events.on('job', (event: JobEvent) => told.push(event));
  const isEnd = ({ state }: JobEvent) => state === 'done' || state === 'failed' || state === 'cancelled';
  const ended = (id: string) =>
    new Promise<JobEvent>((resolve) => {
      const known = told.find((event) => event.id === id && isEnd(event));
      if (known) resolve(known);
      jobs.events.on('job', (event: JobEvent) => event.id === id && isEnd(event) && resolve(event));
    });
  return { jobs, ended, told };
}

describe('jobs', () => {
  it('run one after the other and say how far they are', async () => {
    let running = 0;
    const { jobs, ended, told } = serviceOf(async ({ progress }) => {
      expect(++running).toBe(1);
      progress(0.5, 'half-way');
      await new Promise((resolve) => setTimeout(resolve, 20));
      running--;
    });
    await jobs.start();
    const first = await jobs.add('small', 'task', {});
    await ended(first.id);
    const second = await jobs.add('small', 'task', {});
    expect((await ended(second.id)).state).toBe('done');
    expect(
      told.filter(({ id }) => id === first.id).map(({ state, progress, stage }) => `${state} ${progress} ${stage}`),
    ).toEqual(['queued 0 ', 'running 0 ', 'running 0.5 half-way', 'done 1 half-way']);
  });

  it('of one kind and input that wait or run for a collection are one', async () => {
    const { jobs } = serviceOf(() => Promise.resolve());
    const first = await jobs.add('small', 'task', {});
    expect((await jobs.add('small', 'task', {})).id).toBe(first.id);
    expect((await jobs.unfinished('small')).map(({ id }) => id)).toEqual([first.id]);
  });

  it('that fail are tried three times, then failed with the reason', async () => {
    let tries = 0;
    const { jobs, ended } = serviceOf(() => {
      tries++;
      return Promise.reject(new Error('the wheel is off'));
    });
    await jobs.start();
    const { id } = await jobs.add('small', 'task', {});
    expect(await ended(id)).toMatchObject({ state: 'failed', error: 'the wheel is off' });
    expect(tries).toBe(3);
  });

  it('that are refused fail at once: they would be refused again', async () => {
    let tries = 0;
    const { jobs, ended } = serviceOf(() => {
      tries++;
      return Promise.reject(new CoreError('BROKEN', 'task: two levels have one key'));
    });
    await jobs.start();
    const { id } = await jobs.add('small', 'task', {});
    expect(await ended(id)).toMatchObject({ state: 'failed', error: 'task: two levels have one key' });
    expect(tries).toBe(1);
  });

  it('asked for at the same time with one input are one, with another two', async () => {
    const { jobs } = serviceOf(() => Promise.resolve());
    const ids = (
      await Promise.all([{ a: 1 }, { a: 1 }, { a: 2 }].map((input) => jobs.add('small', 'task', input)))
    ).map(({ id }) => id);
    expect([ids[0] === ids[1], ids[0] === ids[2]]).toEqual([true, false]);
  });

  it('are cancelled by their own collection only, and stay as they ended', async () => {
    const { jobs, ended } = serviceOf(() => Promise.resolve('told'));
    const { id } = await jobs.add('small', 'task', {});
    await jobs.cancel('other', id);
    expect((await jobs.byId(id))?.state).toBe('queued');
    await jobs.start();
    await ended(id);
    await jobs.cancel('small', id);
    expect(await jobs.byId(id)).toMatchObject({ state: 'done', result: 'told' });
  });

  it('whose rows cannot be written leave the server running', async () => {
    const { jobs } = serviceOf(() => Promise.resolve());
    const { id } = await jobs.add('small', 'task', {});
    await test.database.sequelize.query(
      "CREATE TRIGGER full BEFORE UPDATE ON jobs BEGIN SELECT RAISE(FAIL, 'disk full'); END",
    );
    await jobs.start();
    await jobs.stop();
    await test.database.sequelize.query('DROP TRIGGER full');
    expect((await jobs.byId(id))?.state).toBe('queued');
  });

  it('that fail once and then succeed are done', async () => {
    let tries = 0;
    const { jobs, ended } = serviceOf(() => (++tries === 1 ? Promise.reject(new Error('once')) : Promise.resolve()));
    await jobs.start();
    const { id } = await jobs.add('small', 'task', {});
    expect((await ended(id)).state).toBe('done');
  });

  it('that run are cancelled for real', async () => {
    const stopped = jest.fn();
    const { jobs, ended } = serviceOf(
      ({ signal }) =>
        new Promise((_resolve, reject) =>
          signal.addEventListener('abort', () => {
            stopped();
            reject(new CoreError('CANCELLED', 'task: cancelled'));
          }),
        ),
    );
    await jobs.start();
    const { id } = await jobs.add('small', 'task', {});
    while ((await jobs.byId(id))?.state !== 'running') await new Promise((resolve) => setTimeout(resolve, 5));
    await jobs.cancel('small', id);
    expect((await ended(id)).state).toBe('cancelled');
    expect(stopped).toHaveBeenCalledTimes(1);
    await jobs.cancel('small', id);
    expect((await jobs.byId(id))?.state).toBe('cancelled');
  });

  it('stay for the next start when the server stops', async () => {
    const { jobs } = serviceOf(
      ({ signal }) =>
        new Promise((_resolve, reject) => signal.addEventListener('abort', () => reject(new Error('stopping')))),
    );
    await jobs.start();
    const { id } = await jobs.add('small', 'task', {});
    while ((await jobs.byId(id))?.state !== 'running') await new Promise((resolve) => setTimeout(resolve, 5));
    await jobs.stop();
    // A clean stop is no attempt.
    expect(await new JobRepository(test.database).byId(id)).toMatchObject({ state: 'queued', attempts: 0 });
    const next = serviceOf(() => Promise.resolve());
    await next.jobs.start();
    expect((await next.ended(id)).state).toBe('done');
  });
});

describe('threads', () => {
  it('that do not return are replaced, and the next task is done', async () => {
    const threads = new ThreadPool({ timeLimitsMs: { restore: 1 } });
    // Reading a whole archive takes longer than a millisecond.
    const content = await smallCollection();
    const bytes = archiveCollection(content);
    await expect(threads.run('restore', bytes)).rejects.toMatchObject({
      code: 'TIME_LIMIT',
      message: 'restore: took longer than 0.001 s and was ended',
    });
    expect(await threads.run('archive', content)).toEqual(bytes);
    await threads.close();
  }, 60000);
});
