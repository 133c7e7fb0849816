import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { TurnDegrees, Vector3 } from '@stravel/core';
import { ToolMarkDrawing } from '../../../../ui/tool-mark';
import type { ToolMarkName } from '../../../../ui/tool-marks';
import { NumberField } from '../../../../ui/number-field';
import { ColumnSection } from '../../../../level-desk/column-section';
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
const TURNS = ['yaw', 'pitch', 'roll'];

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
    ...(turn ? [{ field: 'turn', name: 'Rotation', axes: TURNS, value: turn, least: -36000 } as const] : []),
    ...(size ? [{ field: 'size', name: 'Size', axes: XYZ, value: size, least: 0.001 } as const] : []),
  ];
}

/** Exact numbers of one thing, and what else its kind has. */
@Component({
  selector: 'sv-item-card',
  imports: [ColumnSection, Help, NumberField, ToolMarkDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header class="card-head">
      @if (mark(); as one) {
        <sv-tool-mark [mark]="one" />
      }
      <h2 [title]="heading()" [class.visually-hidden]="name() !== undefined">{{ heading() }}</h2>
      @if (name() !== undefined) {
        <input
          #own
          class="name"
          maxlength="200"
          placeholder="no name"
          [attr.aria-label]="'Name of the ' + mark()"
          [title]="heading()"
          [value]="name()"
          [disabled]="disabled()"
          (change)="named.emit(own.value)"
          (keydown.enter)="own.blur()"
        />
      }
      <span class="soft" [title]="note()">{{ note() }}</span>
      <sv-help about="layout/tools" what="objects" />
    </header>
    @if (rows().length > 0) {
      <sv-section heading="Transform">
        <div class="rows">
          @for (row of rows(); track row.field) {
            <span>{{ row.name }}</span>
            @for (axis of row.axes; track axis; let k = $index) {
              <sv-number-field
                [label]="row.name + ' ' + axis"
                [axis]="letters[k]"
                [value]="row.value[k]"
                [least]="row.least"
                [disabled]="disabled()"
                (kept)="kept.emit({ field: row.field, axis: k, value: $event })"
              />
            }
            <span class="soft">{{ row.field === 'turn' ? '°' : 'm' }}</span>
          }
        </div>
        <ng-content />
      </sv-section>
    }
  `,
  styleUrl: './numbers-card.scss',
})
export class NumbersCard {
  readonly heading = input.required<string>();
  readonly note = input('');
  /** Of what it is, before its heading. */
  readonly mark = input<ToolMarkName>();
  /** Its name, to be changed in the head; undefined for what has none. */
  readonly name = input<string>();
  readonly named = output<string>();
  readonly rows = input.required<readonly NumberRow[]>();
  readonly disabled = input(false);
  readonly letters = XYZ;
  readonly kept = output<KeptNumber>();
}
