import { BakeCache, createRunContext, toPlainError, type RunContext } from '@stravel/core';
import { HeldDocuments } from './held-documents';
import { MOVED, createPageTasks } from './page-tasks';
import { SectionExchange } from './section-exchange';
import type { ComputeAnswer, ComputeRequest, WorkerMessage } from './protocol';

/** Progress is told at most this often, milliseconds. */
const TELL_EVERY_MS = 50;
/** Bytes of bakes that are kept for those that need them. */
const MAX_CACHED_BYTES = 256e6;

/** What a worker does with what it is told and asked, one after the other. */
export class WorkerSide {
  private readonly held = new HeldDocuments();
  private readonly cache = new BakeCache(MAX_CACHED_BYTES);
  private readonly exchange = new SectionExchange(this.cache);
  private readonly tasks = createPageTasks(this.cache, this.held, this.exchange);
  /** What is in hand; the next waits for it, as progress and results of one are never mixed with another's. */
  private last: Promise<void> = Promise.resolve();

  constructor(private readonly answer: (answer: ComputeAnswer, moved?: Transferable[]) => void) {}

  take(message: WorkerMessage): void {
    if (message.type === 'peer') {
      this.exchange.connect(message.port);
      return;
    }
    this.last = this.last.then(() => (message.type === 'run' ? this.run(message) : this.held.take(message)));
  }

  private async run({ id, task, input, on, cancel }: ComputeRequest): Promise<void> {
    const documents = this.held.lacking(on);
    if (documents.length > 0) {
      this.answer({ id, type: 'lacks', documents });
      return;
    }
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
        this.answer({ id, type: 'progress', fraction, stage });
      },
      onKey: (name, key) => this.answer({ id, type: 'key', name, key }),
    });
    try {
      // The request's type ties task, input and result together; the tables have lost that tie.
      const work = this.tasks[task] as (input: unknown, context: RunContext) => never | Promise<never>;
      context.checkCancelled();
      const result = await work(input, context);
      const moved = MOVED[task] as ((result: unknown) => Transferable[]) | undefined;
      this.answer({ id, type: 'done', result }, moved?.(result));
    } catch (error) {
      this.answer({ id, type: 'failed', error: toPlainError(error) });
    }
  }
}
