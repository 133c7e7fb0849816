/** Where waiting jobs stand; small, so that a queue over several machines can take its place. */
export interface JobQueue {
  /** Adds a job's id at the end. */
  put(id: string): void;
  /** Called with one id at a time; the next is taken when the promise settles. */
  consume(work: (id: string) => Promise<void>): void;
  /** Takes nothing more; waits for the one in work. */
  stop(): Promise<void>;
}

/** The queue of a single server, in memory; what it holds is rebuilt from the rows at the start. */
export class LocalJobQueue implements JobQueue {
  private readonly waiting: string[] = [];
  private work: ((id: string) => Promise<void>) | undefined;
  private running: Promise<void> | undefined;
  private stopped = false;

  put(id: string): void {
    this.waiting.push(id);
    this.next();
  }

  consume(work: (id: string) => Promise<void>): void {
    this.work = work;
    this.next();
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.running;
  }

  private next(): void {
    if (this.stopped || this.running || !this.work) return;
    const id = this.waiting.shift();
    if (id === undefined) return;
    this.running = this.work(id).finally(() => {
      this.running = undefined;
      this.next();
    });
  }
}
