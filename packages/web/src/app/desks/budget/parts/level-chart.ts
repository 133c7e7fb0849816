import { BarElement, type Chart, type ChartConfiguration, type Plugin } from 'chart.js';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FILLED_HOST } from '../../../ui/filled-host';
import { CHART_CANVAS, CHART_FONT, ThemedChart, type ColourOf } from '../../../ui/themed-chart';
import type { ChartBar, ChartGroup, ChartSlot } from '../chart-bars';

/** A device as its bars are coloured. */
export interface ChartDevice {
  readonly name: string;
  /** Role of its colour in the theme. */
  readonly tone: string;
}

/** Bars reach this far over the limit; what is higher ends there and keeps its mark. */
const TOP_SHARE = 1.9;
/** Height of an outline that stands for what is not known, share of the limit. */
const UNKNOWN_SHARE = 0.6;
/** Room above the bars for the names of sets, pixels. */
/** A name is cut to no fewer letters than this. */
const MIN_LETTERS = 3;
const NAMES_PIXELS = 22;
const FORMS = {
  over: '▲',
  near: '△',
  bound: '≤',
  'may be over': '≤',
  'not known': '?',
  stale: '',
  within: '',
} as const;

/** A bar a level and device as shares of each device's own limit, with the limit as a line across. */
@Component({
  selector: 'sv-level-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: CHART_CANVAS,
  styles: FILLED_HOST,
})
export class LevelChart extends ThemedChart {
  readonly groups = input.required<readonly ChartGroup[]>();
  readonly devices = input.required<readonly ChartDevice[]>();
  /** Id of the level that is open beside it. */
  readonly opened = input('');
  readonly picked = output<ChartSlot>();
  private readonly slots = computed(() => this.groups().flatMap(({ slots }) => slots));

  protected override configuration(colour: ColourOf): ChartConfiguration<'bar' | 'line'> {
    const [slots, devices] = [this.slots(), this.devices()];
    // The marks show it: the chart is drawn anew with it.
    this.opened();
    return {
      type: 'bar',
      data: {
        labels: slots.map(({ tick }) => tick),
        datasets: devices.map(({ name, tone }, device) => {
          const fills = slots.map(({ bars }) => fillOf(bars[device], colour(tone), colour));
          return {
            type: 'bar' as const,
            label: name,
            data: slots.map(({ bars }) => Math.min(TOP_SHARE, bars[device].share ?? UNKNOWN_SHARE)),
            backgroundColor: fills,
            hoverBackgroundColor: fills,
            maxBarThickness: 18,
            minBarLength: 1,
            categoryPercentage: 0.8,
          };
        }),
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        layout: { padding: { top: NAMES_PIXELS } },
        onClick: (_event, [hit]) => {
          if (hit) this.picked.emit(slots[hit.index]);
        },
        interaction: { mode: 'index', intersect: false },
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              title: ([item]) => (item ? slots[item.dataIndex].name : ''),
              label: (item) => slots[item.dataIndex].bars[item.datasetIndex].text,
            },
          },
        },
        scales: {
          x: {
            ticks: { color: colour('ink'), font: CHART_FONT, autoSkip: false, maxRotation: 0 },
            grid: { display: false },
            border: { color: colour('soft-ink') },
          },
          y: {
            beginAtZero: true,
            suggestedMax: 1.1,
            ticks: {
              color: colour('soft-ink'),
              font: CHART_FONT,
              callback: (value) => (Number(value) === 0 || Number(value) === 1 ? `${Number(value) * 100} %` : ''),
              stepSize: 0.5,
            },
            grid: { display: false },
            border: { display: false },
          },
        },
      },
      plugins: [this.marks(colour)],
    };
  }

  /** What a bar cannot say: which is open, how far it is to be trusted, where the limit is, which set it is of. */
  private marks(colour: ColourOf): Plugin<'bar' | 'line'> {
    return {
      id: 'marks',
      beforeDraw: (chart) => {
        const at = this.slots().findIndex(({ id }) => id === this.opened());
        if (at < 0) return;
        const { ctx, scales } = chart as Chart;
        const width = (scales['x'].right - scales['x'].left) / this.slots().length;
        ctx.fillStyle = colour('brine-wash');
        ctx.fillRect(
          scales['x'].getPixelForValue(at) - width / 2,
          NAMES_PIXELS,
          width,
          scales['x'].bottom - NAMES_PIXELS,
        );
      },
      afterDatasetsDraw: (chart) => {
        const { ctx, chartArea, scales } = chart as Chart;
        ctx.save();
        ctx.font = `12px ${CHART_FONT.family}`;
        ctx.textAlign = 'center';
        chart.data.datasets.forEach((_set, device) => {
          chart.getDatasetMeta(device).data.forEach((element, at) => {
            const bar = this.slots().at(at)?.bars.at(device);
            if (!bar || !(element instanceof BarElement)) return;
            const { x, y, base, width } = element.getProps(['x', 'y', 'base', 'width'], true);
            // Chart.js has none for what it has not laid out.
            if (x === null || y === null) return;
            outline(ctx, bar, { x, y, base, width }, colour);
            ctx.fillStyle = colour(bar.mark === 'over' ? 'over' : bar.mark === 'near' ? 'near' : 'ink');
            if (bar.mark === 'not known') ctx.fillText('?', x, (y + base) / 2 + 4);
            else ctx.fillText(FORMS[bar.mark], x, Math.min(y, limitY(scales)) - 4);
          });
        });
        ctx.strokeStyle = colour('ink');
        ctx.lineWidth = 1.5;
        ctx.beginPath();
        ctx.moveTo(chartArea.left, limitY(scales));
        ctx.lineTo(chartArea.right, limitY(scales));
        ctx.stroke();
        this.nameGroups(chart as Chart, colour);
        ctx.restore();
      },
    };
  }

  private nameGroups({ ctx, scales, chartArea }: Chart, colour: ColourOf): void {
    const width = (scales['x'].right - scales['x'].left) / Math.max(1, this.slots().length);
    ctx.font = `600 13px ${CHART_FONT.family}`;
    ctx.textAlign = 'left';
    ctx.fillStyle = colour('ink');
    let first = 0;
    for (const { name, slots } of this.groups()) {
      const left = scales['x'].left + first * width + 2;
      ctx.fillText(fitted(ctx, name, slots.length * width - 6), left, 14);
      first += slots.length;
      if (first === this.slots().length) return;
      ctx.strokeStyle = colour('line');
      ctx.lineWidth = 1;
      ctx.beginPath();
      ctx.moveTo(scales['x'].left + first * width, NAMES_PIXELS);
      ctx.lineTo(scales['x'].left + first * width, chartArea.bottom);
      ctx.stroke();
    }
  }
}

