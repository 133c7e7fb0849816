import { counted, loadOf, type FiguresSummary, type HeldLevel, type PocketFigures } from '@stravel/core';
import type { LevelCosts } from '@stravel/core';
import { measureText, type LevelCore, type Measure } from '../../bakes/core-bands';
import type { FigurePart } from './parts/figure-parts';

/** The pocket that a figure comes from; none for what is counted of the whole level. */
export function spotOf(figures: FiguresSummary | null | undefined, measure: Measure): PocketFigures | undefined {
  if (measure === 'triangles') return figures?.worst.at(0);
  return measure === 'draw calls' ? (figures?.worstDrawCalls ?? undefined) : undefined;
}

/** What a figure of a level is made of, largest first. */
export function partsOf(
  measure: Measure,
  costs: LevelCosts,
  load: HeldLevel['load'],
  { bands, held }: LevelCore,
): FigurePart[] {
  const part = (name: string, value: number, id = '', count = ''): FigurePart => ({
    id,
    count,
    name,
    value,
    text: measureText(measure, value),
  });
  const isSeen = measure === 'triangles' || measure === 'draw calls';
  if (isSeen && held.state === 'not known') return [];
  if (isSeen && held.state !== 'bound') {
    const pick = (cause: { readonly triangles: number; readonly drawCalls: number }): number =>
      measure === 'triangles' ? cause.triangles : cause.drawCalls;
    return (spotOf(costs.baked?.figures, measure)?.causes ?? [])
      .map((cause) =>
        part(
          `${cause.name}${cause.what === 'blocks' ? ' blocks' : ''}`,
          pick(cause),
          `${cause.what} ${cause.id}`,
          `${cause.count} ×`,
        ),
      )
      .sort(largerFirst);
  }
  if (measure === 'load time') {
    if (!load) return [];
    const { seekMs, readMs, unpackMs, activateMs } = load;
    return [
      part(`seek, ${counted(loadOf(costs)?.files ?? 0, 'file')}`, seekMs),
      part('read from disk', readMs),
      part('unpack', unpackMs),
      part('activate in frames', activateMs),
    ].sort(largerFirst);
  }
  return bands
    .map(({ id, name, value }) => part(name, value, id === 'level' || id === 'all' ? '' : `stratum ${id}`))
    .sort(largerFirst);
}

function largerFirst(a: FigurePart, b: FigurePart): number {
  return b.value - a.value;
}
