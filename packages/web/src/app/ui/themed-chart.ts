import type { ElementRef } from '@angular/core';
import { DestroyRef, Directive, afterNextRender, effect, inject, input, signal, viewChild } from '@angular/core';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';

Chart.register(
  BarController,
  BarElement,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  CategoryScale,
  LinearScale,
  Tooltip,
  Legend,
);

/** The face of all words of a chart. */
export const CHART_FONT = { family: "'Spline Sans', sans-serif", size: 12 };

/** Template of every chart. */
export const CHART_CANVAS = '<canvas #canvas role="img" [attr.aria-label]="label()"></canvas>';

/** Looks a colour of the theme up by its role. */
export type ColourOf = (role: string) => string;

/** Charts of lines, and of bars with a line across. */
type DrawnChart = ChartConfiguration<'line'> | ChartConfiguration<'bar' | 'line'>;

/** A chart on a canvas, kept up with what it shows and with the theme. */
@Directive()
export abstract class ThemedChart {
  /** What it shows, for those who hear it. */
  readonly label = input.required<string>();
  readonly theme = input('light');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    const isShown = signal(false);
    let chart: Chart | undefined;
    afterNextRender(() => isShown.set(true));
    effect(() => {
      if (!isShown()) return;
      const element = this.canvas().nativeElement;
      const style = getComputedStyle(element);
      // Colours follow the theme.
      this.theme();
      // The package's own type of all charts: whether one of them is one depends on the order in which files are compiled.
      const config = this.configuration((role) => style.getPropertyValue(`--${role}`).trim()) as ChartConfiguration;
      if (!chart) {
        chart = new Chart(element, config);
        return;
      }
      chart.data = config.data;
      chart.options = config.options ?? {};
      chart.update('none');
    });
    inject(DestroyRef).onDestroy(() => chart?.destroy());
  }

  /** The chart as a picture, on the ground that it stands on. */
  async png(): Promise<Blob> {
    const drawn = this.canvas().nativeElement;
    const picture = document.createElement('canvas');
    [picture.width, picture.height] = [drawn.width, drawn.height];
    const context = picture.getContext('2d');
    if (!context) throw new Error('the browser gives no canvas to draw a picture on');
    context.fillStyle = getComputedStyle(drawn).getPropertyValue('--raised').trim();
    context.fillRect(0, 0, picture.width, picture.height);
    context.drawImage(drawn, 0, 0);
    return new Promise((done, failed) =>
      picture.toBlob(
        (blob) => (blob ? done(blob) : failed(new Error('the browser made no picture of the chart'))),
        'image/png',
      ),
    );
  }

  /** What is drawn; read anew whenever a signal that it reads changes. */
  protected abstract configuration(colour: ColourOf): DrawnChart;
}
