import { CoreError, errorText, fromPlainError, type BakeName } from '@stravel/core';
import type { ComputeAnswer, ComputeRequest, PeerMessage } from './protocol';
import { SentDocuments, versionsOf, type SentDocument } from './sent-documents';

/** A worker that has not answered to a cancel after this long is ended, milliseconds. */
const CANCEL_ANSWER_MS = 2000;

/** A computation on its way. */
export interface Run<T> {
  readonly result: Promise<T>;
  /** Stops it for real; the result then fails with CoreError 'CANCELLED'. */
  cancel(): void;
}

/** What is asked of a lane: all of a request but its number and its flag. */
export interface LaneRequest extends Pick<ComputeRequest, 'task' | 'input'> {
  /** The documents that it reads, in the version that they have once its turn comes. */
  readonly documents: readonly SentDocument[];
  readonly onProgress: (fraction: number, stage: string) => void;
  /** Told the key of each bake that is about to be made. */
  readonly onKey: (name: BakeName, key: string) => void;
  /** What it makes, where only the newest counts: a run ends those before it in the same slot. */
  readonly slot: string | undefined;
}

interface OpenRun extends LaneRequest {
  readonly id: number;
  readonly cancelFlag: Int32Array | undefined;
  readonly resolve: (result: unknown) => void;
  readonly reject: (error: CoreError) => void;
}

/** One worker, and what it is asked one after the other. What waits is kept here, so that a worker can be ended alone. */
export class Lane {
  private worker: Worker | undefined;
  /** What the worker is at, cancelled or not. */
  private active: OpenRun | undefined;
  /** Ends a worker that does not answer to a cancel. */
  private deadline: ReturnType<typeof setTimeout> | undefined;
  private readonly waiting: OpenRun[] = [];
  /** The run for which the worker lacked something. */
  private lackedFor: OpenRun | undefined;
  private readonly sent = new SentDocuments();
  private hasPeer = false;
  private lastId = 0;

  /** @param onChange called each time that a worker was started or ended */
  constructor(
    private readonly createWorker: () => Worker,
    private readonly onChange: () => void,
  ) {}

  get isStarted(): boolean {
    return this.worker !== undefined;
  }

  /** Lets the worker exchange sections with another; with none where there is none any more. */
  connect(port: MessagePort | undefined): void {
    if (port || this.hasPeer)
      this.worker?.postMessage({ type: 'peer', port } satisfies PeerMessage, port ? [port] : []);
    this.hasPeer = port !== undefined;
  }

  run(request: LaneRequest): Run<unknown> {
    const id = ++this.lastId;
    const cancelFlag = crossOriginIsolated ? new Int32Array(new SharedArrayBuffer(4)) : undefined;
    let settle!: Pick<OpenRun, 'resolve' | 'reject'>;
    const result = new Promise<unknown>((resolve, reject) => (settle = { resolve, reject }));
    const open: OpenRun = { ...request, ...settle, id, cancelFlag };
    if (request.slot !== undefined)
      for (const one of [...this.waiting, this.active]) if (one?.slot === request.slot) this.cancel(one);
    this.waiting.push(open);
    this.next();
    return { result, cancel: () => this.cancel(open) };
  }

  /** Lets go of all documents that the worker holds. */
  release(): void {
    for (const message of this.sent.releases()) this.worker?.postMessage(message);
  }

  private next(): void {
    if (this.active) return;
    const run = this.waiting.shift();
    if (!run) return;
    this.active = run;
    this.ask(run);
  }

  private ask({ id, task, input, documents, cancelFlag: cancel, reject }: OpenRun): void {
    try {
      const worker = this.started();
      for (const { message, transfer } of this.sent.messagesFor(documents)) worker.postMessage(message, transfer);
      worker.postMessage({ type: 'run', id, task, input, on: versionsOf(documents), cancel } satisfies ComputeRequest);
    } catch (error) {
      // What cannot be sent is said to whoever asked; the others are asked all the same.
      reject(new CoreError('WORKER_FAILED', `worker: ${errorText(error)}`));
      this.free();
    }
  }

  private cancel(run: OpenRun): void {
    const place = this.waiting.indexOf(run);
    if (place >= 0) this.waiting.splice(place, 1);
    else if (this.active !== run) return;
    run.reject(new CoreError('CANCELLED', `${run.task}: cancelled on request`));
    if (place >= 0) return;
    if (!run.cancelFlag) this.end();
    else if (Atomics.exchange(run.cancelFlag, 0, 1) === 0)
      this.deadline = setTimeout(() => this.end(), CANCEL_ANSWER_MS);
  }

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = this.createWorker();
    worker.addEventListener('message', ({ data }: MessageEvent<ComputeAnswer>) => {
      if (this.worker === worker) this.take(data);
    });
    worker.addEventListener('error', (event) => {
      if (this.worker !== worker) return;
      this.active?.reject(new CoreError('WORKER_FAILED', `worker: ${event.message || 'could not start'}`));
      this.end();
    });
    this.worker = worker;
    this.onChange();
    return worker;
  }

  private take(answer: ComputeAnswer): void {
    const run = this.active;
    if (answer.id !== run?.id) return;
    if (answer.type === 'progress' || answer.type === 'key') {
      if (this.deadline !== undefined) return;
      if (answer.type === 'key') run.onKey(answer.name, answer.key);
      else run.onProgress(answer.fraction, answer.stage);
      return;
    }
    if (answer.type === 'lacks' && this.lackedFor !== run) {
      // It was told of what changed in something that it does not hold: it gets the whole.
      this.lackedFor = run;
      this.sent.forget(answer.documents);
      this.ask(run);
      return;
    }
    // Of a cancelled run nobody listens any more.
    if (answer.type === 'done') run.resolve(answer.result);
    else if (answer.type === 'failed') run.reject(fromPlainError(answer.error));
    else run.reject(new CoreError('WORKER_FAILED', `worker: lacks ${answer.documents.join(', ')}`));
    this.free();
  }

  /** Ends the worker; what waits is asked of a new one. */
  private end(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.hasPeer = false;
    this.sent.releases();
    this.onChange();
    this.free();
  }

  private free(): void {
    clearTimeout(this.deadline);
    this.deadline = undefined;
    this.active = undefined;
    this.next();
  }
}
