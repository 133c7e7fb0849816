import type { ChartConfiguration, ChartDataset } from 'chart.js';
import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { CHART_CANVAS, CHART_FONT, ThemedChart, type ColourOf } from './themed-chart';
import { FILLED_HOST } from './filled-host';

/** One line of the chart; a gap where y is NaN. */
export interface ChartLine {
  readonly name: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly tone: 'ink' | 'brine' | 'kiln' | 'over' | 'near' | 'soft-ink';
  /** Whether a value holds until the next point. */
  readonly stepped?: boolean;
  readonly dashed?: boolean;
  readonly widthPixels?: number;
}

/** Lines over a distance or a time, in the theme's colours. */
@Component({
  selector: 'sv-line-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: CHART_CANVAS,
  styles: FILLED_HOST,
})
export class LineChart extends ThemedChart {
  readonly lines = input.required<readonly ChartLine[]>();
  readonly formatX = input.required<(value: number) => string>();
  readonly formatY = input.required<(value: number) => string>();
  readonly nameX = input('');
  readonly nameY = input('');
  readonly isLogY = input(false);

  protected override configuration(colour: ColourOf): ChartConfiguration<'line'> {
    const [formatX, formatY] = [this.formatX(), this.formatY()];
    const font = CHART_FONT;
    const isCount = this.isLogY();
    // Between two and three of something there is nothing to be named.
    const textY = (value: number): string => (isCount && !Number.isInteger(value) ? '' : formatY(value));
    const title = (text: string): object => ({ display: text !== '', text, color: colour('soft-ink'), font });
    const datasets = this.lines().map((line): ChartDataset<'line'> => ({
      label: line.name,
      data: [...line.points],
      borderColor: colour(line.tone),
      backgroundColor: colour(line.tone),
      borderWidth: line.widthPixels ?? 2,
      borderDash: line.dashed ? [6, 4] : [],
      stepped: line.stepped ? 'before' : false,
      pointRadius: 0,
      pointHitRadius: 6,
      spanGaps: false,
    }));
    return {
      type: 'line',
      data: { datasets },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        parsing: false,
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              title: ([item]) => formatX(item.parsed.x ?? 0),
              label: (item) => `${item.dataset.label ?? ''} ${formatY(item.parsed.y ?? 0)}`,
            },
          },
        },
        scales: {
          x: {
            type: 'linear',
            title: title(this.nameX()),
            ticks: { color: colour('soft-ink'), font, callback: (value) => formatX(Number(value)) },
            grid: { color: colour('line') },
          },
          y: {
            type: this.isLogY() ? 'logarithmic' : 'linear',
            beginAtZero: !this.isLogY(),
            // Whole things are counted: below one there is nothing.
            ...(this.isLogY() ? { min: 1 } : {}),
            title: title(this.nameY()),
            ticks: { color: colour('soft-ink'), font, callback: (value) => textY(Number(value)), maxTicksLimit: 6 },
            grid: { color: colour('line') },
            border: { display: false },
          },
        },
      },
    };
  }
}
