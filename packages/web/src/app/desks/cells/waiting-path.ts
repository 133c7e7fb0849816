import { Injectable, computed, inject, signal } from '@angular/core';
import type { PlanPoint } from '@stravel/core';
import { Session } from '../../session';

/** A path that was drawn while there was no device to walk it with. */
export interface WaitingPathOf {
  readonly level: string;
  readonly knots: readonly PlanPoint[];
  readonly floorMetres: number;
}

/** Keeps one path a collection, in this browser, until there is a device. */
@Injectable()
export class WaitingPath {
  private readonly session = inject(Session);
  private readonly key = computed(() => `stravel.waiting-path.${this.session.collection()?.id ?? ''}`);
  private readonly changes = signal(0);
  readonly path = computed((): WaitingPathOf | undefined => {
    this.changes();
    return readWaitingPath(localStorage.getItem(this.key()));
  });

  keep(path: WaitingPathOf): void {
    localStorage.setItem(this.key(), JSON.stringify(path));
    this.changes.update((count) => count + 1);
  }

  drop(): void {
    localStorage.removeItem(this.key());
    this.changes.update((count) => count + 1);
  }
}

/** What was kept; undefined for anything else. */
export function readWaitingPath(text: string | null): WaitingPathOf | undefined {
  if (text === null) return undefined;
  try {
    const { level, knots, floorMetres } = JSON.parse(text) as Partial<Record<keyof WaitingPathOf, unknown>>;
    const isPoint = (knot: unknown): knot is PlanPoint =>
      Array.isArray(knot) && knot.length === 2 && knot.every(Number.isFinite);
    return typeof level === 'string' && Array.isArray(knots) && knots.every(isPoint) && Number.isFinite(floorMetres)
      ? { level, knots: knots as PlanPoint[], floorMetres: floorMetres as number }
      : undefined;
  } catch {
    return undefined;
  }
}
