import { Injectable, inject, signal } from '@angular/core';
import { RECORDS_DOCUMENT, type Edit } from '@stravel/core';
import { DocumentRegistry } from '../document/document-registry';

/** So many operations are laid at once; more of them in slices. */
const MAX_AT_ONCE = 500;
const OPERATIONS_PER_STEP = 256;
/** Laying goes on for so long before other work of the page gets its turn. */
const SLICE_MS = 10;
/** What takes longer than this is told of. */
const SHOWN_AFTER_MS = 250;
/** With these a person begins something that reads what is shown. */
const BEGINNINGS = ['keydown', 'pointerdown', 'change', 'drop'] as const;

/** How far the laying of an edit has come. */
export interface LayingProgress {
  readonly label: string;
  /** 0 to 100. */
  readonly percent: number;
}

/**
 * Lays edits of very many operations in slices, so that the page stays responsive. Whatever a person begins meanwhile finds the
 * edit laid whole; a key that repeats waits.
 */
@Injectable({ providedIn: 'root' })
export class LongLaying {
  private readonly documents = inject(DocumentRegistry);
  /** What is told of it, once it takes long. */
  readonly shown = signal<LayingProgress | undefined>(undefined);
  /** Edits that are being laid; those that are to be given up. */
  private readonly underWay = new Set<string>();
  private readonly cancelled = new Set<string>();

  constructor() {
    for (const type of BEGINNINGS) document.addEventListener(type, (event) => this.hear(event), { capture: true });
  }

  /** Whether an edit is long enough to be laid in slices. Records are few, and the store takes them whole. */
  isFor({ operations }: Pick<Edit, 'operations'>): boolean {
    return operations.length > MAX_AT_ONCE && operations.every(({ document }) => document !== RECORDS_DOCUMENT);
  }

  /** @returns false when it was cancelled: nothing of it is shown then */
  async lay({ id, label, operations }: Pick<Edit, 'id' | 'label' | 'operations'>): Promise<boolean> {
    const step = this.documents.layInSteps({ id, operations }, OPERATIONS_PER_STEP);
    const begun = performance.now();
    let laid = 0;
    let isLeft = true;
    this.underWay.add(id);
    try {
      while (isLeft && !this.cancelled.has(id)) {
        await new Promise((resolve) => setTimeout(resolve));
        const end = performance.now() + SLICE_MS;
        while (isLeft && !this.cancelled.has(id) && performance.now() < end) {
          isLeft = step();
          laid += OPERATIONS_PER_STEP;
        }
        if (isLeft && performance.now() - begun > SHOWN_AFTER_MS)
          this.shown.set({ label, percent: Math.min(100, Math.round((laid / operations.length) * 100)) });
      }
    } finally {
      this.underWay.delete(id);
      this.shown.set(undefined);
    }
    // What was laid whole meanwhile has others on top of it, and stays.
    const isCancelled = this.cancelled.delete(id) && isLeft && step();
    this.documents.contentChanged();
    return !isCancelled;
  }

  /** Gives up what is being laid. */
  cancel(): void {
    for (const id of this.underWay) this.cancelled.add(id);
  }

  private hear(event: Event): void {
    if (this.underWay.size === 0 || (event.target instanceof Element && event.target.closest('[data-laying]'))) return;
    if (event instanceof KeyboardEvent && event.repeat) {
      event.preventDefault();
      event.stopImmediatePropagation();
      return;
    }
    this.documents.finishLaying();
  }
}
