import { bytesText, counted, countText, timeText } from '@stravel/core';
import type { DifferingObject, WalkDifference } from '@stravel/core/pack-walk';
import type { NamedObject } from '@stravel/walker';

/** What a difference is called, and what is behind it. */
export interface DifferenceText {
  readonly title: string;
  readonly detail: string;
}

const AMOUNTS = {
  triangles: { name: 'Triangles', text: countText, more: 'higher', less: 'lower' },
  drawCalls: { name: 'Draw calls', text: countText, more: 'higher', less: 'lower' },
  memory: { name: 'Memory', text: bytesText, more: 'higher', less: 'lower' },
  disk: { name: 'Disk queue', text: bytesText, more: 'longer', less: 'shorter' },
} as const;

/** A difference in words. @param named objects by their ids */
export function differenceText(
  { what, forecast, measured, cell, objects, objectCount }: WalkDifference,
  named: Readonly<Record<string, NamedObject>>,
): DifferenceText {
  const apart = Math.abs(measured - forecast);
  const isMore = measured > forecast;
  if (what === 'late')
    return {
      title: `Cell ${cell ?? ''} ${isMore ? 'later' : 'earlier'} than forecast`,
      detail: `Late by ${timeText(measured)}, forecast ${timeText(forecast)}`,
    };
  if (what === 'start')
    return {
      title: `Load before the first step ${milliseconds(apart)} ${isMore ? 'longer' : 'shorter'}`,
      detail: `${milliseconds(measured)}, forecast ${milliseconds(forecast)}. Of the visible sets the forecast counts the seek alone, of the level’s own file the placements.`,
    };
  if (what === 'objects')
    return {
      title: `${counted(objectCount, 'object')} not as forecast`,
      detail: objectsText(objects, objectCount, named),
    };
  const { name, text, more, less } = AMOUNTS[what];
  return {
    title: `${name} ${text(apart)} ${isMore ? more : less}`,
    detail: objectsText(objects, objectCount, named) || `${text(measured)}, forecast ${text(forecast)}`,
  };
}

function objectsText(
  objects: readonly DifferingObject[],
  count: number,
  named: Readonly<Record<string, NamedObject>>,
): string {
  const first = objects.at(0);
  if (!first) return '';
  const others = count > 1 ? `, and ${counted(count - 1, 'other object')}` : '';
  const object = Object.hasOwn(named, first.id) ? named[first.id] : undefined;
  const where = object ? ` at ${object.at[0].toFixed(1)}, ${object.at[2].toFixed(1)}` : '';
  return `${object?.name ?? first.id}${where} ${drawnText(first)}${others}`;
}

function drawnText({ forecastLod, measuredLod }: DifferingObject): string {
  if (measuredLod < 0) return 'is not drawn, forecast is';
  if (forecastLod < 0) return 'is drawn, forecast is not';
  return `is drawn at LOD ${measuredLod}, forecast LOD ${forecastLod}`;
}

function milliseconds(ms: number): string {
  return ms < 1000 ? `${Math.round(ms)} ms` : timeText(ms);
}
