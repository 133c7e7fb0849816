import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, output, viewChild } from '@angular/core';
import { bytesText, countText, timeText, type Device } from '@stravel/core';
import type { ComparedFigure } from '@stravel/core/pack-walk';
import { DragBy, type DraggedBy } from '../../../../ui/drag-by';
import { peaksOf, seriesPath, stopAt, type RunFigures } from '../walk-figures';

/** A difference as the lanes mark it. */
export interface LaneMark {
  readonly number: number;
  /** Share of the way. */
  readonly at: number;
  readonly title: string;
}

/** The limit is drawn where it is at most so many times the peak. */
const FAR_LIMIT = 4;
const HEADROOM = 1.12;
const LANES: readonly {
  readonly what: ComparedFigure;
  readonly name: string;
  readonly text: (value: number) => string;
  readonly isStepped: boolean;
  readonly limit: ((device: Device) => number) | undefined;
}[] = [
  { what: 'triangles', name: 'Triangles', text: countText, isStepped: false, limit: ({ budget }) => budget.triangles },
  { what: 'drawCalls', name: 'Draw calls', text: countText, isStepped: true, limit: ({ budget }) => budget.drawCalls },
  { what: 'memory', name: 'Memory', text: bytesText, isStepped: true, limit: ({ budget }) => budget.memoryBytes },
  { what: 'disk', name: 'Disk queue', text: bytesText, isStepped: true, limit: undefined },
];

