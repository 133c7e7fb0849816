import { COLOUR_NAMES } from '../../../../ui/colour-names';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { GROUP_COLOURS, SQUARE_MARKS, SQUARE_ROLES, type MovementRules, type SquareCode } from '@stravel/core';
import { NumberField } from '../../../../ui/number-field';
import { NumberFields } from '../../../../ui/number-fields';
import { Dialog } from '../../../../ui/dialog';

export interface LegendData {
  readonly legend: readonly SquareCode[];
  readonly movement: MovementRules;
}

const CODE = /^[A-Za-z][A-Za-z0-9]{0,7}$/;

/** What the codes of tile floors mean in this collection, and how one moves on them. */
@Component({
  selector: 'sv-legend-dialog',
  imports: [MatDialogModule, NumberField],
  providers: [NumberFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Legend of the tile floors</h2>
    <mat-dialog-content>
      <div class="codes" tabindex="0" role="region" aria-label="Codes">
        <table>
          <tr>
            @for (head of heads; track head) {
              <th>{{ head }}</th>
            }
          </tr>
          @for (one of legend(); track $index; let i = $index) {
            <tr>
              <td><input #code class="cell mono short" aria-label="Code" maxlength="8" [value]="one.code" (input)="put(i, { code: code.value })" /></td>
              <td><input #name class="cell" aria-label="Name" maxlength="200" [value]="one.name" (input)="put(i, { name: name.value })" /></td>
              <td>
                <select #colour class="cell" aria-label="Colour" (change)="put(i, { colour: $any(colour.value) })">
                  @for (value of colours; track value) {
                    <option [value]="value" [selected]="value === one.colour">{{ colourNames[value] }}</option>
                  }
                </select>
              </td>
              <td>
                <select #mark class="cell" aria-label="Mark" (change)="put(i, { mark: $any(mark.value) })">
                  @for (value of marks; track value) {
                    <option [selected]="value === one.mark">{{ value }}</option>
                  }
                </select>
              </td>
              <td><input type="checkbox" aria-label="May be entered" [checked]="one.mayEnter" (change)="put(i, { mayEnter: !one.mayEnter })" /></td>
              <td><sv-number-field label="Visits before it disappears; 0 = stays" [value]="one.visits" [least]="0" [most]="999" (kept)="put(i, { visits: whole($event) })" /></td>
              <td><sv-number-field label="Height in steps" [value]="one.height" [least]="-999" [most]="999" (kept)="put(i, { height: whole($event) })" /></td>
              <td>
                <select #role class="cell" aria-label="Role" (change)="put(i, { role: $any(role.value) })">
                  @for (value of roles; track value) {
                    <option [selected]="value === one.role">{{ value }}</option>
                  }
                </select>
              </td>
              <td><button class="plain" [attr.aria-label]="'Take ' + one.code + ' out'" (click)="remove(i)">×</button></td>
            </tr>
          } @empty {
            <tr>
              <td colspan="9" class="soft">Empty. Add the first code: a letter for a walkable square.</td>
            </tr>
          }
        </table>
      </div>
      <button class="chip" (click)="add()">Add a code</button>
      <h4>Movement rules</h4>
      <div class="rules">
        <label
          >Neighbours
          <select #around class="cell" (change)="move({ neighbours: around.value === '8' ? 8 : 4 })">
            <option value="4" [selected]="movement().neighbours === 4">the four sides</option>
            <option value="8" [selected]="movement().neighbours === 8">sides and corners</option>
          </select></label
        >
        <span class="pair">Steps up <sv-number-field label="Steps up" [value]="movement().upSteps" [least]="0" [most]="1000" (kept)="move({ upSteps: whole($event) })" /></span>
        <span class="pair"
          >Steps down <sv-number-field label="Steps down" [value]="movement().downSteps" [least]="0" [most]="1000" (kept)="move({ downSteps: whole($event) })"
        /></span>
        <label><input type="checkbox" [checked]="movement().mayFall" (change)="move({ mayFall: !movement().mayFall })" /> may fall to the floor below</label>
      </div>
      <p class="soft">
        Override one square: <code>f^2</code> height 2, <code>f*1</code> disappears after one visit, <code>f@a</code> linked to the other <code>@a</code>;
        <code>.</code> is a hole.
      </p>
      @if (fault()) {
        <p class="over" role="alert">{{ fault() }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="fault() !== ''" (click)="keep()">Save</button>
    </mat-dialog-actions>
  `,
  styles: `
    .codes {
      max-height: 320px;
      overflow: auto;
      margin-bottom: 8px;
    }
    th {
      text-align: left;
      font-weight: 400;
      color: var(--soft-ink);
    }
    td {
      padding: 2px 4px 2px 0;
    }
    td sv-number-field {
      width: 52px;
    }
    .short {
      width: 64px;
    }
    h4 {
      margin: 12px 0 4px;
    }
    .rules {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
    }
    .pair {
      display: flex;
      gap: 6px;
      align-items: center;
    }
    .pair sv-number-field {
      width: 52px;
    }
  `,
})
export class LegendDialog extends Dialog<LegendData, LegendData> {
  static readonly size = { width: '860px', maxWidth: '94vw' };
  private readonly numbers = inject(NumberFields);
  readonly heads = ['Code', 'Name', 'Colour', 'Mark', 'May enter', 'Visits', 'Height', 'Role', ''];
  readonly colours = GROUP_COLOURS;
  readonly colourNames = COLOUR_NAMES;
  readonly marks = SQUARE_MARKS;
  readonly roles = SQUARE_ROLES;
  readonly legend = signal(this.data.legend);
  readonly movement = signal(this.data.movement);
  readonly fault = computed(() => {
    const codes = this.legend().map(({ code }) => code);
    const bad = this.legend().find(({ code, name }) => !CODE.test(code) || name.trim() === '');
    if (bad)
      return CODE.test(bad.code)
        ? `The code ${bad.code} needs a name.`
        : `“${bad.code}” is not a code: a letter first, then letters and digits, eight at most.`;
    const twice = codes.find((code, i) => codes.indexOf(code) !== i);
    return twice === undefined ? '' : `The code ${twice} is in the legend twice.`;
  });

  keep(): void {
    if (this.numbers.settle()) this.dialog.close({ legend: this.legend(), movement: this.movement() });
  }

  whole(value: number): number {
    return Math.round(value);
  }

  put(index: number, over: Partial<SquareCode>): void {
    this.legend.update((legend) => legend.map((one, i) => (i === index ? { ...one, ...over } : one)));
  }

  move(over: Partial<MovementRules>): void {
    this.movement.update((movement) => ({ ...movement, ...over }));
  }

  remove(index: number): void {
    this.legend.update((legend) => legend.filter((_one, i) => i !== index));
  }

  add(): void {
    const taken = new Set(this.legend().map(({ code }) => code));
    const code = 'abcdefghijklmnopqrstuvwxyz'.split('').find((letter) => !taken.has(letter)) ?? 'new';
    this.legend.update((legend) => [
      ...legend,
      { code, name: code, colour: 'none', mark: 'none', mayEnter: true, visits: 0, height: 0, role: 'none' },
    ]);
  }
}
