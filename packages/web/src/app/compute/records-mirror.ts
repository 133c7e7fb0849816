import { Injectable, inject, signal } from '@angular/core';
import { RECORD_KINDS, type Finding, type LevelFiguresTable, type RecordTables } from '@stravel/core';
import type { MirrorAnswer, MirrorRequest } from './mirror-protocol';
import { MIRROR_FACTORY } from './worker-factory';

/** Records that are sent at once; more would hold the page up. */
const RECORDS_AT_ONCE = 400;

/** Keeps a worker's copy of the small records up, change by change, and asks it what is wrong with them. */
@Injectable({ providedIn: 'root' })
export class RecordsMirror {
  private readonly createWorker = inject(MIRROR_FACTORY);
  private worker: Worker | undefined;
  private sent = new Map<string, Map<string, unknown>>();
  private tables: RecordTables | undefined;
  private figures: LevelFiguresTable | undefined;
  private figuresSent: LevelFiguresTable | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private round = 0;

  /** What the last check found. */
  readonly findings = signal<readonly Finding[]>([]);

  /** Takes what stands now; the findings follow. */
  follow(tables: RecordTables, figures: LevelFiguresTable): void {
    this.tables = tables;
    this.figures = figures;
    if (this.timer === undefined) this.timer = setTimeout(() => this.pump());
  }

  private pump(): void {
    this.timer = undefined;
    const { tables } = this;
    if (!tables) return;
    let room = RECORDS_AT_ONCE;
    for (const kind of RECORD_KINDS) {
      const table = tables[kind] as Readonly<Record<string, unknown>>;
      const known = this.sent.get(kind) ?? new Map<string, unknown>();
      this.sent.set(kind, known);
      const changed: [string, unknown][] = [];
      for (const id of Object.keys(table)) {
        if (known.get(id) === table[id]) continue;
        if (room === 0) break;
        room--;
        known.set(id, table[id]);
        changed.push([id, table[id]]);
      }
      const gone = [...known.keys()].filter((id) => !Object.hasOwn(table, id));
      for (const id of gone) known.delete(id);
      if (changed.length + gone.length > 0) this.post({ type: 'records', kind, changed, gone });
      if (room === 0) {
        this.timer = setTimeout(() => this.pump());
        return;
      }
    }
    if (this.figures !== this.figuresSent) {
      this.figuresSent = this.figures;
      this.post({ type: 'figures', figures: this.figures ?? {} });
    }
    this.post({ type: 'check', round: ++this.round });
  }

  /** Forgets a worker that failed: the next change sends everything to a new one. */
  private startOver(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.sent.clear();
    this.figuresSent = undefined;
  }

  private post(request: MirrorRequest): void {
    if (!this.worker) {
      this.worker = this.createWorker();
      this.worker.addEventListener('message', ({ data }: MessageEvent<MirrorAnswer>) => {
        // What was asked since will answer for it.
        if (data.round === this.round) this.findings.set(data.findings);
      });
      this.worker.addEventListener('error', () => this.startOver());
    }
    this.worker.postMessage(request);
  }
}
