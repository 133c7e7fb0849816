import { ChangeDetectionStrategy, Component, computed, signal, type Signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { valueText } from './patch-text';
import { isJsonTable, type PatchState } from '@stravel/core';
import { Dialog } from '../../../ui/dialog';

export interface PatchesData {
  readonly stratum: string;
  readonly level: string;
  /** How many levels share the stratum. */
  readonly reach: number;
  /** As they stand now. */
  readonly states: Signal<readonly PatchState[]>;
  /** What a thing is called. */
  readonly nameOf: (state: PatchState) => string;
  readonly revert: (states: readonly PatchState[]) => void;
  /** Takes the shared values of now as seen. */
  readonly keep: (state: PatchState) => void;
  readonly push: (state: PatchState) => void;
  readonly goTo: (state: PatchState) => void;
}

/** Local changes of a level in a shared stratum: compared with what is shared, kept, dropped or made everywhere. */
@Component({
  selector: 'sv-patches-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Local changes to {{ data.stratum }} in {{ data.level }}</h2>
    <mat-dialog-content>
      <table>
        @for (state of data.states(); track state.patch.id) {
          <tr [class.open]="open() === state.patch.id">
            <td>
              <span class="command" [class]="'command ' + state.command">{{ state.command }}</span>
            </td>
            <td>
              <button class="plain" [attr.aria-expanded]="open() === state.patch.id" (click)="open.set(open() === state.patch.id ? '' : state.patch.id)">
                {{ data.nameOf(state) }}
              </button>
              @if (state.isIdle) {
                <span class="near">the shared object was deleted; this local change does nothing</span>
              } @else if (state.changedSince.length > 0) {
                <span class="near">the shared {{ state.changedSince.join(', ') }} has changed since</span>
              }
            </td>
            <td class="acts">
              @if (state.command !== 'hidden' && !state.isIdle) {
                <button class="chip" (click)="leaveTo(state)">Go to</button>
              }
              @if (state.changedSince.length > 0) {
                <button class="chip" title="Keep it and stop comparing with the older shared value" [attr.aria-label]="'Keep ' + data.nameOf(state) + ' here'" (click)="data.keep(state)">Keep here</button>
              }
              <button class="chip" [attr.aria-label]="'Use the shared ' + data.nameOf(state)" (click)="data.revert([state])">{{ state.isIdle ? 'Delete' : 'Use the shared one' }}</button>
              @if (!state.isIdle) {
                <button class="chip" [attr.aria-label]="'Change ' + data.nameOf(state) + ' everywhere'" [title]="'In all ' + data.reach + ' levels'" (click)="data.push(state)">Change everywhere</button>
              }
            </td>
          </tr>
          @if (open() === state.patch.id) {
            <tr>
              <td></td>
              <td colspan="2">
                <table class="compare">
                  <tr>
                    <th></th>
                    <th>shared now</th>
                    <th>{{ data.level }}</th>
                  </tr>
                  @for (line of lines(state); track line.field) {
                    <tr>
                      <th>{{ line.field }}</th>
                      <td class="mono">{{ line.shared }}</td>
                      <td class="mono">{{ line.own }}</td>
                    </tr>
                  }
                </table>
              </td>
            </tr>
          }
        } @empty {
          <tr>
            <td class="soft">No local changes: {{ data.stratum }} is the same in all {{ data.reach }} levels.</td>
          </tr>
        }
      </table>
    </mat-dialog-content>
    <mat-dialog-actions>
      @if (many()) {
        <button class="chip" (click)="data.revert(data.states())">Use the shared ones ({{ data.states().length }})</button>
      }
      <button class="chip strong" mat-dialog-close cdkFocusInitial>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    table {
      width: 100%;
      border-collapse: collapse;
    }
    td,
    th {
      padding: 4px 6px 4px 0;
      text-align: left;
      vertical-align: top;
      font-weight: 400;
    }
    tr {
      border-bottom: 1px solid var(--line);
    }
    .acts {
      white-space: nowrap;
      text-align: right;
    }
    .acts .chip {
      margin-left: 4px;
    }
    .command {
      color: var(--soft-ink);
    }
    .compare th {
      color: var(--soft-ink);
    }
    .near {
      display: block;
      font-size: 12px;
    }
  `,
})
export class PatchesDialog extends Dialog<PatchesData> {
  static readonly size = { width: '720px', maxWidth: '94vw' };
  readonly open = signal('');
  readonly many = computed(() => this.data.states().length > 1);

  leaveTo(state: PatchState): void {
    this.dialog.close();
    this.data.goTo(state);
  }

  lines({ patch, shared }: PatchState): { field: string; shared: string; own: string }[] {
    if (patch.change === 'hidden') return [{ field: 'object', shared: shared ? 'exists' : 'deleted', own: 'hidden' }];
    return Object.entries(patch.fields)
      .filter(([field]) => field !== 'id')
      .flatMap(([field, own]) => {
        const now = shared?.[field] ?? null;
        if (!isJsonTable(own)) return [{ field, shared: valueText(now), own: valueText(own) }];
        return Object.entries(own).map(([key, value]) => ({
          field: `${field}: ${key}`,
          shared: valueText(isJsonTable(now) ? (now[key] ?? null) : null),
          own: valueText(value),
        }));
      });
  }
}
