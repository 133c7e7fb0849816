import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { Device, Field, ReadinessRules } from '@stravel/core';
import { Dialog } from '../ui/dialog';

export interface ReadinessData {
  readonly rules: ReadinessRules;
  readonly fields: readonly Field[];
  readonly devices: readonly Device[];
  /** The level that one wants to know of, and what it lacks as things stand. */
  readonly level: { readonly name: string; readonly faults: () => readonly string[] } | undefined;
}

const SWITCHES = [
  { id: 'spawn', text: 'it has a spawn' },
  { id: 'exit', text: 'it has an exit' },
  { id: 'code', text: 'it has a code, and no other level has it' },
  { id: 'bakes', text: 'its bakes are fresh' },
  { id: 'findings', text: 'it has no open findings that are errors' },
] as const;

/** What a collection asks of a level before it counts as ready. */
@Component({
  selector: 'sv-readiness-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Readiness rules</h2>
    <mat-dialog-content>
      @if (data.level; as level) {
        @if (level.faults().length > 0) {
          <p>
            <strong>{{ level.name }}</strong> is not ready:
          </p>
          <ul class="near">
            @for (fault of level.faults(); track fault) {
              <li>{{ fault }}</li>
            }
          </ul>
        } @else {
          <p class="good">
            <strong>{{ level.name }}</strong> is ready.
          </p>
        }
      }
      <h4>A level is ready when</h4>
      @for (one of switches; track one.id) {
        <label><input type="checkbox" [checked]="rules()[one.id]" (change)="flip(one.id)" /> {{ one.text }}</label>
      }
      <h4>and these fields are filled</h4>
      <div class="many">
        @for (field of data.fields; track field.id) {
          <label><input type="checkbox" [checked]="rules().fields.includes(field.id)" (change)="toggle('fields', field.id)" /> {{ field.name }}</label>
        } @empty {
          <span class="soft">The collection has no fields yet.</span>
        }
      </div>
      <h4>and it is within budget on</h4>
      <div class="many">
        @for (device of data.devices; track device.id) {
          <label><input type="checkbox" [checked]="rules().devices.includes(device.id)" (change)="toggle('devices', device.id)" /> {{ device.name }}</label>
        }
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Close</button>
      <button class="chip strong" [disabled]="rules() === data.rules" (click)="dialog.close(rules())">Save rules</button>
    </mat-dialog-actions>
  `,
  styles: `
    h4 {
      margin: 12px 0 2px;
    }
    label {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 26px;
    }
    .many {
      display: grid;
      grid-template-columns: 1fr 1fr 1fr;
    }
    ul {
      margin: 4px 0;
    }
  `,
})
export class ReadinessDialog extends Dialog<ReadinessData, ReadinessRules> {
  static readonly size = { width: '620px' };
  readonly switches = SWITCHES;
  readonly rules = signal(this.data.rules);

  flip(part: (typeof SWITCHES)[number]['id']): void {
    this.rules.update((rules) => ({ ...rules, [part]: !rules[part] }));
  }

  toggle(part: 'fields' | 'devices', id: string): void {
    this.rules.update((rules) => ({
      ...rules,
      [part]: rules[part].includes(id) ? rules[part].filter((one) => one !== id) : [...rules[part], id],
    }));
  }
}
