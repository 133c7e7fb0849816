import type { Finding } from '../findings';
import type { LinkEvent } from '../model/link';
import type { PlanPoint, Vector3 } from '../model/vector';
import type { CutLevel } from './cut-level';

/** Raised whenever the same rehearsal would go otherwise. */
export const REHEARSAL_VERSION = 8;

/** One file that was loaded on the way. */
export interface WalkLoad {
  readonly what: 'cell' | 'meshes';
  /** Number of the cell or kit in the cut. */
  readonly number: number;
  readonly name: string;
  readonly diskBytes: number;
  readonly memoryBytes: number;
  readonly askedMs: number;
  readonly readStartMs: number;
  readonly readEndMs: number;
  readonly unpackEndMs: number;
  readonly readyMs: number;
  /** When it was dropped again; null when it stayed. */
  readonly droppedMs: number | null;
}

/** A cell that was not there when it had to be. */
export interface LateCell {
  readonly cell: number;
  readonly key: string;
  /** When one came so near that it had to be there. */
  readonly neededMs: number;
  /** When it was there; null when one had gone, or the walk was over, before it came. */
  readonly readyMs: number | null;
  readonly lateMs: number;
  /** Where one stood when it had to be there. */
  readonly at: Vector3;
}

/** A stretch of the path on which nothing held the foot. */
export interface FootingGap {
  /** 'late' when the level has a floor there that was not loaded, 'none' when it has none. */
  readonly cause: 'late' | 'none';
  readonly fromMs: number;
  readonly toMs: number;
  readonly from: Vector3;
  readonly to: Vector3;
  /** Key of the cell that should have held, null when the level has no floor there. */
  readonly cell: string | null;
}

/** A link that was set off on the way. */
export interface FiredLink {
  /** When its target acts: after its delay. */
  readonly atMs: number;
  readonly link: string;
  readonly event: LinkEvent;
  readonly who: string;
  readonly action: string;
  readonly emitterName: string;
  readonly targetName: string;
  /** Where one stood when it was set off. */
  readonly at: Vector3;
  /** The link that set it off; '' when the walk did. */
  readonly by: string;
}

export interface RehearsalFigures {
  readonly lengthMetres: number;
  readonly durationMs: number;
  readonly frames: number;
  /** Files read before the walk: the level's own, those of cells and kits; and how long the device takes over them. */
  readonly startFiles: number;
  readonly startLoadMs: number;
  readonly loads: number;
  readonly drops: number;
  readonly readBytes: number;
  readonly peakBytes: number;
  readonly peakMs: number;
  /** Share of the walk in which the disk was reading, 0 to 1. */
  readonly diskBusyShare: number;
}

/** What a rehearsal found. */
export interface RehearsalResult {
  readonly version: number;
  readonly cut: CutLevel;
  /** Moments at which resident bytes changed, and the bytes from then on. */
  readonly timesMs: readonly number[];
  readonly residentBytes: readonly number[];
  readonly loads: readonly WalkLoad[];
  readonly late: readonly LateCell[];
  readonly gaps: readonly FootingGap[];
  /** In order of time, at most 10,000. */
  readonly fired: readonly FiredLink[];
  /** Where one was each second. */
  readonly track: readonly PlanPoint[];
  readonly figures: RehearsalFigures;
  readonly findings: readonly Finding[];
}
