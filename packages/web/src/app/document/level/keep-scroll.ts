import { Directive, ElementRef, Injectable, computed, effect, inject, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { Session } from '../../session';
import { OpenLevel } from './open-level';

/** Places of so many lists are remembered. */
const MAX_KEPT = 400;
/** A list is waited for as long as this, frames, until it is long enough to be scrolled to where it was. */
const MAX_FRAMES = 60;

/** How far lists were scrolled, for this person's eyes, in this browser. */
@Injectable({ providedIn: 'root' })
export class ScrollMemory {
  private readonly session = inject(Session);
  private readonly key = computed(() => `stravel.scrolls.${this.session.collection()?.id ?? ''}`);

  of(list: string): number {
    return this.all().get(list) ?? 0;
  }

  keep(list: string, pixels: number): void {
    const all = this.all();
    all.delete(list);
    if (pixels > 0) all.set(list, pixels);
    localStorage.setItem(this.key(), JSON.stringify([...all].slice(-MAX_KEPT)));
  }

  private all(): Map<string, number> {
    return new Map(readScrolls(localStorage.getItem(this.key())));
  }
}

/** What was kept; nothing of anything else. */
export function readScrolls(text: string | null): (readonly [string, number])[] {
  if (text === null) return [];
  try {
    const kept = JSON.parse(text) as unknown;
    if (!Array.isArray(kept)) return [];
    return kept.flatMap((entry: unknown) =>
      Array.isArray(entry) && typeof entry[0] === 'string' && typeof entry[1] === 'number' && entry[1] > 0
        ? [[entry[0], entry[1]] as const]
        : [],
    );
  } catch {
    return [];
  }
}

/** Desk of an address such as /c/ID/layout/KEY?plan=…; '' where there is none. */
export function deskOf(url: string): string {
  return url.split(/[/?#]/).at(3) ?? '';
}

/** A list that each level and desk keeps scrolled as it was. A desk has one of each tag. */
@Directive({ selector: '[svKeepScroll]', host: { '(scroll)': 'scrolled()' } })
export class KeepScroll {
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly memory = inject(ScrollMemory);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = deskOf(inject(Router).url);
  private readonly list = computed(() => {
    const level = this.openLevel.level()?.id;
    return level === undefined || this.openLevel.isLoading()
      ? undefined
      : `${this.desk} ${level} ${this.element.tagName.toLowerCase()}`;
  });
  /** The list that is scrolled to its place: until then what moves it is no person. */
  private shown: string | undefined;

  constructor() {
    effect(() => {
      const list = this.list();
      untracked(() => {
        this.shown = undefined;
        if (list !== undefined) this.scrollTo(list, this.memory.of(list), MAX_FRAMES);
      });
    });
  }

  protected scrolled(): void {
    if (this.shown !== undefined && this.shown === this.list())
      this.memory.keep(this.shown, Math.round(this.element.scrollTop));
  }

  private scrollTo(list: string, pixels: number, frames: number): void {
    requestAnimationFrame(() => {
      if (this.list() !== list || !this.element.isConnected) return;
      this.element.scrollTop = pixels;
      if (frames > 0 && Math.abs(this.element.scrollTop - pixels) > 1) this.scrollTo(list, pixels, frames - 1);
      else this.shown = list;
    });
  }
}
