import { Injectable, inject } from '@angular/core';
import type { BakeName } from '@stravel/core';
import { Lane, type Run } from './lane';
import type { PageTaskInput, PageTaskName, PageTaskResult } from './page-tasks';
import type { SentDocument } from './sent-documents';
import { WORKER_FACTORY } from './worker-factory';

export type { Run } from './lane';

export interface RunOptions {
  readonly onProgress?: (fraction: number, stage: string) => void;
  /** Told the key of each bake that is about to be made. */
  readonly onKey?: (name: BakeName, key: string) => void;
  /** What it makes, where only the newest counts: a run ends those before it in the same slot. */
  readonly slot?: string;
  /** The documents that it reads; the worker gets what it lacks of them. */
  readonly documents?: readonly SentDocument[];
}

/** Which tasks take so long that nothing a person waits for may stand behind them. */
const LONG_TASKS: ReadonlySet<PageTaskName> = new Set<PageTaskName>(['bake', 'build-chains']);

/** Runs computations of the core in two workers: one for what a person waits for, one for what takes long. The only place that starts them. */
@Injectable({ providedIn: 'root' })
export class Compute {
  private readonly createWorker = inject(WORKER_FACTORY);
  private readonly live: Lane = new Lane(this.createWorker, () => this.connect());
  private readonly long: Lane = new Lane(this.createWorker, () => this.connect());

  run<N extends PageTaskName>(
    task: N,
    input: PageTaskInput<N>,
    { onProgress = () => undefined, onKey = () => undefined, slot, documents = [] }: RunOptions = {},
  ): Run<PageTaskResult<N>> {
    const lane = LONG_TASKS.has(task) ? this.long : this.live;
    // The worker runs the task of that name, which gives its result.
    return lane.run({ task, input, onProgress, onKey, slot, documents }) as Run<PageTaskResult<N>>;
  }

  /** Lets both workers have the sections that either has made. */
  private connect(): void {
    const pair = this.live.isStarted && this.long.isStarted ? new MessageChannel() : undefined;
    this.live.connect(pair?.port1);
    this.long.connect(pair?.port2);
  }

  /** Lets go of what the workers hold of a collection. */
  release(): void {
    this.live.release();
    this.long.release();
  }
}
