import { loadTime, type Device, type FiguresSummary } from '@stravel/core';
import type { CoreBand } from '../ui/core-sample';
import { bytesText, countText, timeText } from '../ui/amount';

/** What the bands of a core sample are as thick as. */
export const MEASURES = ['memory', 'triangles', 'draw calls', 'load time', 'disk'] as const;
export type Measure = (typeof MEASURES)[number];

/** A device's limit for a measure. */
export function limitOf(device: Device, measure: Measure): number {
  const { budget } = device;
  switch (measure) {
    case 'memory':
      return budget.memoryBytes;
    case 'triangles':
      return budget.triangles;
    case 'draw calls':
      return budget.drawCalls;
    case 'load time':
      return budget.loadMs;
    case 'disk':
      return budget.diskBytes;
  }
}

/** A value of a measure as a person reads it. */
export function measureText(measure: Measure, value: number): string {
  if (measure === 'memory' || measure === 'disk') return bytesText(value);
  return measure === 'load time' ? timeText(value) : countText(value);
}

/** The bands of a level: its strata bottom first, then the kit. Triangles and draw calls are those of the worst pocket. */
export function coreBands(figures: FiguresSummary, device: Device, measure: Measure): CoreBand[] {
  const worst = measure === 'triangles' ? figures.worst.at(0) : measure === 'draw calls' ? figures.worstDrawCalls : undefined;
  const strata = figures.strata.map((stratum): CoreBand => {
    const seen = worst?.strata.find((one) => one.stratum === stratum.stratum);
    const value =
      measure === 'memory'
        ? stratum.memoryBytes
        : measure === 'disk'
          ? stratum.diskBytes
          : measure === 'triangles'
            ? (seen?.triangles ?? 0)
            : measure === 'draw calls'
              ? (seen?.drawCalls ?? 0)
              : loadTime({ files: 1, diskBytes: stratum.diskBytes, memoryBytes: stratum.memoryBytes }, device).totalMs;
    return { id: stratum.stratum, name: stratum.name, role: stratum.role, value, text: measureText(measure, value) };
  });
  const kit =
    measure === 'memory'
      ? figures.kitBytes
      : measure === 'disk'
        ? figures.kitDiskBytes
        : measure === 'load time'
          ? loadTime({ files: figures.kits, diskBytes: figures.kitDiskBytes, memoryBytes: figures.kitBytes }, device).totalMs
          : 0;
  return kit > 0 ? [...strata, { id: 'kit', name: 'kit', role: 'kit', value: kit, text: measureText(measure, kit) }] : strata;
}