/** Forecast and measured along the way, one lane a figure, under one playhead. */
@Component({
  selector: 'sv-walk-lanes',
  imports: [DragBy],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>Along the way</h2>
      <span class="key"><i class="forecast"></i> forecast</span>
      <span class="key"><i class="measured"></i> measured</span>
      @if (tried()) {
        <span class="key"><i class="tried"></i> {{ triedName() }}</span>
      }
      <span class="spring"></span>
      <span class="figure head brine">forecast</span><span class="figure head">measured</span>
    </header>
    <div class="lanes" #area (click)="pick($event)">
      @for (lane of lanes(); track lane.name) {
        <span class="name">
          @if (lane.limitText) { <span class="mono limit-text" title="limit of the device">{{ lane.limitText }}</span> }
          {{ lane.name }}
        </span>
        <div class="lane">
          <svg viewBox="0 0 1 1" preserveAspectRatio="none" role="img" [attr.aria-label]="lane.label">
            <path class="fill" [attr.d]="lane.measured ? lane.measured + 'V1H0Z' : ''" />
            @if (lane.limit !== undefined) { <path class="limit" [attr.d]="'M0 ' + lane.limit + 'H1'" /> }
            <path class="forecast" [attr.d]="lane.forecast" />
            <path class="measured" [attr.d]="lane.measured" />
            <path class="tried" [attr.d]="lane.tried" />
          </svg>
        </div>
        <span class="figure brine">{{ lane.forecastText }}</span>
        <span class="figure" [class.over]="lane.isOver">{{ lane.measuredText }}</span>
      }
      <span class="name">Late cells</span>
      <div class="lane late" role="img" [attr.aria-label]="lateText()">
        @for (one of forecast()?.late ?? []; track $index) {
          <i class="forecast" [style.left.%]="one.from * 100" [style.width.%]="(one.to - one.from) * 100" [title]="lateTitle(one, 'forecast')"></i>
        }
        @for (one of measured().late; track $index) {
          <i class="measured" [style.left.%]="one.from * 100" [style.width.%]="(one.to - one.from) * 100" [title]="lateTitle(one, 'measured')"></i>
        }
      </div>
      <span class="figure brine">{{ forecast() ? forecast()!.late.length : '?' }}</span>
      <span class="figure" [class.over]="measured().late.length > 0">{{ measured().late.length }}</span>
      <span class="name"></span>
      <div class="lane axis soft mono">
        @for (tick of ticks(); track tick.share) {
          <span [style.left.%]="tick.share * 100">{{ tick.text }}</span>
        }
      </div>
      <div class="over-lanes">
        @for (mark of marks(); track mark.number) {
          <button
            class="plain mark"
            [class.chosen]="mark.number === chosen()"
            [style.left.%]="mark.at * 100"
            [title]="mark.title"
            [attr.aria-label]="'Difference ' + mark.number + ': ' + mark.title"
            (click)="chose.emit(mark.number); $event.stopPropagation()"
          >
            {{ mark.number }}
          </button>
        }
        <div
          class="playhead"
          role="slider"
          tabindex="0"
          aria-label="Moment of the walk"
          aria-valuemin="0"
          [attr.aria-valuemax]="durationMs() / 1000"
          [attr.aria-valuenow]="((at() * durationMs()) / 1000).toFixed(1)"
          [style.left.%]="at() * 100"
          svDragBy
          (dragged)="drag($event)"
          (click)="$event.stopPropagation()"
        ></div>
      </div>
    </div>
  `,
  styleUrl: './walk-lanes.scss',
})
export class WalkLanes {
  readonly forecast = input.required<RunFigures | undefined>();
  readonly measured = input.required<RunFigures>();
  readonly tried = input<RunFigures>();
  readonly triedName = input('');
  readonly device = input.required<Device>();
  readonly durationMs = input.required<number>();
  /** Share of the way, 0 to 1. */
  readonly at = input.required<number>();
  readonly marks = input.required<readonly LaneMark[]>();
  /** Number of the difference that is selected; 0 for none. */
  readonly chosen = input.required<number>();
  readonly moved = output<number>();
  readonly chose = output<number>();
  private readonly area = viewChild.required<ElementRef<HTMLElement>>('area');
  private from = 0;

  readonly lanes = computed(() => {
    const [forecast, measured, tried] = [this.forecast(), this.measured(), this.tried()];
    const peaks = peaksOf([measured, ...(forecast ? [forecast] : []), ...(tried ? [tried] : [])]);
    return LANES.map(({ what, name, text, isStepped, limit: limitOf }) => {
      const limit = limitOf?.(this.device()) ?? 0;
      const isDrawn = limit > 0 && limit <= peaks[what] * FAR_LIMIT;
      const top = Math.max(peaks[what], isDrawn ? limit : 0) * HEADROOM;
      const path = (run: RunFigures | undefined): string =>
        run ? seriesPath(run.shares, run.values[what], top, isStepped) : '';
      const value = (run: RunFigures): number => run.values[what][stopAt(run.shares, this.at())] ?? 0;
      const now = value(measured);
      return {
        name,
        limit: isDrawn ? (1 - limit / Math.max(1, top)).toFixed(4) : undefined,
        limitText: limit > 0 ? text(limit) : '',
        label: `${name} along the way: measured peak ${text(peaksOf([measured])[what])}${forecast ? `, forecast peak ${text(peaksOf([forecast])[what])}` : ''}${limit > 0 ? `, limit ${text(limit)}` : ''}`,
        forecast: path(forecast),
        measured: path(measured),
        tried: path(tried),
        forecastText: forecast ? text(value(forecast)) : '?',
        measuredText: text(now),
        isOver: limit > 0 && now > limit,
      };
    });
  });
  readonly lateText = computed(() => {
    const forecast = this.forecast();
    return `Late cells: ${this.measured().late.length} measured, ${forecast ? forecast.late.length : 'not known'} forecast`;
  });
  readonly ticks = computed(() => {
    const seconds = this.durationMs() / 1000;
    const step = [1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 1800, 3600].find((one) => seconds / one <= 9) ?? 7200;
    return Array.from({ length: Math.floor(seconds / step) + 1 }, (_one, i) => ({
      share: (i * step) / seconds,
      text: clockText(i * step * 1000).replace(/\.\d$/, ''),
    }));
  });

  pick({ clientX }: MouseEvent): void {
    const { left, width } = this.laneBox();
    if (clientX >= left && clientX <= left + width) this.moved.emit((clientX - left) / width);
  }

  drag({ x, isBegun }: DraggedBy): void {
    if (isBegun) this.from = this.at();
    else this.moved.emit(Math.min(1, Math.max(0, this.from + x / this.laneBox().width)));
  }

  lateTitle({ key, lateMs }: RunFigures['late'][number], which: string): string {
    return `Cell ${key} ${which} late by ${timeText(lateMs)}`;
  }

  private laneBox(): DOMRect {
    return (this.area().nativeElement.querySelector('.lane') ?? this.area().nativeElement).getBoundingClientRect();
  }
}

/** Minutes and seconds: 1:04.2. */
export function clockText(ms: number): string {
  const tenths = Math.floor(ms / 100 + 1e-6);
  const minutes = Math.floor(tenths / 600);
  return `${minutes}:${((tenths - minutes * 600) / 10).toFixed(1).padStart(4, '0')}`;
}
