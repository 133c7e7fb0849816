import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { Stratum } from '@stravel/core';
import { Dialog } from '../../../ui/dialog';

/** A stratum of other levels. */
export interface OfferedStratum {
  readonly stratum: Stratum;
  /** Names of the levels that have it. */
  readonly levels: readonly string[];
}

export interface AddSharedData {
  readonly level: string;
  readonly offered: readonly OfferedStratum[];
}

const MAX_SHOWN = 200;

/** Chooses strata of other levels, to be shared with them. */
@Component({
  selector: 'sv-add-shared-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Share strata with other levels</h2>
    <mat-dialog-content>
      <input #find class="cell wide" aria-label="Find a stratum or level" placeholder="Find a stratum or level" cdkFocusInitial [value]="text()" (input)="text.set(find.value)" />
      <ul tabindex="0" role="group" aria-label="Strata of other levels">
        @for (one of shown(); track one.stratum.id) {
          <li>
            <label>
              <input type="checkbox" [checked]="chosen().has(one.stratum.id)" (change)="toggle(one.stratum.id)" />
              <span
                >{{ one.stratum.name }} <span class="soft">{{ one.stratum.role }}</span></span
              >
              <span class="soft">{{ one.stratum.owner === null ? 'shared by ' + one.levels.length + ': ' : 'owned by ' }}{{ one.levels.slice(0, 3).join(', ') }}</span>
            </label>
          </li>
        } @empty {
          <li class="soft">No other level has a matching stratum.</li>
        }
      </ul>
      @if (becoming(); as names) {
        <p class="near">{{ names }} will be shared from then on: changing it asks which levels to change.</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="chosen().size === 0" (click)="dialog.close([...chosen()])">Add {{ chosen().size || '' }} to {{ data.level }}</button>
    </mat-dialog-actions>
  `,
  styleUrl: '../../../ui/choice-list.scss',
  styles: `
    ul {
      margin: 8px 0;
      height: 300px;
    }
    label {
      display: grid;
      grid-template-columns: 20px minmax(0, 1fr) minmax(0, 1.4fr);
      gap: 6px;
      align-items: center;
      padding: 4px 0;
      border-bottom: 1px solid var(--line);
    }
  `,
})
export class AddSharedDialog extends Dialog<AddSharedData, readonly string[]> {
  static readonly size = { width: '640px' };
  readonly text = signal('');
  readonly chosen = signal<ReadonlySet<string>>(new Set());
  readonly shown = computed(() => {
    const wanted = this.text().trim().toLowerCase();
    return this.data.offered
      .filter(({ stratum, levels }) => [stratum.name, ...levels].some((name) => name.toLowerCase().includes(wanted)))
      .slice(0, MAX_SHOWN);
  });
  readonly becoming = computed(() =>
    this.data.offered
      .filter(({ stratum }) => stratum.owner !== null && this.chosen().has(stratum.id))
      .map(({ stratum }) => stratum.name)
      .join(', '),
  );

  toggle(id: string): void {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }
}
