import { Injectable, computed, inject } from '@angular/core';
import { Session } from '../session';

/** How a person looks at a level on a desk. */
export interface KeptView {
  /** Middle of the plan in metres, and CSS pixels a metre. */
  readonly plan: readonly [x: number, z: number, scale: number];
  /** What the model turns about, its angles in degrees, its distance in metres. */
  readonly model: readonly [x: number, y: number, z: number, yaw: number, pitch: number, distance: number];
  /** Bottom of the heights shown, and how much of them, metres. */
  readonly heights: readonly [bottom: number, metres: number];
}

/** Views are remembered of so many levels and desks. */
const MAX_KEPT = 200;

/** Each level keeps its zoom, place and heights per desk, for this person's eyes, in this browser. */
@Injectable({ providedIn: 'root' })
export class ViewMemory {
  private readonly session = inject(Session);
  private readonly key = computed(() => `stravel.views.${this.session.collection()?.id ?? ''}`);

  of(desk: string, level: string): KeptView | undefined {
    return this.all().get(`${desk} ${level}`);
  }

  keep(desk: string, level: string, view: KeptView): void {
    const all = this.all();
    const name = `${desk} ${level}`;
    // Last is what was looked at last.
    all.delete(name);
    all.set(name, view);
    localStorage.setItem(this.key(), JSON.stringify([...all].slice(-MAX_KEPT)));
  }

  private all(): Map<string, KeptView> {
    return new Map(readViews(localStorage.getItem(this.key())));
  }
}

/** What was kept; nothing of anything else. */
export function readViews(text: string | null): (readonly [string, KeptView])[] {
  if (text === null) return [];
  try {
    const kept = JSON.parse(text) as unknown;
    if (!Array.isArray(kept)) return [];
    return kept.flatMap((entry: unknown): (readonly [string, KeptView])[] => {
      if (!Array.isArray(entry) || typeof entry[0] !== 'string') return [];
      const { plan, model, heights } = (entry[1] ?? {}) as Partial<Record<keyof KeptView, unknown>>;
      return isNumbers(plan, 3) && isNumbers(model, 6) && isNumbers(heights, 2)
        ? [[entry[0], { plan, model, heights } as unknown as KeptView]]
        : [];
    });
  } catch {
    return [];
  }
}

/** Numbers of an address such as '1,2.5,-3'; undefined unless there are exactly so many. */
export function numbersOf(text: string | null | undefined, count: number): number[] | undefined {
  const numbers = (text ?? '').split(',').map(Number);
  return text && isNumbers(numbers, count) ? numbers : undefined;
}

function isNumbers(value: unknown, count: number): value is number[] {
  return Array.isArray(value) && value.length === count && value.every((one) => Number.isFinite(one));
}
