import type { Gap } from './gap';
import type { Finding } from '../findings';
import type { Box3, Vector3 } from '../model/vector';

/** A convex part of the open space. */
export interface Pocket {
  /** Lattice cell and number within it: stays the same while nothing changes in its cell. */
  readonly key: string;
  /** Outward unit normal and offset: inside is n·p ≤ offset. */
  readonly planes: readonly (readonly [number, number, number, number])[];
  readonly bounds: Box3;
  /** Corners of its faces, xyz triples, each face a convex polygon in order. */
  readonly faces: readonly (readonly number[])[];
  /** Whether it can be reached from a spawn. Only such pockets have a visible set. */
  readonly reached: boolean;
}

/** The polygon through which two neighbouring pockets see each other. */
export interface Opening {
  readonly pockets: readonly [number, number];
  /** Unit normal pointing from the first pocket to the second, and offset. */
  readonly plane: readonly [number, number, number, number];
  /** Corners in order, xyz triples, metres. */
  readonly polygon: readonly number[];
}

/** What was counted while the bake ran. */
export interface SightFigures {
  readonly blocks: number;
  readonly planes: number;
  readonly pockets: number;
  readonly reachedPockets: number;
  readonly openings: number;
  /** Ordered pairs (from, seen), without each pocket itself. */
  readonly visiblePairs: number;
  readonly steps: number;
  /** Openings whose flow reached the step limit and fell back to the rough bound. */
  readonly limitedOpenings: number;
}

/** What a sight bake keeps. */
export interface SightResult {
  readonly version: number;
  readonly bounds: Box3;
  readonly pockets: readonly Pocket[];
  readonly openings: readonly Opening[];
  /** For each pocket the numbers of the pockets that can be seen from it, itself among them, ascending; empty when not reached. */
  readonly visible: readonly (readonly number[])[];
  readonly closed: boolean;
  /** The shortest way out from a spawn when the level is not closed. */
  readonly wayOut: readonly Vector3[] | null;
  /** Where the way out leaves the level. */
  readonly gap: Gap | null;
  readonly findings: readonly Finding[];
  readonly figures: SightFigures;
}

/** Whether nothing in the level hides anything, so that one pocket holds it all. */
export function blocksNothing({ figures, pockets }: Pick<SightResult, 'figures' | 'pockets'>): boolean {
  return figures.blocks === 0 && pockets.length === 1 && pockets[0].key.startsWith(OPEN_CELL);
}

/** Cell of the one pocket of a level in which nothing hides. */
export const OPEN_CELL = 'open';
