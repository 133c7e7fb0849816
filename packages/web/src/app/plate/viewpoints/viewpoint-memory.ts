import { Injectable, computed, inject, signal } from '@angular/core';
import { Session } from '../../session';
import { readViews, type KeptView } from '../view-memory';

/** A look at a level that somebody gave a name. */
export interface Viewpoint {
  readonly name: string;
  readonly view: KeptView;
}

/** More than that is not kept of one level. */
export const MOST_VIEWPOINTS = 40;
export const LONGEST_NAME = 60;

/** The looks at levels that were kept under a name, in this browser. */
@Injectable({ providedIn: 'root' })
export class ViewpointMemory {
  private readonly session = inject(Session);
  private readonly key = computed(() => `stravel.viewpoints.${this.session.collection()?.id ?? ''}`);
  private readonly version = signal(0);

  /** Those of a level, in the order in which they were kept. */
  of(level: string): readonly Viewpoint[] {
    this.version();
    return this.all().flatMap(([of, view]) => {
      const [id, name] = split(of);
      return id === level ? [{ name, view }] : [];
    });
  }

  /** Keeps a look; one of the same name is replaced where it is. @returns false where there is no room for it */
  keep(level: string, { name, view }: Viewpoint): boolean {
    const all = new Map(this.all());
    const of = keyOf(level, name);
    if (!all.has(of) && this.of(level).length >= MOST_VIEWPOINTS) return false;
    this.write([...all.set(of, view)]);
    return true;
  }

  drop(level: string, name: string): void {
    this.write(this.all().filter(([of]) => of !== keyOf(level, name)));
  }

  private all(): (readonly [string, KeptView])[] {
    return readViews(localStorage.getItem(this.key()));
  }

  private write(all: readonly (readonly [string, KeptView])[]): void {
    localStorage.setItem(this.key(), JSON.stringify(all));
    this.version.update((one) => one + 1);
  }
}

/** A name is one line. */
const keyOf = (level: string, name: string): string => `${level}\n${name}`;

function split(of: string): readonly [string, string] {
  const end = of.indexOf('\n');
  return [of.slice(0, end), of.slice(end + 1)];
}
