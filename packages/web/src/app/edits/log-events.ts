import type { LoggedEdit } from '@stravel/core';
import type { Job } from '../api/api-client';
import { ProblemError } from '../api/problem-error';

/** A stream that the server ended with an error is opened anew after so long. */
const REOPEN_MS = 2000;

/** What is made of the log's events. */
export interface LogListeners {
  opened(): void;
  lost(): void;
  /** Version of the model that the server speaks, first in the stream. */
  model(version: number | undefined): void;
  /** The server's log ends before what was seen here. */
  wentBack(): void;
  edit(edit: LoggedEdit): void;
  /** Fetches an edit that the stream tells of by its number alone. */
  fetch(id: string): Promise<LoggedEdit>;
  bake(): void;
  job(job: Job): void;
}

/** Follows the events of a collection, however often the stream breaks or is refused. */
export class LogEvents {
  private events: EventSource | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private isClosed = false;
  /** Long edits that are being fetched, and what comes behind them. */
  private fetching = 0;
  private coming: Promise<void> = Promise.resolve();

  /**
   * @param urlAfter address of the events after a sequence
   * @param seen last edit of the log that is known
   */
  constructor(
    private readonly urlAfter: (sequence: number) => string,
    public seen: number,
    private readonly listeners: LogListeners,
  ) {
    this.open();
  }

  close(): void {
    this.isClosed = true;
    clearTimeout(this.timer);
    this.events?.close();
  }

  private take(edit: LoggedEdit): void {
    this.seen = Math.max(this.seen, edit.sequence);
    this.listeners.edit(edit);
  }

  /** Takes one that waited, unless a stream that was opened anew has brought it meanwhile. */
  private takeNew(edit: LoggedEdit): void {
    if (!this.isClosed && edit.sequence > this.seen) this.take(edit);
  }

  /** A long edit, asked for until it comes; undefined when it is not wanted any more. */
  private async fetched(id: string): Promise<LoggedEdit | undefined> {
    while (!this.isClosed) {
      try {
        return await this.listeners.fetch(id);
      } catch (error) {
        if (error instanceof ProblemError && error.status === 404) {
          this.listeners.wentBack();
          return undefined;
        }
        await new Promise((resolve) => setTimeout(resolve, REOPEN_MS));
      }
    }
    return undefined;
  }

  private open(): void {
    const events = new EventSource(this.urlAfter(this.seen));
    this.events = events;
    events.addEventListener('open', () => this.listeners.opened());
    events.addEventListener('error', () => {
      this.listeners.lost();
      // After an error answer the browser does not try again by itself.
      if (events.readyState !== EventSource.CLOSED) return;
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.open(), REOPEN_MS);
    });
    events.addEventListener('log', (event) => {
      const { last, model } = read<{ last: number; model?: number }>(event);
      this.listeners.model(model);
      if (last < this.seen) this.listeners.wentBack();
    });
    events.addEventListener('edit', (event) => {
      const edit = read<LoggedEdit>(event);
      if (this.fetching === 0) this.take(edit);
      // The log is told in order: what comes behind one that is being fetched waits for it.
      else this.coming = this.coming.then(() => this.takeNew(edit));
    });
    events.addEventListener('long-edit', (event) => {
      const { id, sequence } = read<{ id: string; sequence: number }>(event);
      this.fetching++;
      this.coming = this.coming.then(async () => {
        const edit = sequence > this.seen ? await this.fetched(id) : undefined;
        this.fetching--;
        if (edit) this.takeNew(edit);
      });
    });
    events.addEventListener('bake', () => this.listeners.bake());
    events.addEventListener('job', (event) => this.listeners.job(read<Job>(event)));
  }
}

/** What the server sent; it writes each of its events in one place. */
function read<T>(event: { readonly data: unknown }): T {
  return JSON.parse(String(event.data)) as T;
}
