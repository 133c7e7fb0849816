import type { MovementRules, SquareCode } from '@stravel/core';
import { MOULD_BENCH } from './assemblies';
import { WORKS_BASE, owned, type BuiltLevel } from './built-levels';

const square = (code: string, name: string, over: Partial<SquareCode>): SquareCode => ({
  code,
  name,
  colour: 'none',
  mark: 'none',
  mayEnter: true,
  visits: 0,
  height: 0,
  role: 'none',
  ...over,
});

/** What the squares of the batch floors are. */
export const BATCH_LEGEND: readonly SquareCode[] = [
  square('p', 'plank', {}),
  square('t', 'thin crust', { colour: 'ochre', mark: 'bar', visits: 1 }),
  square('v', 'vat', { colour: 'slate', mayEnter: false }),
  square('h', 'hopper', { colour: 'brine', mark: 'ring', role: 'must' }),
  square('l', 'lift', { colour: 'moss', mark: 'corner' }),
  square('s', 'stair head', { colour: 'kiln', mark: 'dot', role: 'start' }),
  square('x', 'scale', { colour: 'madder', mark: 'cross', role: 'goal' }),
];

export const BATCH_MOVEMENT: MovementRules = { neighbours: 4, upSteps: 1, downSteps: 2, mayFall: true };

/** A puzzle of three floors: every hopper must be emptied before one comes to the scale, and the crust holds only once. */
export function batchFloor(): BuiltLevel {
  const level = 'batch-floor';
  return {
    level,
    openSky: true,
    bounds: { min: [-2, -1, -2], max: [20, 14, 18] },
    strata: [
      WORKS_BASE,
      owned(level, 'Floors', 'structure', (b) =>
        b
          .tiles('loft', 'Loft', [0, 8, 0], ['s p p t h', 'p v v v t', 'p h p p p', 't v v v .', 'p p l@up . .'])
          .tiles(
            'batching',
            'Batching floor',
            [2, 4, 0],
            ['p p p t p p', 'p v h v t p', 'l@up p p v p p', 'v v p^1 v l@down .', 'h p p^1 t p p'],
          )
          .tiles('cellar', 'Cellar', [4, 0, 2], ['p p l@down p h', 'p v v v t', 'h t p p p', 'v v v p v', 'x t p p p']),
      ),
      owned(level, 'Stores', 'dressing', (b) => b.use(MOULD_BENCH, [16, 0, 4], 90)),
      owned(level, 'Markers', 'events', (b) => b.marker('spawn', [1, 8, 1], 180).marker('exit', [5, 0, 11])),
    ],
  };
}
