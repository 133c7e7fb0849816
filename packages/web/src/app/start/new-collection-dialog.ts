import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { DEFAULT_RANKS, STANDARD_DEVICES, errorText } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { bytesText, countText } from '../ui/amount';
import { Dialog } from '../ui/dialog';

/** Asks what a new collection starts with, and makes it. Closes with its id. */
@Component({
  selector: 'sv-new-collection-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="create($event)">
      <h2 mat-dialog-title>New collection</h2>
      <mat-dialog-content>
        <div class="rows">
          <label for="name">Name</label>
          <input id="name" #name class="cell" maxlength="200" cdkFocusInitial autocomplete="off" [value]="wanted().name" (input)="put('name', name.value)" />
          <label for="ranks" title="What sets are called, from the top">Levels are grouped in</label>
          <input id="ranks" #ranks class="cell" autocomplete="off" [value]="wanted().ranks" (input)="put('ranks', ranks.value)" />
          <label for="set">First set</label>
          <input id="set" #set class="cell" maxlength="200" autocomplete="off" [value]="setName()" (input)="put('set', set.value)" />
        </div>
        <fieldset>
          <legend>Devices</legend>
          @for (device of devices; track device.id) {
            <label class="device">
              <input type="checkbox" [checked]="chosen().has(device.id)" (change)="toggle(device.id)" />
              <span>{{ device.name }}</span> <span class="soft">{{ limits(device.id) }}</span>
            </label>
          }
          <p class="soft">
            {{
              chosen().size === 0
                ? 'None yet: without a device there is no budget. Add one later on the Devices page.'
                : 'All three are simulated. Change their limits or add your own on the Devices page.'
            }}
          </p>
        </fieldset>
        @if (fault() || error()) {
          <p class="over" role="alert">{{ error() || fault() }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions>
        <button class="chip" type="button" mat-dialog-close>Cancel</button>
        <button class="chip strong" type="submit" [disabled]="isBusy()">Create collection</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    .rows {
      display: grid;
      grid-template-columns: 150px minmax(0, 1fr);
      gap: 8px;
      align-items: center;
      padding-top: 4px;
    }
    fieldset {
      margin: 16px 0 0;
      padding: 8px 12px 10px;
      border: 1px solid var(--line);
      display: grid;
      gap: 4px;
    }
    .device {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .over {
      margin-top: 10px;
    }
  `,
})
export class NewCollectionDialog extends Dialog<undefined, string> {
  static readonly size = { width: '520px' };
  private readonly api = inject(ApiClient);
  readonly devices = STANDARD_DEVICES;
  readonly wanted = signal<{ readonly name: string; readonly ranks: string; readonly set: string | undefined }>({
    name: '',
    ranks: DEFAULT_RANKS.join(', '),
    set: undefined,
  });
  readonly chosen = signal<ReadonlySet<string>>(new Set(STANDARD_DEVICES.map(({ id }) => id)));
  readonly isBusy = signal(false);
  readonly error = signal('');
  readonly fault = signal('');
  private readonly ranks = computed(() =>
    this.wanted()
      .ranks.split(',')
      .map((rank) => rank.trim())
      .filter((rank) => rank !== ''),
  );
  /** Follows the first rank until it is typed. */
  readonly setName = computed(() => this.wanted().set ?? `${this.ranks().at(0) ?? 'Set'} 1`);

  limits(id: string): string {
    const budget = STANDARD_DEVICES.find((device) => device.id === id)?.budget;
    return budget
      ? `${countText(budget.triangles)} triangles, ${countText(budget.drawCalls)} draw calls, ${bytesText(budget.memoryBytes)}`
      : '';
  }

  put(key: 'name' | 'ranks' | 'set', value: string): void {
    this.wanted.update((wanted) => ({ ...wanted, [key]: value }));
    this.fault.set('');
    this.error.set('');
  }

  toggle(id: string): void {
    this.chosen.update((chosen) => new Set(chosen.has(id) ? [...chosen].filter((one) => one !== id) : [...chosen, id]));
  }

  async create(event: Event): Promise<void> {
    event.preventDefault();
    const name = this.wanted().name.trim();
    const ranks = this.ranks();
    const set = this.setName().trim();
    if (name === '') return this.fault.set('The collection needs a name.');
    if (ranks.length === 0 || ranks.length > 8)
      return this.fault.set(`Levels are grouped in 1 to 8 ranks, with commas between them; there are ${ranks.length}.`);
    if (set === '') return this.fault.set('The first set needs a name.');
    this.isBusy.set(true);
    try {
      const made = await this.api.createCollection({ name, ranks, set, devices: [...this.chosen()] });
      this.dialog.close(made.id);
    } catch (error) {
      this.error.set(errorText(error));
    } finally {
      this.isBusy.set(false);
    }
  }
}
