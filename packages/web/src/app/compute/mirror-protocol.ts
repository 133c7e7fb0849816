import type { Finding, LevelFiguresTable, RecordKind } from '@stravel/core';

/** What the page tells the worker that keeps a copy of the records. */
export type MirrorRequest =
  | {
      readonly type: 'records';
      readonly kind: RecordKind;
      readonly changed: readonly (readonly [string, unknown])[];
      readonly gone: readonly string[];
    }
  | { readonly type: 'figures'; readonly figures: LevelFiguresTable }
  | { readonly type: 'check'; readonly round: number };

export interface MirrorAnswer {
  readonly round: number;
  readonly findings: readonly Finding[];
}
