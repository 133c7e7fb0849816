import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { counted, type CellGrid } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';

/** How a level is cut and when cells load, as one sentence with blanks. */
@Component({
  selector: 'sv-cell-rules',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>
      {{ what() }} of
      <sv-number-field label="cell size" [value]="grid().sizeMetres" [least]="1" [most]="10000" (kept)="changed.emit({ sizeMetres: $event })" /> m · load within
      <sv-number-field label="load within" [value]="grid().loadMetres" [least]="0" [most]="10000" (kept)="changed.emit({ loadMetres: $event })" /> m · unload beyond
      <sv-number-field label="unload beyond" [value]="grid().dropMetres" [least]="0" [most]="20000" (kept)="changed.emit({ dropMetres: $event })" /> m · must be loaded
      within <sv-number-field label="must be loaded within" [value]="grid().readyMetres" [least]="0" [most]="10000" (kept)="changed.emit({ readyMetres: $event })" /> m
    </p>
  `,
  styles: `
    p {
      line-height: 28px;
    }
    sv-number-field {
      display: inline-block;
      width: 52px;
      vertical-align: middle;
    }
  `,
})
export class CellRules {
  readonly grid = input.required<CellGrid>();
  /** Cells with content, once they are counted. */
  readonly count = input<number>();
  readonly what = computed(() => {
    const count = this.count();
    // A template makes null of what is not there.
    return typeof count === 'number' ? counted(count, 'cell') : 'Cells';
  });
  readonly changed = output<Partial<Pick<CellGrid, 'sizeMetres' | 'loadMetres' | 'dropMetres' | 'readyMetres'>>>();
}
