/// <reference lib="webworker" />
import { BakeCache, createRunContext, createTasks, toPlainError, type RunContext } from '@stravel/core';
import type { ComputeAnswer, ComputeRequest } from './protocol';

/** Progress is told at most this often, milliseconds. */
const TELL_EVERY_MS = 50;
/** Bytes of bakes that are kept for those that need them. */
const MOST_CACHED_BYTES = 256e6;

const TASKS = createTasks(new BakeCache(MOST_CACHED_BYTES));

/** The run in hand; the next one waits for it, as progress and results of one are never mixed with another's. */
let last: Promise<void> = Promise.resolve();

addEventListener('message', ({ data }: MessageEvent<ComputeRequest>) => {
  last = last.then(() => run(data));
});

async function run({ id, task, input, cancel }: ComputeRequest): Promise<void> {
  const answer = (message: ComputeAnswer): void => postMessage(message);
  let told = 0;
  const context = createRunContext({
    cancel: {
      get aborted() {
        return cancel !== undefined && Atomics.load(cancel, 0) !== 0;
      },
    },
    onProgress: (fraction, stage) => {
      const now = performance.now();
      if (now - told < TELL_EVERY_MS) return;
      told = now;
      answer({ id, type: 'progress', fraction, stage });
    },
  });
  try {
    // The request's type ties task and input together; the table has lost that tie.
    const work = TASKS[task] as (input: unknown, context: RunContext) => never | Promise<never>;
    context.checkCancelled();
    answer({ id, type: 'done', result: await work(input, context) });
  } catch (error) {
    answer({ id, type: 'failed', error: toPlainError(error) });
  }
}
