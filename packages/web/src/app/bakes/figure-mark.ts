import { NEAR_SHARE, type HeldFigure } from '@stravel/core';

/** What a figure held against its limit is marked as, worst first. */
export const FIGURE_MARKS = ['over', 'may be over', 'not known', 'near', 'stale', 'bound', 'within'] as const;
export type FigureMark = (typeof FIGURE_MARKS)[number];

/** Only a known figure is over; of a bound above the limit it is open whether it is. */
export function markOf({ state, value, share = 0 }: HeldFigure): FigureMark {
  switch (state) {
    case 'known':
      return share > 1 ? 'over' : share >= NEAR_SHARE ? 'near' : 'within';
    case 'not known':
      return value === undefined ? 'not known' : 'may be over';
    default:
      return state;
  }
}

/** What stands before a figure of a mark; nothing before one that is simply so. */
export function markSign(mark: FigureMark): string {
  switch (mark) {
    case 'over':
      return '▲ ';
    case 'near':
      return '△ ';
    case 'bound':
    case 'may be over':
      return '≤ ';
    default:
      return '';
  }
}
