import { availableParallelism } from 'node:os';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { fromPlainError, type PlainError } from '@stravel/core';
import { Piscina } from 'piscina';
import { Stretches } from '../loop/stretches';
import type { ThreadTaskInput, ThreadTaskName, ThreadTaskResult } from './thread-tasks';
import { SliceGathering, slicedData, slicesOf, type Slice, type SlicedData } from './sliced-data';

/** Memory that one thread may use before it is ended, megabytes. */
const THREAD_MEMORY_MB = 4096;

/** A thread that has had nothing to do for so long is let go of, milliseconds. */
const IDLE_MS = 30000;

/** How long a task may take from when a thread begins it, milliseconds; the thread is replaced after that. */
const TIME_LIMITS_MS: Readonly<Partial<Record<ThreadTaskName, number>>> = {
  restore: 120000,
  archive: 300000,
  'inspect-kit': 60000,
  'read-json': 30000,
  'read-edit': 60000,
};
const DEFAULT_TIME_LIMIT_MS = 1800000;

/** What a thread says while it works. */
export type ThreadMessage =
  { readonly begun: true } | { readonly fraction: number; readonly stage: string } | { readonly slice: Slice };

/** What a thread is asked to do. */
export interface ThreadTask {
  readonly name: ThreadTaskName;
  /** Its slices wait at the port. */
  readonly input: SlicedData;
  /** Slices of the result go out here one by one, each when the one before was answered. */
  readonly port: MessagePort;
}

/** What a thread answers: errors travel as plain data. */
export type ThreadAnswer =
  { readonly ok: true; readonly result: SlicedData } | { readonly ok: false; readonly error: PlainError };

export interface ThreadRunOptions {
  /** Ends the thread; the run then fails with CoreError 'CANCELLED'. */
  readonly signal?: AbortSignal;
  readonly onProgress?: (fraction: number, stage: string) => void;
}

export interface ThreadPoolOptions {
  /** One fewer than there are cores, at least one, where nothing else is said. */
  readonly threads?: number;
  /** Once a thread was begun it stays. */
  readonly isWarm?: boolean;
  /** By the name of a task. */
  readonly timeLimitsMs?: Readonly<Partial<Record<ThreadTaskName, number>>>;
}

/** Runs computations off the event loop. */
export class ThreadPool {
  private readonly pool: Piscina;
  private readonly timeLimitsMs: Readonly<Partial<Record<ThreadTaskName, number>>>;

  constructor({
    threads = Math.max(1, availableParallelism() - 1),
    isWarm = false,
    timeLimitsMs = TIME_LIMITS_MS,
  }: ThreadPoolOptions = {}) {
    this.timeLimitsMs = timeLimitsMs;
    const here = import.meta.url;
    const fromSource = here.endsWith('.ts');
    this.pool = new Piscina({
      filename: new URL(fromSource ? './job.worker.ts' : './job.worker.js', here).href,
      execArgv: fromSource ? ['--import', 'tsx'] : [],
      minThreads: 0,
      maxThreads: threads,
      idleTimeout: isWarm ? Infinity : IDLE_MS,
      resourceLimits: { maxOldGenerationSizeMb: THREAD_MEMORY_MB },
    });
  }

  /**
   * Runs a task of job.worker by name.
   * @throws CoreError as the task does; 'CANCELLED' when the signal fired
   */
  async run<N extends ThreadTaskName>(
    name: N,
    input: ThreadTaskInput<N>,
    options: ThreadRunOptions = {},
  ): Promise<ThreadTaskResult<N>> {
    const { port1, port2 } = new MessageChannel();
    const limit = new AbortController();
    const limitMs = this.timeLimitsMs[name] ?? DEFAULT_TIME_LIMIT_MS;
    let timer: NodeJS.Timeout | undefined;
    const gathering = new SliceGathering();
    port1.on('message', (message: ThreadMessage) => {
      if ('begun' in message) timer = setTimeout(() => limit.abort(), limitMs);
      else if ('slice' in message) {
        gathering.take(message.slice);
        port1.postMessage(null);
      } else options.onProgress?.(message.fraction, message.stage);
    });
    try {
      const { sliced, lists } = slicedData(input);
      const stretches = new Stretches();
      for (const slice of slicesOf(lists)) {
        port1.postMessage(slice);
        await stretches.rest();
      }
      const task: ThreadTask = { name, input: sliced, port: port2 };
      const signal = options.signal ? AbortSignal.any([options.signal, limit.signal]) : limit.signal;
      const answer = (await this.pool.run(task, { transferList: [port2], signal })) as ThreadAnswer;
      if (!answer.ok) throw fromPlainError(answer.error);
      return gathering.whole(answer.result) as ThreadTaskResult<N>;
    } catch (error) {
      if (options.signal?.aborted)
        throw fromPlainError({ code: 'CANCELLED', message: `${name}: cancelled on request`, details: {} });
      if (limit.signal.aborted)
        throw fromPlainError({
          code: 'TIME_LIMIT',
          message: `${name}: took longer than ${limitMs / 1000} s and was ended`,
          details: { limitMs },
        });
      throw error;
    } finally {
      clearTimeout(timer);
      port1.close();
    }
  }

  /** Begins a thread, so that the first who asks need not wait for it. */
  async warm(): Promise<void> {
    await this.run('read-json', new TextEncoder().encode('null'));
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
