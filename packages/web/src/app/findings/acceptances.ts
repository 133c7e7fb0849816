import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { RECORDS_DOCUMENT, counted, type Finding } from '@stravel/core';
import { recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { create, remove } from '../edits/operations';
import { Session } from '../session';
import { Dialogs } from '../ui/dialogs';
import { AcceptDialog } from './accept-dialog';

/** Accepts findings with a reason, until a date. */
@Injectable({ providedIn: 'root' })
export class Acceptances {
  private readonly dialogs = inject(Dialogs);
  private readonly edits = inject(EditLog);
  private readonly session = inject(Session);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  /** Asks for the reason and the date. @returns whether they were accepted */
  async ask(findings: readonly Finding[]): Promise<boolean> {
    const accepted = await this.dialogs.open(AcceptDialog, findings.length);
    if (!accepted) return false;
    const person = this.session.person()?.name ?? '';
    const operations = findings.flatMap(({ id }) => {
      const known = this.tables().acceptance[id];
      return [
        ...(known ? [remove(RECORDS_DOCUMENT, 'acceptance', known)] : []),
        create(RECORDS_DOCUMENT, 'acceptance', { id, ...accepted, person }),
      ];
    });
    await this.edits.commit(`accept ${counted(findings.length, 'finding')}`, operations);
    return true;
  }
}