/** As much of a name as has room; nothing where that says nothing. */
function fitted(ctx: CanvasRenderingContext2D, name: string, pixels: number): string {
  if (ctx.measureText(name).width <= pixels) return name;
  for (let length = name.length - 1; length >= MIN_LETTERS; length--) {
    const text = `${name.slice(0, length).trimEnd()}…`;
    if (ctx.measureText(text).width <= pixels) return text;
  }
  return '';
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly base: number;
  readonly width: number;
}

function limitY(scales: Chart['scales']): number {
  return scales['y'].getPixelForValue(1);
}

function fillOf({ mark }: ChartBar, own: string, colour: ColourOf): string | CanvasPattern {
  switch (mark) {
    case 'over':
      return colour('over');
    case 'not known':
      return 'transparent';
    case 'stale':
      return `color-mix(in srgb, ${own} 45%, transparent)`;
    case 'bound':
    case 'may be over':
      return hatched(own) ?? own;
    default:
      return own;
  }
}

/** Slanted lines; undefined where there is no canvas to draw them on. */
function hatched(colour: string): CanvasPattern | undefined {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [6, 6];
  const context = canvas.getContext('2d');
  if (!context) return undefined;
  context.strokeStyle = colour;
  context.lineWidth = 2;
  for (const shift of [-6, 0, 6]) {
    context.moveTo(shift, 6);
    context.lineTo(shift + 6, 0);
  }
  context.stroke();
  return context.createPattern(canvas, 'repeat') ?? undefined;
}

/** A bound has an outline of ink, what is not known a dotted one, what is stale a broken top. */
function outline(
  ctx: CanvasRenderingContext2D,
  { mark }: ChartBar,
  { x, y, base, width }: Box,
  colour: ColourOf,
): void {
  ctx.strokeStyle = colour(mark === 'stale' ? 'near' : 'ink');
  ctx.lineWidth = 1;
  if (mark === 'stale') {
    ctx.setLineDash([3, 2]);
    ctx.beginPath();
    ctx.moveTo(x - width / 2, y);
    ctx.lineTo(x + width / 2, y);
    ctx.stroke();
  } else if (mark === 'bound' || mark === 'may be over' || mark === 'not known') {
    ctx.setLineDash(mark === 'not known' ? [1.5, 2] : []);
    ctx.strokeRect(x - width / 2 + 0.5, y + 0.5, width - 1, base - y - 1);
  }
  ctx.setLineDash([]);
}
