import type { ChartConfiguration } from 'chart.js';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { CHART_CANVAS, CHART_FONT, ThemedChart, type ColourOf } from './themed-chart';
import { FILLED_HOST } from './filled-host';

/** One bar of the chart. */
export interface ChartBar {
  readonly id: string;
  readonly name: string;
  readonly value: number;
  readonly tone: 'good' | 'near' | 'over' | 'soft-ink';
}

/** Bars against a limit, in the theme's colours. */
@Component({
  selector: 'sv-theme-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: CHART_CANVAS,
  styles: FILLED_HOST,
})
export class ThemeChart extends ThemedChart {
  readonly bars = input.required<readonly ChartBar[]>();
  readonly limit = input.required<number>();
  readonly limitName = input.required<string>();
  readonly format = input.required<(value: number) => string>();
  readonly chosen = output<string>();

  protected override configuration(colour: ColourOf): ChartConfiguration<'bar' | 'line'> {
    const bars = this.bars();
    const format = this.format();
    const font = CHART_FONT;
    return {
      type: 'bar',
      data: {
        labels: bars.map(({ name }) => name),
        datasets: [
          {
            type: 'line',
            label: this.limitName(),
            data: bars.map(() => this.limit()),
            borderColor: colour('over'),
            borderWidth: 1.5,
            borderDash: [6, 4],
            pointRadius: 0,
            pointHitRadius: 0,
          },
          {
            type: 'bar',
            label: 'level',
            data: bars.map(({ value }) => value),
            backgroundColor: bars.map(({ tone }) => colour(tone)),
            maxBarThickness: 34,
          },
        ],
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        onClick: (_event, [hit]) => {
          if (hit) this.chosen.emit(bars[hit.index].id);
        },
        plugins: {
          legend: { display: false },
          tooltip: { callbacks: { label: (item) => `${item.dataset.label ?? ''} ${format(item.parsed.y ?? 0)}` } },
        },
        scales: {
          x: {
            ticks: { color: colour('ink'), font, autoSkip: false, maxRotation: 35 },
            grid: { display: false },
            border: { color: colour('soft-ink') },
          },
          y: {
            beginAtZero: true,
            ticks: { color: colour('soft-ink'), font, callback: (value) => format(Number(value)) },
            grid: { color: colour('line') },
            border: { display: false },
          },
        },
      },
    };
  }
}
