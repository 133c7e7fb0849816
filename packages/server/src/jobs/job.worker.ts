import { once } from 'node:events';
import { receiveMessageOnPort, type MessagePort } from 'node:worker_threads';
import {
  BakeCache,
  archiveCollection,
  createRunContext,
  createTasks,
  toPlainError,
  type RunContext,
} from '@stravel/core';
import { BAKE_TASKS } from '../bakes/bake-tasks';
import { readArchive } from '../collections/read-archive';
import { LONG_EDIT_TASKS } from '../edits/long-edit';
import { EDIT_TASKS } from '../edits/upgraded-text';
import { jsonOfBytes } from '../http/json-of-bytes';
import { SliceGathering, slicedData, slicesOf, type Slice, type SlicedData } from './sliced-data';
import type { ThreadAnswer, ThreadMessage, ThreadTask } from './thread-pool';

type Task = (input: unknown, context: RunContext) => unknown;

/** What a job thread can do. Threads never open the database. */
const TASKS = {
  ...createTasks(new BakeCache(0)),
  ...BAKE_TASKS,
  archive: archiveCollection,
  restore: readArchive,
  'read-json': jsonOfBytes,
  ...EDIT_TASKS,
  ...LONG_EDIT_TASKS,
} as const;

/** A task by its name; whoever names it hands over its input, by the types of the pool. */
const taskOf = (name: string): Task => (TASKS as Readonly<Record<string, unknown>>)[name] as Task;

export default async function run({ name, input, port }: ThreadTask): Promise<ThreadAnswer> {
  try {
    port.postMessage({ begun: true } satisfies ThreadMessage);
    const context = createRunContext({
      onProgress: (fraction, stage) => port.postMessage({ fraction, stage } satisfies ThreadMessage),
    });
    return { ok: true, result: await sendSliced(port, await taskOf(name)(gathered(port, input), context)) };
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
