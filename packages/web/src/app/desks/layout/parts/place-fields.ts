import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Vector3 } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';

/** The three numbers of a place. */
@Component({
  selector: 'sv-place-fields',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="soft">{{ label() }}</span>
    @for (axis of axes; track axis; let k = $index) {
      <sv-number-field [label]="label() + ' ' + axis" [value]="value()[k]" (kept)="put(k, $event)" />
    }
  `,
  styleUrl: '../../../ui/inline-row.scss',
  styles: `
    sv-number-field {
      width: 60px;
    }
  `,
})
export class PlaceFields {
  readonly label = input.required<string>();
  readonly value = input.required<Vector3>();
  readonly kept = output<Vector3>();
  readonly axes = ['X', 'Y', 'Z'];

  put(axis: number, value: number): void {
    this.kept.emit(this.value().map((old, k) => (k === axis ? value : old)) as unknown as Vector3);
  }
}
