import { Injectable, signal } from '@angular/core';

const KEY = 'stravel.known-desks';

/** Desks whose first card a person has put away, in this browser. */
@Injectable({ providedIn: 'root' })
export class KnownDesks {
  private readonly known = signal<ReadonlySet<string>>(new Set(readKnown(localStorage.getItem(KEY))));

  has(desk: string): boolean {
    return this.known().has(desk);
  }

  putAway(desk: string): void {
    this.set(new Set([...this.known(), desk]));
  }

  /** Shows the card of a desk again. */
  bringBack(desk: string): void {
    this.set(new Set([...this.known()].filter((one) => one !== desk)));
  }

  private set(known: ReadonlySet<string>): void {
    this.known.set(known);
    localStorage.setItem(KEY, JSON.stringify([...known]));
  }
}

/** Names of desks; nothing of anything else. */
function readKnown(text: string | null): string[] {
  try {
    const kept = JSON.parse(text ?? '[]') as unknown;
    return Array.isArray(kept) ? kept.filter((one): one is string => typeof one === 'string') : [];
  } catch {
    return [];
  }
}
