import { BAKE_TASKS, archiveCollection, createRunContext, toPlainError, type RunContext } from '@stravel/core';
import { readArchive } from '../collections/read-archive';
import type { ThreadAnswer, ThreadMessage, ThreadTask } from './thread-pool';

/** What a job thread can do. Threads never open the database. */
const TASKS: Readonly<Record<string, (input: never, context: RunContext) => unknown>> = {
  ...BAKE_TASKS,
  archive: archiveCollection,
  restore: readArchive,
};

export default async function run({ name, input, port }: ThreadTask): Promise<ThreadAnswer> {
  try {
    port.postMessage({ begun: true } satisfies ThreadMessage);
    const context = createRunContext({ onProgress: (fraction, stage) => port.postMessage({ fraction, stage } satisfies ThreadMessage) });
    return { ok: true, result: await TASKS[name](input as never, context) };
  } catch (error) {
    return { ok: false, error: toPlainError(error) };
  } finally {
    port.close();
  }
}
