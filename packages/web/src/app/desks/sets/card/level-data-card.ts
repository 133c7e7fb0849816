import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import {
  counted,
  equalJson,
  heldAt,
  holdAgainst,
  isEmptyValue,
  setPathText,
  textInUnit,
  type FieldValue,
  type Level,
} from '@stravel/core';
import { Bakes } from '../../../bakes/bakes';
import { costsOf } from '../../../bakes/bakes-store';
import { BUDGET_OF, MEASURES, columnUnits, heldText } from '../../../bakes/core-bands';
import { markOf, markSign } from '../../../bakes/figure-mark';
import { PictureMaker } from '../../../bakes/pictures/picture-maker';
import { LevelPlaces } from '../../../desk/level-places';
import { recordsFeature, selectPlayNumbers } from '../../../document/records/records-store';
import { Help } from '../../../guide/help';
import { ColumnSection } from '../../../level-desk/column-section';
import { LevelFindings } from '../../../level-desk/level-card/level-findings';
import { Chevron } from '../../../ui/chevron';
import { FieldContext } from '../fields/field-context';
import { LevelHistories } from '../history/level-histories';
import { CellEditor } from '../parts/cell-editor';
import { cellText, cellValue, isReadOnly, type TableColumn } from '../table-rows';

/** More devices than that do not fit beside each other. */
const MOST_DEVICES = 3;

/** A level beside the table: its picture, fields in their groups, figures a device, findings, history. */
@Component({
  selector: 'sv-level-data-card',
  imports: [CellEditor, Chevron, ColumnSection, Help, LevelFindings, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './level-data-card.html',
  styleUrl: './level-data-card.scss',
})
export class LevelDataCard {
  private readonly store = inject(Store);
  private readonly bakes = inject(Bakes);
  readonly context = inject(FieldContext);
  readonly pictures = inject(PictureMaker);
  readonly histories = inject(LevelHistories);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  private readonly allDevices = this.store.selectSignal(recordsFeature.selectDevices);
  readonly level = input.required<Level | undefined>();
  /** All that the table could show. */
  readonly columns = input.required<readonly TableColumn[]>();
  readonly closed = output();
  readonly duplicated = output();
  /** Id of the desk in which it is to be opened. */
  readonly opened = output<string>();
  readonly changed = output<{ record: Level; column: TableColumn; value: FieldValue }>();
  readonly levelDesks = inject(LevelPlaces).desks;
  /** Id of the column whose value is typed; of another level none. */
  readonly editing = linkedSignal({ source: () => this.level()?.id, computation: () => '' });
  readonly isReadOnly = isReadOnly;

  readonly number = computed(() => this.numbers().get(this.level()?.id ?? '') ?? '');
  readonly path = computed(() => setPathText(this.tables().set, this.level()?.set ?? ''));
  readonly picture = computed(() => {
    const level = this.level();
    const names = this.columns()
      .filter(({ field }) => field.type === 'picture')
      .flatMap((column) => (level ? cellValue(level, column, this.context.figureOf()) : null));
    return names.find((name): name is string => typeof name === 'string' && name !== '');
  });
  /** Fields in the order of the table; what every level has first. Figures are shown by device. */
  readonly groups = computed(() => {
    const groups = new Map<string, TableColumn[]>();
    for (const column of this.columns()) {
      if (column.strip || column.id === 'name' || column.field.figure) continue;
      const name = column.own ? column.field.group || 'Fields' : 'Level';
      groups.set(name, [...(groups.get(name) ?? []), column]);
    }
    return [...groups].map(([name, columns]) => {
      const empty = columns.filter((column) => !isReadOnly(column) && isEmptyValue(this.valueOf(column))).length;
      return {
        name,
        columns,
        note: counted(columns.length, 'field') + (empty > 0 ? `, ${empty} empty` : ''),
      };
    });
  });
  readonly devices = computed(() => this.allDevices().slice(0, MOST_DEVICES));
  readonly figures = computed(() => {
    const bakes = heldAt(this.bakes.byLevel(), this.level()?.id ?? '');
    const held = this.devices().map((device) => ({ device, figures: holdAgainst(costsOf(bakes), device).figures }));
    const units = columnUnits(this.devices());
    return MEASURES.map((measure) => ({
      measure,
      unit: units[measure].name === '' ? '' : ` ${units[measure].name}`,
      cells: held.map(({ device, figures }) => {
        const figure = figures[BUDGET_OF[measure]];
        const mark = markOf(figure);
        const text = figure.value === undefined ? '?' : textInUnit(figure.value, units[measure]);
        return {
          mark,
          text: `${markSign(mark)}${text}`,
          label: `${measure} on ${device.name}: ${heldText(measure, figure)}`,
        };
      }),
    }));
  });

  valueOf(column: TableColumn): FieldValue {
    const level = this.level();
    return level ? cellValue(level, column, this.context.figureOf()) : null;
  }

  textOf(column: TableColumn): string {
    const level = this.level();
    return level && column.shown ? column.shown(level) : cellText(this.valueOf(column), column, this.context.links());
  }

  keep(column: TableColumn, value: FieldValue): void {
    const record = this.level();
    this.editing.set('');
    if (record && !equalJson(value, this.valueOf(column))) this.changed.emit({ record, column, value });
  }
}
