/// <reference lib="webworker" />
import { BAKE_TASKS, createRunContext, toPlainError, type RunContext } from '@stravel/core';
import type { ComputeAnswer, ComputeRequest } from './protocol';

/** Progress is told at most this often, milliseconds. */
const TELL_EVERY_MS = 50;

addEventListener('message', ({ data }: MessageEvent<ComputeRequest>) => {
  const { id, task, input, cancel } = data;
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
    const run = BAKE_TASKS[task] as (input: unknown, context: RunContext) => never;
    answer({ id, type: 'done', result: run(input, context) });
  } catch (error) {
    answer({ id, type: 'failed', error: toPlainError(error) });
  }
});
