import { Injectable, inject } from '@angular/core';
import { CoreError, fromPlainError, type TaskInput, type TaskName, type TaskResult } from '@stravel/core';
import type { ComputeAnswer, ComputeRequest } from './protocol';
import { WORKER_FACTORY } from './worker-factory';

/** A computation on its way. */
export interface Run<T> {
  readonly result: Promise<T>;
  /** Stops it for real; the result then fails with CoreError 'CANCELLED'. */
  cancel(): void;
}

interface OpenRun {
  resolve(result: unknown): void;
  reject(error: CoreError): void;
  readonly onProgress: (fraction: number, stage: string) => void;
}

/** Runs computations of the core in a worker, one after the other. The only place that starts workers. */
@Injectable({ providedIn: 'root' })
export class Compute {
  private readonly createWorker = inject(WORKER_FACTORY);
  private worker: Worker | undefined;
  private readonly open = new Map<number, OpenRun>();
  private lastId = 0;

  run<N extends TaskName>(
    task: N,
    input: TaskInput<N>,
    onProgress: (fraction: number, stage: string) => void = () => undefined,
  ): Run<TaskResult<N>> {
    const id = ++this.lastId;
    const flag = crossOriginIsolated ? new Int32Array(new SharedArrayBuffer(4)) : undefined;
    const result = new Promise<TaskResult<N>>((resolve, reject) => {
      this.open.set(id, { resolve: resolve as (result: unknown) => void, reject, onProgress });
    });
    const request: ComputeRequest<N> = { id, task, input, cancel: flag };
    this.started().postMessage(request);
    return {
      result,
      cancel: () => {
        if (flag) Atomics.store(flag, 0, 1);
        else this.startOver(new CoreError('CANCELLED', `${task}: cancelled on request`));
      },
    };
  }

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = this.createWorker();
    worker.addEventListener('message', ({ data }: MessageEvent<ComputeAnswer>) => this.take(data));
    worker.addEventListener('error', (event) =>
      this.startOver(new CoreError('WORKER_FAILED', `worker: ${event.message || 'could not start'}`)),
    );
    this.worker = worker;
    return worker;
  }

  private take(answer: ComputeAnswer): void {
    const run = this.open.get(answer.id);
    if (!run) return;
    if (answer.type === 'progress') {
      run.onProgress(answer.fraction, answer.stage);
      return;
    }
    this.open.delete(answer.id);
    if (answer.type === 'done') run.resolve(answer.result);
    else run.reject(fromPlainError(answer.error));
  }

  /** Ends the worker and everything it was asked; the next run starts a new one. */
  private startOver(reason: CoreError): void {
    this.worker?.terminate();
    this.worker = undefined;
    for (const run of this.open.values()) run.reject(reason);
    this.open.clear();
  }
}
