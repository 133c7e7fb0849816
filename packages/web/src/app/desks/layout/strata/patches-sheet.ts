import { ChangeDetectionStrategy, Component, computed, signal, type Signal } from '@angular/core';
import { valueText } from './patch-text';
import { isJsonTable, type PatchState } from '@stravel/core';
import { SheetHead } from '../../../level-desk/sheet-head';
import { Sheet } from '../../../level-desk/sheets';

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
  selector: 'sv-patches-sheet',
  imports: [SheetHead],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-sheet-head [heading]="'Local changes to ' + data.stratum" (left)="close()" />
    <div class="body">
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
            <td>
              <div class="acts">
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
              </div>
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
    </div>
    @if (many()) {
      <div class="row">
        <button class="chip" (click)="data.revert(data.states())">Use the shared ones ({{ data.states().length }})</button>
      </div>
    }
  `,
  styleUrl: '../../../level-desk/sheet.scss',
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
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
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
export class PatchesSheet extends Sheet<PatchesData> {
  readonly open = signal('');
  readonly many = computed(() => this.data.states().length > 1);

  leaveTo(state: PatchState): void {
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
