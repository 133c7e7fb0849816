import { TestBed } from '@angular/core/testing';
import { CoreError, type RecipeInputs } from '@stravel/core';
import { Compute } from './compute';
import type { ComputeAnswer, ComputeRequest } from './protocol';
import { WORKER_FACTORY } from './worker-factory';

// What is asked is passed on as it is; the fake worker looks at none of it.
const input = { recipe: {}, pins: [] } as unknown as RecipeInputs;

class FakeWorker {
  readonly asked: ComputeRequest[] = [];
  ended = false;
  private readonly listeners = new Map<string, (event: unknown) => void>();
  postMessage(request: ComputeRequest) {
    this.asked.push(request);
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

  it('asks one worker, tells progress and gives each run its own result', async () => {
    isolated(true);
    const told: [number, string][] = [];
    const first = compute.run('make-section', input, (fraction, stage) => told.push([fraction, stage]));
    const second = compute.run('make-section', input);
    expect(workers).toHaveLength(1);
    const [a, b] = workers[0].asked;
    workers[0].answer({ id: b.id, type: 'done', result: 'two' as never });
    workers[0].answer({ id: a.id, type: 'progress', fraction: 0.5, stage: 'cutting' });
    workers[0].answer({ id: a.id, type: 'done', result: 'one' as never });
    expect([await first.result, await second.result, told]).toEqual(['one', 'two', [[0.5, 'cutting']]]);
  });

  it('rebuilds the error that a run ended with', async () => {
    isolated(true);
    const run = compute.run('make-section', input);
    workers[0].answer({
      id: workers[0].asked[0].id,
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
    const flag = workers[0].asked[0].cancel as Int32Array;
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
