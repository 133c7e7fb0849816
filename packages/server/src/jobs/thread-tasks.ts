import { BakeCache, archiveCollection, createTasks } from '@stravel/core';
import { BAKE_TASKS } from '../bakes/bake-tasks';
import { readArchive } from '../collections/read-archive';
import { LONG_EDIT_TASKS } from '../edits/long-edit-tasks';
import { EDIT_TASKS } from '../edits/upgraded-text';
import { jsonOfBytes } from '../http/json-of-bytes';
import { PACK_TASKS } from '../pack/pack-tasks';

/** What a thread can do: what the core does, and what the server does with its files and requests. Threads never open the database. */
export const THREAD_TASKS = {
  ...createTasks(new BakeCache(0)),
  ...BAKE_TASKS,
  ...PACK_TASKS,
  archive: archiveCollection,
  restore: readArchive,
  'read-json': jsonOfBytes,
  ...EDIT_TASKS,
  ...LONG_EDIT_TASKS,
} as const;

export type ThreadTasks = typeof THREAD_TASKS;
export type ThreadTaskName = keyof ThreadTasks;
export type ThreadTaskInput<N extends ThreadTaskName> = Parameters<ThreadTasks[N]>[0];
export type ThreadTaskResult<N extends ThreadTaskName> = Awaited<ReturnType<ThreadTasks[N]>>;
