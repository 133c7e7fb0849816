import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { heldAt, type PlayBeginning, type RecordTables } from '@stravel/core';
import { recordsFeature } from './document/records/records-store';
import { Session } from './session';

/** From where one person's tests begin. */
export interface Beginning extends PlayBeginning {
  /** Entries that one already has, by id of the register. */
  readonly entries: Readonly<Record<string, readonly string[]>>;
}

/** "Start here": from where a person's own tests begin. It is nobody else's and never changes the collection. */
@Injectable({ providedIn: 'root' })
export class StartHere {
  private readonly session = inject(Session);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly key = computed(
    () => `stravel.start-here.${this.session.collection()?.id ?? ''}.${this.session.person()?.id ?? ''}`,
  );
  private readonly kept = signal<Beginning | undefined>(undefined);

  /** What is set, as far as it is still there; undefined while tests begin at the collection's own start. */
  readonly beginning = computed(() => {
    const kept = this.kept();
    return kept && stillThere(kept, this.tables());
  });
  readonly levelName = computed(() => this.tables().level[this.beginning()?.level ?? '']?.name ?? '');

  constructor() {
    effect(() => this.kept.set(readBeginning(localStorage.getItem(this.key()))));
  }

  set(beginning: Beginning | undefined): void {
    if (beginning) localStorage.setItem(this.key(), JSON.stringify(beginning));
    else localStorage.removeItem(this.key());
    this.kept.set(beginning);
  }
}

/** What was kept; undefined for anything else. */
export function readBeginning(text: string | null): Beginning | undefined {
  if (text === null) return undefined;
  try {
    const kept = JSON.parse(text) as Partial<Record<keyof Beginning, unknown>> | null;
    if (typeof kept?.level !== 'string') return undefined;
    const values = Object.entries((kept.values ?? {}) as Record<string, unknown>).filter(
      (pair): pair is [string, number] => Number.isFinite(pair[1]),
    );
    const entries = Object.entries((kept.entries ?? {}) as Record<string, unknown>).map(
      ([register, ids]): [string, readonly string[]] => [
        register,
        Array.isArray(ids) ? ids.filter((id): id is string => typeof id === 'string') : [],
      ],
    );
    return { level: kept.level, values: Object.fromEntries(values), entries: Object.fromEntries(entries) };
  } catch {
    return undefined;
  }
}

function stillThere({ level, values, entries }: Beginning, tables: RecordTables): Beginning | undefined {
  const record = heldAt(tables.level, level);
  if (!record || record.binned !== null) return undefined;
  return {
    level,
    values: Object.fromEntries(Object.entries(values).filter(([id]) => Object.hasOwn(tables.carriedValue, id))),
    entries: Object.fromEntries(
      Object.entries(entries).flatMap(([register, ids]) =>
        Object.hasOwn(tables.register, register)
          ? [[register, ids.filter((id) => Object.hasOwn(tables.entry, id))]]
          : [],
      ),
    ),
  };
}
