import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { TurnDegrees, Vector3 } from '@stravel/core';
import { NumberField } from '../../../../ui/number-field';
import { Help } from '../../../../guide/help';

/** Three numbers of a thing. */
export interface NumberRow {
  readonly field: 'position' | 'turn' | 'size';
  readonly name: string;
  readonly axes: readonly string[];
  readonly value: readonly number[];
  readonly least: number;
}

/** One of the three numbers was changed. */
export interface KeptNumber {
  readonly field: NumberRow['field'];
  readonly axis: number;
  readonly value: number;
}

const XYZ = ['X', 'Y', 'Z'];

/** The numbers of what stands in the level. @param turn, size absent where it has none */
export function numberRows({
  position,
  turn,
  size,
}: {
  readonly position: Vector3;
  readonly turn?: TurnDegrees | undefined;
  readonly size?: Vector3 | undefined;
}): NumberRow[] {
  return [
    { field: 'position', name: 'Position', axes: XYZ, value: position, least: -100000 },
    ...(turn
      ? [{ field: 'turn', name: 'Rotation', axes: ['yaw', 'pitch', 'roll'], value: turn, least: -36000 } as const]
      : []),
    ...(size ? [{ field: 'size', name: 'Size', axes: XYZ, value: size, least: 0.001 } as const] : []),
  ];
}

/** Exact numbers of one thing, and what else its kind has. */
@Component({
  selector: 'sv-item-card',
  imports: [Help, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>{{ heading() }}</h2> <sv-help about="layout/tools" what="objects" />
      <span class="soft">{{ note() }}</span>
    </header>
    <div class="rows">
      @for (row of rows(); track row.field) {
        <span>{{ row.name }}</span>
        @for (axis of row.axes; track axis; let k = $index) {
          <sv-number-field
            [label]="row.name + ' ' + axis"
            [value]="row.value[k]"
            [least]="row.least"
            [disabled]="disabled()"
            (kept)="kept.emit({ field: row.field, axis: k, value: $event })"
          />
        }
      }
    </div>
    <ng-content />
  `,
  styleUrl: './numbers-card.scss',
  host: { class: 'card' },
})
export class NumbersCard {
  readonly heading = input.required<string>();
  readonly note = input('');
  readonly rows = input.required<readonly NumberRow[]>();
  readonly disabled = input(false);
  readonly kept = output<KeptNumber>();
}
