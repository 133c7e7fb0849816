import { MessageChannel } from 'node:worker_threads';
import { TestBed } from '@angular/core/testing';
import { CoreError, type RecipeInputs } from '@stravel/core';
import { Compute } from './compute';
import { StratumDocument } from '../document/stratum-document';
import type { ComputeAnswer, ComputeRequest, WorkerMessage } from './protocol';
import { WORKER_FACTORY } from './worker-factory';

// What is asked is passed on as it is; the fake worker looks at none of it.
const input = { recipe: {}, pins: [] } as unknown as RecipeInputs;

class FakeWorker {
  readonly asked: WorkerMessage[] = [];
  ended = false;
  private readonly listeners = new Map<string, (event: unknown) => void>();
  get runs(): ComputeRequest[] {
    return this.asked.filter((one): one is ComputeRequest => one.type === 'run');
  }
  postMessage(message: WorkerMessage) {
    this.asked.push(message);
  }
  addEventListener(name: string, listener: (event: unknown) => void) {
    this.listeners.set(name, listener);
  }
  terminate() {
    this.ended = true;
  }
  answer(data: ComputeAnswer) {
    this.listeners.get('message')?.({ data });
  }
  fail(message: string) {
    this.listeners.get('error')?.({ message });
  }
}

describe('compute', () => {
  let workers: FakeWorker[];
  let compute: Compute;

  beforeAll(() => Object.assign(globalThis, { MessageChannel }));
  beforeEach(() => {
    workers = [];
    TestBed.configureTestingModule({
      providers: [
        {
          provide: WORKER_FACTORY,
          useValue: () => {
            workers.push(new FakeWorker());
            return workers[workers.length - 1];
          },
        },
      ],
    });
    compute = TestBed.inject(Compute);
  });
  const isolated = (value: boolean) => Object.assign(globalThis, { crossOriginIsolated: value });

  const done = (worker: FakeWorker, result: unknown) =>
    worker.answer({ id: worker.runs[worker.runs.length - 1].id, type: 'done', result: result as never });

  it('asks a worker one after the other, tells progress and gives each run its own result', async () => {
    isolated(true);
    const told: [number, string][] = [];
    const first = compute.run('make-section', input, {
      onProgress: (fraction, stage) => told.push([fraction, stage]),
    });
    const second = compute.run('make-section', input);
    expect(workers).toHaveLength(1);
    expect(workers[0].runs).toHaveLength(1);
    workers[0].answer({ id: workers[0].runs[0].id, type: 'progress', fraction: 0.5, stage: 'cutting' });
    done(workers[0], 'one');
    expect(workers[0].runs).toHaveLength(2);
    done(workers[0], 'two');
    expect([await first.result, await second.result, told]).toEqual(['one', 'two', [[0.5, 'cutting']]]);
  });

  it('lets nothing that a person waits for stand behind a bake', () => {
    isolated(true);
    void compute.run('bake', { scene: {}, ref: { kind: 'sight', subject: 'hall' } } as never).result;
    compute.run('make-section', input).result.catch(() => undefined);
    expect(workers.map(({ runs }) => runs.map(({ task }) => task))).toEqual([['bake'], ['make-section']]);
    // Both can ask each other for sections, until one is ended.
    const ports = () =>
      workers.map(({ asked }) => asked.flatMap((one) => (one.type === 'peer' ? [one.port !== undefined] : [])));
    expect(ports()).toEqual([[true], [true]]);
    workers[1].fail('out of memory');
    expect(ports()).toEqual([[true, false], [true]]);
  });

  it('lets the newest of a slot win, and keeps one waiting at most', async () => {
    isolated(true);
    const runs = [1, 2, 3].map(() => compute.run('make-section', input, { slot: 'section r' }));
    const other = compute.run('make-section', input, { slot: 'section s' });
    await expect(runs[0].result).rejects.toMatchObject({ code: 'CANCELLED' });
    await expect(runs[1].result).rejects.toMatchObject({ code: 'CANCELLED' });
    expect(Atomics.load(workers[0].runs[0].cancel as Int32Array, 0)).toBe(1);
    workers[0].answer({
      id: workers[0].runs[0].id,
      type: 'failed',
      error: { code: 'CANCELLED', message: '', details: {} },
    });
    done(workers[0], 'three');
    done(workers[0], 'other');
    expect([await runs[2].result, await other.result, workers[0].runs.length]).toEqual(['three', 'other', 3]);
  });

  it('ends a worker that does not answer to a cancel in two seconds, and asks a new one for the rest', async () => {
    isolated(true);
    jest.useFakeTimers();
    try {
      const deaf = compute.run('make-section', input);
      const next = compute.run('make-section', input);
      deaf.cancel();
      await expect(deaf.result).rejects.toMatchObject({ code: 'CANCELLED' });
      jest.advanceTimersByTime(1999);
      expect([workers.length, workers[0].ended]).toEqual([1, false]);
      jest.advanceTimersByTime(1);
      expect([workers.length, workers[0].ended]).toEqual([2, true]);
      workers[0].answer({ id: workers[1].runs[0].id, type: 'done', result: 'of the ended one' as never });
      done(workers[1], 'next');
      expect(await next.result).toBe('next');
      jest.advanceTimersByTime(5000);
      expect(workers[1].ended).toBe(false);
    } finally {
      jest.useRealTimers();
    }
  });

  it('sends the whole of a document that a worker says it lacks, once', async () => {
    isolated(true);
    const document = new StratumDocument('own');
    const run = compute.run('make-section', input, { documents: [document] });
    const types = () => workers[0].asked.map(({ type }) => type);
    expect(types()).toEqual(['hold', 'run']);
    const { id } = workers[0].runs[0];
    workers[0].answer({ id, type: 'lacks', documents: ['own'] });
    expect(types()).toEqual(['hold', 'run', 'hold', 'run']);
    workers[0].answer({ id, type: 'lacks', documents: ['own'] });
    await expect(run.result).rejects.toMatchObject({ code: 'WORKER_FAILED', message: 'worker: lacks own' });
    void compute.run('make-section', input, { documents: [document] }).result;
    document.putAll([{ document: 'own', kind: 'marker', id: 'm', record: { id: 'm' } }]);
    done(workers[0], '');
    void compute.run('make-section', input, { documents: [document] }).result;
    compute.release();
    expect(types().slice(4)).toEqual(['run', 'change', 'run', 'release']);
  });

  it('rebuilds the error that a run ended with', async () => {
    isolated(true);
    const run = compute.run('make-section', input);
    workers[0].answer({
      id: workers[0].runs[0].id,
      type: 'failed',
      error: { code: 'SIGHT_NOTHING', message: 'sight: nothing', details: { a: 1 } },
    });
    const error = await run.result.catch((one: unknown) => one);
    expect(error).toBeInstanceOf(CoreError);
    expect(error).toMatchObject({ code: 'SIGHT_NOTHING', message: 'sight: nothing', details: { a: 1 } });
  });

  it('cancels by a shared flag where the page is isolated', () => {
    isolated(true);
    const run = compute.run('make-section', input);
    run.result.catch(() => undefined);
    run.cancel();
    const flag = workers[0].runs[0].cancel as Int32Array;
    expect(Atomics.load(flag, 0)).toBe(1);
    expect(workers[0].ended).toBe(false);
  });

  it('cancels by ending the worker where it is not, and starts a new one for the next run', async () => {
    isolated(false);
    const run = compute.run('make-section', input);
    run.cancel();
    await expect(run.result).rejects.toMatchObject({ code: 'CANCELLED' });
    expect(workers[0].ended).toBe(true);
    void compute.run('make-section', input).result.catch(() => undefined);
    expect(workers).toHaveLength(2);
  });

  it('fails what was asked when the worker cannot start', async () => {
    isolated(true);
    const run = compute.run('make-section', input);
    workers[0].fail('no module');
    await expect(run.result).rejects.toMatchObject({ code: 'WORKER_FAILED', message: 'worker: no module' });
  });
});
