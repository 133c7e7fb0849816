import { EventEmitter } from 'node:events';
import { randomUUID } from 'node:crypto';
import { CoreError, toPlainError } from '@stravel/core';
import type { Logger } from 'pino';
import type { JobRow } from '../db/models';
import type { JobQueue } from './job-queue';
import { UNFINISHED, type JobRepository } from './job-repository';

export type JobState = 'queued' | 'running' | 'done' | 'failed' | 'cancelled';

/** What a page is told of a job. */
export interface JobEvent {
  readonly id: string;
  readonly collection: string;
  readonly kind: string;
  readonly state: JobState;
  /** 0 to 1. */
  readonly progress: number;
  readonly stage: string;
  readonly error: string | null;
  /** What it has to tell when it is done, null before. */
  readonly result: unknown;
}

export interface JobRun {
  readonly collection: string;
  readonly input: unknown;
  readonly signal: AbortSignal;
  readonly progress: (fraction: number, stage: string) => void;
}

/** The work of one kind of job; must be safe to run again after a break. Gives what the job has to tell. */
export type JobHandler = (run: JobRun) => Promise<unknown>;

/** A job is tried once and retried twice. */
const MAX_ATTEMPTS = 3;

/** Runs jobs one after the other; their rows say how far they are. */
export class JobService {
  /** Emits 'job' with a JobEvent. */
  readonly events = new EventEmitter().setMaxListeners(0);
  private readonly controllers = new Map<string, AbortController>();
  private readonly progress = new Map<string, { fraction: number; stage: string }>();
  private stopping = false;

  constructor(
    private readonly repository: JobRepository,
    private readonly queue: JobQueue,
    private readonly handlers: Readonly<Record<string, JobHandler>>,
    private readonly now: () => Date,
    private readonly log: Logger,
  ) {}

  /** Takes up what an earlier server left unfinished, then works on. */
  async start(): Promise<void> {
    for (const row of await this.repository.unfinished()) this.queue.put(row.id);
    this.queue.consume((id) =>
      // A job whose row cannot be written is taken up at the next start; the server goes on.
      this.work(id).catch((error: unknown) => this.log.error({ err: error, job: id }, 'job could not be written')),
    );
  }

  /** Ends the work in hand; its row stays 'running' and is taken up at the next start. */
  async stop(): Promise<void> {
    this.stopping = true;
    for (const controller of this.controllers.values()) controller.abort();
    await this.queue.stop();
  }

  hasKind(kind: string): boolean {
    return Object.hasOwn(this.handlers, kind);
  }

  /** Queues a job; when one of the same kind and input already waits or runs for the collection, that one. */
  async add(collection: string, kind: string, input: unknown): Promise<JobEvent> {
    const at = this.now().toISOString();
    const wanted: JobRow = {
      id: randomUUID(),
      collection,
      kind,
      state: 'queued',
      attempts: 0,
      input: JSON.stringify(input),
      progress: 0,
      stage: '',
      error: null,
      result: null,
      created_at: at,
      changed_at: at,
    };
    const row = await this.repository.createUnlessSame(wanted);
    if (row === wanted) {
      this.emit(row);
      this.queue.put(row.id);
    }
    return this.toEvent(row);
  }

  /** Cancels a job of a collection; one that has ended, or is another collection's, is left alone. */
  async cancel(collection: string, id: string): Promise<void> {
    const row = await this.repository.byId(id);
    if (row?.collection !== collection) return;
    if (await this.change(row, UNFINISHED, { state: 'cancelled' })) this.controllers.get(id)?.abort();
  }

  async unfinished(collection: string): Promise<JobEvent[]> {
    return (await this.repository.unfinished(collection)).map((row) => this.toEvent(row));
  }

  async byId(id: string): Promise<JobEvent | undefined> {
    const row = await this.repository.byId(id);
    return row && this.toEvent(row);
  }

  private async work(id: string): Promise<void> {
    const row = await this.repository.byId(id);
    if (!row) return;
    if (row.attempts >= MAX_ATTEMPTS) {
      await this.change(row, UNFINISHED, {
        state: 'failed',
        error: row.error ?? `the server ended ${row.attempts} times while it ran`,
      });
      return;
    }
    const controller = new AbortController();
    this.controllers.set(id, controller);
    try {
      const running = await this.change(row, UNFINISHED, { state: 'running', attempts: row.attempts + 1 });
      if (running) await this.run(running, controller.signal);
    } finally {
      this.controllers.delete(id);
      this.progress.delete(id);
    }
  }

  private async run(row: JobRow, signal: AbortSignal): Promise<void> {
    try {
      if (!this.hasKind(row.kind))
        throw new CoreError('JOB_KIND_UNKNOWN', `job: this server knows no ${row.kind}`, { kind: row.kind });
      const result = await this.handlers[row.kind]({
        collection: row.collection,
        input: JSON.parse(row.input) as unknown,
        signal,
        progress: (fraction, stage) => {
          this.progress.set(row.id, { fraction, stage });
          this.emit(row);
        },
      });
      await this.change(row, ['running'], { state: 'done', progress: 1, result: JSON.stringify(result ?? null) });
    } catch (error) {
      await this.afterFailure(row, error, signal);
    }
  }

  private async afterFailure(row: JobRow, error: unknown, signal: AbortSignal): Promise<void> {
    if (this.stopping) {
      // A clean stop is no attempt.
      await this.change(row, ['running'], { state: 'queued', attempts: row.attempts - 1 });
      return;
    }
    if (signal.aborted) return;
    const { code, message } = toPlainError(error);
    this.log.warn({ err: error, job: row.id, attempt: row.attempts }, 'job failed');
    // What was refused would be refused again.
    const isFinal = code !== 'UNEXPECTED' || row.attempts >= MAX_ATTEMPTS;
    const changed = await this.change(row, ['running'], { state: isFinal ? 'failed' : 'queued', error: message });
    if (changed && !isFinal) this.queue.put(row.id);
  }

  /** Changes a job that is still in one of some states, and tells of it. @returns the row after it; undefined when it was not */
  private async change(row: JobRow, from: readonly string[], values: Partial<JobRow>): Promise<JobRow | undefined> {
    const changed = { ...values, changed_at: this.now().toISOString() };
    if (!(await this.repository.change(row.id, from, changed))) return undefined;
    const next = { ...row, ...changed };
    this.emit(next);
    return next;
  }

  private emit(row: JobRow): void {
    this.events.emit('job', this.toEvent(row));
  }

  private toEvent(row: JobRow): JobEvent {
    const live = this.progress.get(row.id);
    return {
      id: row.id,
      collection: row.collection,
      kind: row.kind,
      state: row.state as JobState,
      progress: live && row.state === 'running' ? live.fraction : row.progress,
      stage: live?.stage ?? row.stage,
      error: row.error,
      result: row.result === null ? null : (JSON.parse(row.result) as unknown),
    };
  }
}
