import { InjectionToken } from '@angular/core';
import type { Routes, UrlMatcher, UrlSegment } from '@angular/router';
import type { Finding } from '@stravel/core';
import type { CommandGroup } from './command';

/** What a desk has to say on the seam, '' for nothing. */
export interface DeskStatus {
  readonly text: string;
  readonly tone: 'soft' | 'near' | 'over';
}

/** A place within the collection, as Addresses takes it. */
export interface DeskPlace {
  readonly path: readonly string[];
  readonly query: Readonly<Record<string, string>>;
}

/** What everybody may know of a desk without loading it. Its handlers are given by its page. */
export interface Desk<I extends string = string> extends CommandGroup<I> {
  /** Its place in addresses, and its name in what is kept. */
  readonly id: string;
  readonly label: string;
  /** Whether its address names one level, by the level's key. */
  readonly namesLevel: boolean;
  readonly routes: () => Promise<Routes>;
  /** Made once where things are injected; read whenever the seam is drawn. */
  readonly status: () => () => DeskStatus;
  /** Where a finding leads on this desk; undefined when it belongs elsewhere. */
  readonly place: (finding: Finding) => DeskPlace | undefined;
}

/** The desks, in their order on the seam. */
export const DESKS = new InjectionToken<readonly Desk[]>('desks');

/** A desk that has nothing to say. */
export const silent = (): (() => DeskStatus) => () => ({ text: '', tone: 'soft' });

/** A page that has the key of one level behind its address, or none: one route, so that the page is made once. */
export const levelOrNone: UrlMatcher = (segments) => {
  if (segments.length > 1) return null;
  const posParams: Record<string, UrlSegment> = segments.length === 1 ? { id: segments[0] } : {};
  return { consumed: segments, posParams };
};

/** A place, with those words of its query that are known. */
export const placeAt = (
  path: readonly string[],
  query: Readonly<Record<string, string | undefined>> = {},
): DeskPlace => ({
  path,
  query: Object.fromEntries(
    Object.entries(query).flatMap(([word, value]) => (value === undefined ? [] : [[word, value]])),
  ),
});

/** The level that a finding is about; undefined when it is about what many levels use, or the collection. */
export const levelOf = ({ place: { level, piece, kit, register } }: Finding): string | undefined =>
  piece === undefined && kit === undefined && register === undefined ? level : undefined;

/** Where a finding leads: the desk that it belongs to says it. */
export function placeOf(desks: readonly Desk[], finding: Finding): DeskPlace {
  for (const desk of desks) {
    const place = desk.place(finding);
    if (place) return place;
  }
  return placeAt(['/sets']);
}
