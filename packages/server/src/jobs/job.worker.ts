import { once } from 'node:events';
import { receiveMessageOnPort, type MessagePort } from 'node:worker_threads';
import { createRunContext, toPlainError, type RunContext } from '@stravel/core';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { SliceGathering, slicedData, slicesOf, type Slice, type SlicedData } from './sliced-data';
import { THREAD_TASKS } from './thread-tasks';
import type { ThreadAnswer, ThreadMessage, ThreadTask } from './thread-pool';

installLinearPatterns();

export default async function run({ name, input, port }: ThreadTask): Promise<ThreadAnswer> {
  try {
    port.postMessage({ begun: true } satisfies ThreadMessage);
    const context = createRunContext({
      onProgress: (fraction, stage) => port.postMessage({ fraction, stage } satisfies ThreadMessage),
    });
    // The pool's types tie a name and its input together; the table has lost that tie.
    const work = THREAD_TASKS[name] as (input: unknown, context: RunContext) => unknown;
    return { ok: true, result: await sendSliced(port, await work(gathered(port, input), context)) };
  } catch (error) {
    return { ok: false, error: toPlainError(error) };
  } finally {
    port.close();
  }
}

/** The input with the slices that wait for it. */
function gathered(port: MessagePort, input: SlicedData): unknown {
  const gathering = new SliceGathering();
  for (let waiting = receiveMessageOnPort(port); waiting; waiting = receiveMessageOnPort(port))
    gathering.take(waiting.message as Slice);
  return gathering.whole(input);
}

/** Sends a result slice by slice, each when the one before has been taken. */
async function sendSliced(port: MessagePort, result: unknown): Promise<SlicedData> {
  const { sliced, lists } = slicedData(result);
  for (const slice of slicesOf(lists)) {
    const taken = once(port, 'message');
    port.postMessage({ slice } satisfies ThreadMessage);
    await taken;
  }
  return sliced;
}
