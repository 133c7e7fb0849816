import { DestroyRef, afterNextRender, effect, inject, signal, type ElementRef } from '@angular/core';
import { Chart, type ChartConfiguration } from 'chart.js';

/** The face of all words of a chart. */
export const CHART_FONT = { family: "'Spline Sans Variable', sans-serif", size: 12 };

/**
 * Keeps a chart on a canvas up with its configuration, which is read anew whenever a signal that it reads changes. Must be
 * called where things are injected.
 * @param configuration given what looks a colour of the theme up by its role
 */
export function keepChart(
  canvas: () => ElementRef<HTMLCanvasElement>,
  configuration: (colour: (role: string) => string) => ChartConfiguration,
): void {
  const isShown = signal(false);
  let chart: Chart | undefined;
  afterNextRender(() => isShown.set(true));
  effect(() => {
    if (!isShown()) return;
    const element = canvas().nativeElement;
    const style = getComputedStyle(element);
    const config = configuration((role) => style.getPropertyValue(`--${role}`).trim());
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
