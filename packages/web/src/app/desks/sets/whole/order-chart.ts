import type { ChartConfiguration, ChartDataset, Plugin } from 'chart.js';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { CHART_CANVAS, CHART_FONT, ThemedChart, type ColourOf } from '../../../ui/themed-chart';
import { seriesText, type ChartedSeries } from './series';
import { FILLED_HOST } from '../../../ui/filled-host';

/** Names on the axis are no longer than that; the tooltip has them whole. */
const LONGEST = 24;

function shortened(name: string): string {
  return name.length > LONGEST ? `${name.slice(0, LONGEST - 1)}…` : name;
}

/** Levels that stand together under a name, by index, `to` left out. */
export interface ChartStretch {
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

/** One or two series along the order of play, set by set; what stands out is ringed, what is a bound or stale is hollow. */
@Component({
  selector: 'sv-order-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: CHART_CANVAS,
  styles: FILLED_HOST,
})
export class OrderChart extends ThemedChart {
  readonly names = input.required<readonly string[]>();
  readonly stretches = input.required<readonly ChartStretch[]>();
  readonly series = input.required<readonly ChartedSeries[]>();
  /** Index of the level that was clicked. */
  readonly picked = output<number>();
  protected override configuration(colour: ColourOf): ChartConfiguration<'line'> {
    const tones = ['brine', 'kiln'];
    const all = this.series();
    const stretches = this.stretches();
    const datasets = all.map(({ series, values, states, outliers }, i): ChartDataset<'line'> => {
      const far = new Set(outliers);
      return {
        label: series.name,
        data: [...values],
        borderColor: colour(tones[i]),
        backgroundColor: colour(tones[i]),
        borderWidth: 1.5,
        borderDash: i > 0 ? [5, 4] : [],
        pointStyle: i > 0 ? 'rectRot' : 'circle',
        pointRadius: values.map((_value, at) => (far.has(at) ? 6 : 3)),
        pointBorderWidth: values.map((_value, at) => (far.has(at) ? 2 : 1)),
        pointBorderColor: values.map((_value, at) => colour(far.has(at) ? 'over' : tones[i])),
        pointBackgroundColor: states.map((state) => colour(state === 'known' ? tones[i] : 'raised')),
        yAxisID: i > 0 ? 'second' : 'first',
        spanGaps: false,
      };
    });
    const sets: Plugin = {
      id: 'sets',
      beforeDatasetsDraw: ({ ctx, chartArea: { top, bottom }, scales: { x } }) => {
        ctx.save();
        ctx.font = `600 12px ${CHART_FONT.family}`;
        for (const { name, from, to } of stretches) {
          const [left, right] = [x.getPixelForValue(from), x.getPixelForValue(to - 1)];
          const half = (x.right - x.left) / this.names().length / 2;
          ctx.strokeStyle = colour('line');
          ctx.beginPath();
          ctx.moveTo(left - half, top - 16);
          ctx.lineTo(left - half, bottom);
          ctx.stroke();
          ctx.fillStyle = colour('soft-ink');
          ctx.fillText(name, left - half + 6, top - 6, Math.max(20, right - left + 2 * half - 10));
        }
        ctx.restore();
      },
    };
    const axis = (i: number): object => ({
      display: all.length > i,
      position: i === 0 ? 'left' : 'right',
      beginAtZero: true,
      title: { display: true, text: all.at(i)?.series.name ?? '', color: colour(tones[i]), font: CHART_FONT },
      ticks: {
        color: colour('soft-ink'),
        font: CHART_FONT,
        maxTicksLimit: 6,
        callback: (value: number | string) => all.at(i)?.series.format(Number(value)) ?? '',
      },
      grid: { color: colour('line'), drawOnChartArea: i === 0 },
      border: { display: false },
    });
    return {
      type: 'line',
      data: { labels: [...this.names()], datasets },
      plugins: [sets],
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        layout: { padding: { top: 22 } },
        interaction: { mode: 'index', intersect: false },
        onClick: (_event, [hit]) => {
          if (hit) this.picked.emit(hit.index);
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              label: ({ datasetIndex, dataIndex, parsed }) => {
                const { series, states, outliers } = all[datasetIndex];
                return `${series.name} ${seriesText(series, parsed.y ?? 0, states[dataIndex])}${outliers.includes(dataIndex) ? ', outlier' : ''}`;
              },
            },
          },
        },
        scales: {
          x: {
            offset: true,
            ticks: {
              color: colour('ink'),
              font: CHART_FONT,
              maxRotation: 40,
              autoSkip: true,
              callback: (value) => shortened(this.names()[Number(value)]),
            },
            grid: { display: false },
            border: { color: colour('soft-ink') },
          },
          first: axis(0),
          second: axis(1),
        },
      },
    };
  }
}
