import type { TaskInput, TaskName, TaskResult, PlainError } from '@stravel/core';

/** What a worker is asked. `cancel` is a shared flag: not 0 means stop. */
export interface ComputeRequest<N extends TaskName = TaskName> {
  readonly id: number;
  readonly task: N;
  readonly input: TaskInput<N>;
  readonly cancel: Int32Array | undefined;
}

/** What a worker answers: any number of 'progress', then one of the others. */
export type ComputeAnswer<N extends TaskName = TaskName> =
  | { readonly id: number; readonly type: 'progress'; readonly fraction: number; readonly stage: string }
  | { readonly id: number; readonly type: 'done'; readonly result: TaskResult<N> }
  | { readonly id: number; readonly type: 'failed'; readonly error: PlainError };
