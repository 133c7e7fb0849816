import { EventEmitter } from 'node:events';
import { randomUUID } from 'node:crypto';
import { toPlainError } from '@stravel/core';
import type { Logger } from 'pino';
import type { JobRow } from '../db/models';
import type { JobQueue } from './job-queue';
import type { JobRepository } from './job-repository';

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
const MOST_ATTEMPTS = 3;

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
    this.queue.consume((id) => this.work(id));
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

  /** Queues a job; when one of the same kind already waits or runs for the collection, that one. */
  async add(collection: string, kind: string, input: unknown): Promise<JobEvent> {
    const same = (await this.repository.unfinished(collection)).find((row) => row.kind === kind);
    if (same) return this.toEvent(same);
    const at = this.now().toISOString();
    const row: JobRow = {
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
    await this.repository.create(row);
    this.emit(row);
    this.queue.put(row.id);
    return this.toEvent(row);
  }

  async cancel(id: string): Promise<void> {
    const row = await this.repository.byId(id);
    if (!row || (row.state !== 'queued' && row.state !== 'running')) return;
    await this.change(row, { state: 'cancelled' });
    this.controllers.get(id)?.abort();
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
    if (!row || (row.state !== 'queued' && row.state !== 'running')) return;
    if (row.attempts >= MOST_ATTEMPTS) {
      await this.change(row, { state: 'failed', error: row.error ?? `the server ended ${row.attempts} times while it ran` });
      return;
    }
    const controller = new AbortController();
    this.controllers.set(id, controller);
    const running = await this.change(row, { state: 'running', attempts: row.attempts + 1 });
    try {
      const result = await this.handlers[row.kind]({
        collection: row.collection,
        input: JSON.parse(row.input) as unknown,
        signal: controller.signal,
        progress: (fraction, stage) => {
          this.progress.set(id, { fraction, stage });
          this.emit(running);
        },
      });
      await this.change(running, { state: 'done', progress: 1, result: JSON.stringify(result ?? null) });
    } catch (error) {
      await this.afterFailure(running, error, controller.signal);
    } finally {
      this.controllers.delete(id);
      this.progress.delete(id);
    }
  }

  private async afterFailure(row: JobRow, error: unknown, signal: AbortSignal): Promise<void> {
    const stands = await this.repository.byId(row.id);
    if (this.stopping || (signal.aborted && stands?.state === 'cancelled')) return;
    const { message } = toPlainError(error);
    this.log.warn({ err: error, job: row.id, attempt: row.attempts }, 'job failed');
    if (row.attempts >= MOST_ATTEMPTS) {
      await this.change(row, { state: 'failed', error: message });
    } else {
      await this.change(row, { state: 'queued', error: message });
      this.queue.put(row.id);
    }
  }

  private async change(row: JobRow, values: Partial<JobRow>): Promise<JobRow> {
    const changed = { ...values, changed_at: this.now().toISOString() };
    await this.repository.change(row.id, changed);
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
