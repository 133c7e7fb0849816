import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { heldAt, type Level, type LevelSet } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { setRecordField } from '../../../edits/operations';
import { binLevels } from '../level-edits';
import { Dialog } from '../../../ui/dialog';

/** What was deleted, with its content, ready to come back. */
@Component({
  selector: 'sv-bin-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Bin</h2>
    <mat-dialog-content>
      @for (entry of entries(); track entry.id) {
        <div class="entry">
          <span
            ><strong>{{ entry.name }}</strong> <span class="soft">{{ entry.what }}</span></span
          >
          <span class="mono soft">{{ entry.at.slice(0, 10) }}</span>
          <button class="chip" (click)="restore(entry.id)">Put back</button>
        </div>
      } @empty {
        <p class="soft">The bin is empty. What you delete comes here and can be put back.</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions><button class="chip" mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    .entry {
      display: grid;
      grid-template-columns: 1fr auto auto;
      gap: 14px;
      align-items: center;
      padding: 5px 0;
      border-bottom: 1px solid var(--line);
    }
  `,
})
export class BinDialog extends Dialog {
  static readonly size = { width: '560px' };
  private readonly edits = inject(EditLog);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  readonly entries = computed(() => {
    const of = (what: 'set' | 'level'): { id: string; name: string; what: 'set' | 'level'; at: string }[] =>
      Object.values<Level | LevelSet>(this.tables()[what])
        .filter(({ binned }) => binned !== null)
        .map(({ id, name, binned }) => ({ id, name, what, at: binned ?? '' }));
    return [...of('set'), ...of('level')].sort((a, b) => (a.at < b.at ? 1 : -1));
  });

  async restore(id: string): Promise<void> {
    const tables = this.tables();
    const level = heldAt(tables.level, id);
    if (level) {
      await this.edits.commit(`put back ${level.name}`, [...binLevels([level], null), ...this.setsAbove(level.set)]);
      return;
    }
    const set = tables.set[id];
    const together = Object.values(tables.level).filter((level) => level.set === id && level.binned === set.binned);
    await this.edits.commit(`put back ${set.name}`, [
      setRecordField('set', set, 'binned', null),
      ...binLevels(together, null),
      ...this.setsAbove(set.parent),
    ]);
  }

  /** Operations that bring back the binned sets over something that comes back. */
  private setsAbove(id: string | null): ReturnType<typeof binLevels> {
    const set = id === null ? undefined : this.tables().set[id];
    if (!set) return [];
    return [
      ...(set.binned === null ? [] : [setRecordField('set', set, 'binned', null)]),
      ...this.setsAbove(set.parent),
    ];
  }
}
