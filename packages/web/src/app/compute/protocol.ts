import type { BakeName, PlainError } from '@stravel/core';
import type { HeldVersion, HoldMessage } from './hold-protocol';
import type { PageTaskInput, PageTaskName, PageTaskResult } from './page-tasks';

/** What a worker is asked. `cancel` is a shared flag: not 0 means stop. */
export interface ComputeRequest<N extends PageTaskName = PageTaskName> {
  readonly type: 'run';
  readonly id: number;
  readonly task: N;
  readonly input: PageTaskInput<N>;
  /** The documents that it reads. */
  readonly on: readonly HeldVersion[];
  readonly cancel: Int32Array | undefined;
}

/** The other worker, with which sections are exchanged; undefined where it was ended. */
export interface PeerMessage {
  readonly type: 'peer';
  readonly port: MessagePort | undefined;
}

export type WorkerMessage = HoldMessage | PeerMessage | ComputeRequest;

/** What a worker answers: any number of 'progress' and 'key', then one of the others. */
export type ComputeAnswer<N extends PageTaskName = PageTaskName> =
  | { readonly id: number; readonly type: 'progress'; readonly fraction: number; readonly stage: string }
  /** Of a bake that it is about to make. */
  | { readonly id: number; readonly type: 'key'; readonly name: BakeName; readonly key: string }
  | { readonly id: number; readonly type: 'done'; readonly result: PageTaskResult<N> }
  | { readonly id: number; readonly type: 'failed'; readonly error: PlainError }
  /** It does not hold some documents as they are asked for; nothing was done. */
  | { readonly id: number; readonly type: 'lacks'; readonly documents: readonly string[] };
