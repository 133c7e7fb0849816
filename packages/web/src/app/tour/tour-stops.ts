import type { Finding } from '@stravel/core';

/** A fault of the demo that the tour leads to. */
export interface TourStop {
  readonly id: string;
  /** What is wrong, and how to fix it: a sentence each. */
  readonly wrong: string;
  readonly fix: string;
  /** Its finding; absent for the stop that ends the tour, which is about all errors that are left. */
  readonly of?: Pick<Finding, 'code'> & { readonly level: string };
}

/** The faults of the demo, in the order of the desks' work. */
export const TOUR_STOPS: readonly TourStop[] = [
  {
    id: 'code',
    wrong: 'Two levels have the same code, so a player who types it reaches only one of them.',
    fix: 'Type another code for Ash Gallery in this table, or press “Give it a new code” in Findings.',
    of: { code: 'CODE_USED_TWICE', level: 'ash-gallery' },
  },
  {
    id: 'unlock',
    wrong: 'Wreck Reach never unlocks: it asks for more shards than there are to collect.',
    fix: 'Lower the threshold on its card from 400 to 200.',
    of: { code: 'LEVEL_NEVER_OPENS', level: 'wreck-reach' },
  },
  {
    id: 'way-out',
    wrong: 'The Weighbridge has a gap beside its east wall, so everything outside counts as visible.',
    fix: 'Draw a block into the gap, 4 m high, then bake sight.',
    of: { code: 'LEAK', level: 'weighbridge' },
  },
  {
    id: 'late-cell',
    wrong: 'On a run across Low Water one cell is loaded too late for the handheld.',
    fix: 'Raise “load within” from 12 to 20 m in the cell rules, then rehearse the walk.',
    of: { code: 'CELL_LATE', level: 'low-water' },
  },
  {
    id: 'over',
    wrong: 'Cullet Yard draws far more triangles from one place than the handheld allows.',
    fix: 'Right-click the bottle heap in the kit strip of Layout, select all of it here, delete most, then bake stale levels.',
    of: { code: 'OVER_TRIANGLES', level: 'cullet-yard' },
  },
  {
    id: 'pack',
    wrong: 'Levels with open errors are not ready to be packed.',
    fix: 'Fix or accept what is left, leave out what is not ready, then press Pack.',
  },
];
