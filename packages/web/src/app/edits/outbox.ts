import { Injectable, inject } from '@angular/core';
import { FIRST_MODEL_VERSION, MODEL_VERSION, UPGRADES, type Edit } from '@stravel/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { PageAge } from '../api/page-age';

/** An edit that the server has not acknowledged yet. */
export interface WaitingEdit {
  /** Order of making, across tabs. */
  readonly place: number;
  readonly collection: string;
  readonly edit: Edit;
  /** Version of the model that the edit is written in; absent for the first. */
  readonly model?: number;
}

/** Waiting edits as this version would have written them. Those of a newer one are left out: the page that wrote them sends them. */
export function upToDate(entries: readonly WaitingEdit[]): WaitingEdit[] {
  return entries
    .filter(({ model }) => (model ?? FIRST_MODEL_VERSION) <= MODEL_VERSION)
    .map((entry) => {
      const operations = UPGRADES.operations(entry.edit.operations, entry.model ?? FIRST_MODEL_VERSION);
      return { ...entry, edit: { ...entry.edit, operations }, model: MODEL_VERSION };
    });
}

interface OutboxSchema extends DBSchema {
  /** By place, then by id: two tabs may make an edit in the same moment. */
  edits: { key: [number, string]; value: WaitingEdit };
}

/** Edits kept in the browser's own database until they are acknowledged, so that a closed tab loses nothing. */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly age = inject(PageAge);
  private database: Promise<IDBPDatabase<OutboxSchema>> | undefined;
  private lastPlace = 0;

  /** Opens the database ahead of the first question, which says what fails. */
  prepare(): void {
    this.open().catch(() => undefined);
  }

  async waiting(collection: string): Promise<WaitingEdit[]> {
    const all = await (await this.open()).getAll('edits');
    const own = all.filter((entry) => entry.collection === collection);
    own.forEach(({ model }) => this.age.hear(model));
    return upToDate(own);
  }

  /** An entry behind all others; not yet kept. */
  entry(collection: string, edit: Edit): WaitingEdit {
    const place = Math.max(Date.now() * 1000, this.lastPlace + 1);
    this.lastPlace = place;
    return { place, collection, edit, model: MODEL_VERSION };
  }

  async put(entry: WaitingEdit): Promise<void> {
    await (await this.open()).put('edits', entry, [entry.place, entry.edit.id]);
  }

  async remove(entry: WaitingEdit): Promise<void> {
    await (await this.open()).delete('edits', [entry.place, entry.edit.id]);
  }

  private open(): Promise<IDBPDatabase<OutboxSchema>> {
    this.database ??= openDB<OutboxSchema>('stravel-outbox', 1, {
      upgrade: (db) => void db.createObjectStore('edits'),
    });
    return this.database;
  }
}
