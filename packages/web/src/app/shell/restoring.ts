import { Injectable, inject, signal } from '@angular/core';
import { Notices } from '../ui/notices';
import { Router } from '@angular/router';
import { ITEMS, RECORDS, acceptOf, errorText, isItemKind, type KindChanges, type LooseEndNotes } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { EditLog } from '../edits/edit-log';
import { Session } from '../session';
import { Ask } from '../ui/ask';
import { faultOfFile } from '../ui/chosen-file';

const ARCHIVES = ['archive'] as const;

/** Reads archives back, as new collections or into the open one. */
@Injectable({ providedIn: 'root' })
export class Restoring {
  /** What is offered to be chosen. */
  readonly files = acceptOf(ARCHIVES);
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly notices = inject(Notices);
  private readonly edits = inject(EditLog);
  private readonly ask = inject(Ask);
  readonly isBusy = signal(false);

  /** Shows what an archive would change in the open collection, then makes it so by one edit. */
  async restoreInto(file: File | undefined): Promise<void> {
    const collection = this.session.collection();
    if (!collection) return;
    await this.reading(file, async (archive) => {
      await this.edits.settled();
      const preview = await this.api.previewRestore(collection.id, archive);
      if (preview.operations === 0) {
        this.notices.show(`${collection.name} already has all of it: nothing would change.`, 6000);
        return;
      }
      const text = `${preview.changes.map(changesText).join('. ')}. All of it becomes one edit that you can undo.${looseText(preview.loose)}`;
      const notes = looseNotes(preview.loose);
      if (
        !(await this.ask.for({
          title: `Restore ${archive.name} into ${collection.name}?`,
          text,
          notes,
          command: 'Restore',
          questions: [],
        }))
      )
        return;
      await this.api.restoreInto(collection.id, archive, preview.edit, await this.edits.personAsked());
      this.notices.show(`${archive.name} was restored into ${collection.name}. You can undo it.`, 8000);
    });
  }

  async restore(file: File | undefined): Promise<void> {
    await this.reading(file, async (archive) => {
      const made = await this.api.restore(archive);
      await this.session.refreshCollections();
      this.notices.show(
        `${made.name} was restored as a new collection.${[looseText(made.loose), ...looseNotes(made.loose)].join(' ')}`,
        made.loose.count === 0 ? 6000 : 0,
      );
      await this.router.navigate(['/']);
    });
  }

  /** Reads one archive at a time; says why when it was not restored. */
  private async reading(file: File | undefined, read: (archive: File) => Promise<void>): Promise<void> {
    if (!file || this.isBusy()) return;
    this.isBusy.set(true);
    try {
      await refuseOthers(file);
      await read(file);
    } catch (error) {
      this.notices.show(`${file.name} was not restored. ${errorText(error)}`);
    } finally {
      this.isBusy.set(false);
    }
  }
}

/** @throws Error saying what a file is that is no archive */
async function refuseOthers(file: File): Promise<void> {
  const fault = await faultOfFile(file, ARCHIVES);
  if (fault) throw new Error(fault);
}

/** How many loose ends are told on the page one by one. */
const LOOSE_TOLD = 3;

/** Says that some references of an archive lead nowhere; '' when all lead somewhere. */
function looseText({ count }: LooseEndNotes): string {
  return count === 0
    ? ''
    : ` In the archive ${count === 1 ? 'one reference leads' : `${count} references lead`} nowhere:`;
}

function looseNotes({ count, first }: LooseEndNotes): string[] {
  const told = first.slice(0, LOOSE_TOLD);
  return count > told.length ? [...told, `and ${count - told.length} more`] : told;
}

/** For example "Placements: 2 added, 1 changed". */
function changesText({ kind, added, changed, removed }: KindChanges): string {
  const parts = [
    [added, 'added'],
    [changed, 'changed'],
    [removed, 'removed'],
  ].flatMap(([count, word]) => (count === 0 ? [] : [`${count} ${word}`]));
  const name = (isItemKind(kind) ? ITEMS[kind] : RECORDS[kind]).words.many;
  return `${name[0].toUpperCase()}${name.slice(1)}: ${parts.join(', ')}`;
}
