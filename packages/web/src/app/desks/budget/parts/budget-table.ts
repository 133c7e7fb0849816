import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Device, ColumnUnit } from '@stravel/core';
import { MEASURES, type Measure } from '../../../bakes/core-bands';
import { markSign } from '../../../bakes/figure-mark';
import { Chevron } from '../../../ui/chevron';
import { CountedPipe } from '../../../ui/counted-pipe';
import { LimitBar } from '../../../ui/limit-bar';
import { StateMark } from '../../../ui/state-mark';
import { TableBody, TableFrame } from '../../../ui/table-frame';
import { BUDGET_CHIPS, type BudgetCell, type LevelRow, type SetRow } from '../budget-rows';

/** A figure that is opened: of a level, against a device. */
export interface OpenedFigure {
  readonly id: string;
  readonly measure?: Measure;
  readonly device?: string;
}

type ColumnName = Measure | 'worst';

interface DeviceColumns {
  readonly device: Device;
  readonly isOpen: boolean;
  readonly measures: readonly ColumnName[];
}

const [NUMBER, LEVEL, BAKES, GAP] = [24, 112, 92, 4];
/** Least widths of the columns, pixels. */
const WIDTHS: Readonly<Record<ColumnName, number>> = {
  memory: 72,
  triangles: 72,
  'draw calls': 42,
  'load time': 48,
  disk: 56,
  worst: 100,
};
const NAMES: Readonly<Partial<Record<ColumnName, string>>> = { 'draw calls': 'calls', 'load time': 'load' };

/** All levels by their sets, against one to three devices: a group of columns a device, one unit a column. */
@Component({
  selector: 'sv-budget-table',
  imports: [Chevron, CountedPipe, LimitBar, ScrollingModule, StateMark, TableBody, TableFrame],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './budget-table.html',
  styleUrls: ['../../../ui/table-lines.scss', './budget-table.scss'],
})
export class BudgetTable {
  readonly sets = input.required<readonly SetRow[]>();
  readonly folded = input.required<readonly string[]>();
  readonly devices = input.required<readonly Device[]>();
  readonly units = input.required<Readonly<Record<Measure, ColumnUnit>>>();
  /** Of three devices, the one whose columns are open. */
  readonly openDevice = input.required<number>();
  /** Id of the level that is open beside it. */
  readonly opened = input('');
  readonly open = output<OpenedFigure>();
  readonly fold = output<string>();
  readonly menuAsked = output<{ readonly row: LevelRow; readonly x: number; readonly y: number }>();
  readonly unfold = output<number>();
  readonly chips = BUDGET_CHIPS;
  readonly signOf = markSign;

  readonly lines = computed((): (SetRow | LevelRow)[] =>
    this.sets().flatMap((set) => (this.folded().includes(set.id) ? [set] : [set, ...set.levels])),
  );
  readonly groups = computed((): DeviceColumns[] =>
    this.devices().map((device, at, { length }) => {
      const isOpen = length < 3 || at === this.openDevice();
      return { device, isOpen, measures: isOpen ? MEASURES : ['worst'] };
    }),
  );
  private readonly widths = computed(() =>
    this.groups().flatMap(({ measures }) => measures.map((measure) => WIDTHS[measure])),
  );
  readonly columnCount = computed(() => this.widths().length + 3);
  readonly tracks = computed(
    () =>
      `${NUMBER}px minmax(${LEVEL}px, 1fr) ${this.widths()
        .map((width) => `minmax(${width}px, ${width * 1.4}px)`)
        .join(' ')} ${BAKES}px`,
  );
  readonly leastWidth = computed(
    () =>
      this.widths().reduce((sum, width) => sum + width, NUMBER + LEVEL + BAKES + 14) + GAP * (this.columnCount() - 1),
  );
  readonly idOf = (_index: number, { id }: SetRow | LevelRow): string => id;

  askMenu(event: MouseEvent, row: SetRow | LevelRow): void {
    event.preventDefault();
    if (!this.isSet(row)) this.menuAsked.emit({ row, x: event.clientX, y: event.clientY });
  }

  isSet(row: SetRow | LevelRow): row is SetRow {
    return 'levels' in row;
  }

  headName(measure: ColumnName): string {
    return NAMES[measure] ?? measure;
  }

  headLabel({ device }: DeviceColumns, measure: ColumnName): string {
    return measure === 'worst' ? `worst share on ${device.name}` : `${measure} on ${device.name}`;
  }

  cellOf({ cells }: LevelRow, device: number, measure: ColumnName): BudgetCell | undefined {
    const own = cells[device];
    return measure === 'worst'
      ? own.reduce((worst, cell) => ((cell.held.share ?? -1) > (worst.held.share ?? -1) ? cell : worst))
      : own.find((cell) => cell.measure === measure);
  }

  shareText({ held, measure }: BudgetCell): string {
    return held.share === undefined ? '?' : `${Math.round(held.share * 100)} % ${NAMES[measure] ?? measure}`;
  }

  toneOf({ mark }: BudgetCell): string {
    return mark === 'not known' || mark === 'may be over'
      ? 'unknown'
      : mark === 'within' || mark === 'bound'
        ? ''
        : mark;
  }
}
