import { WORKS_BASE, owned, type BuiltLevel } from './built-levels';
import { ring } from './walls';

/** The hall of the first furnace: a charge room, the furnace under its chimney, and a store behind a wall with a window. */
function furnaceOne(): BuiltLevel {
  const level = 'furnace-one';
  const brick = { height: 7, material: 'brick', floor: 0 };
  return {
    level,
    openSky: false,
    bounds: null,
    strata: [
      WORKS_BASE,
      owned(level, 'Structure', 'structure', (b) => {
        b.room(
          'furnace hall',
          [
            [-18, -11],
            [18, -11],
            [18, 5],
            [12, 11],
            [-18, 11],
          ],
          { ...brick, thickness: 0.5 },
        )
          .partition(
            'charge room wall',
            [
              [-7, -11],
              [-7, 11],
            ],
            { ...brick, doors: [{ segment: 0, offset: 16, width: 2.4, head: 3 }] },
          )
          .partition(
            'store wall',
            [
              [-7, 1],
              [-18, 1],
            ],
            {
              ...brick,
              doors: [
                { segment: 0, offset: 8, width: 1.4 },
                { segment: 0, offset: 3.4, width: 2, sill: 1, head: 2.2 },
              ],
            },
          );
        b.prism('furnace', [6, 0, 0], ring(0, 0, 3.4, 10), 3.2, 0, 'fireclay')
          .prism('furnace crown', [6, 3.2, 0], ring(0, 0, 2.2, 10), 2, 0, 'fireclay')
          .prism('flue', [6, 5.2, 0], ring(0, 0, 1.1, 8), 1.8, 0, 'iron');
        b.box('charge floor', [6, 0, -7.5], [12, 0.6, 3], 0, 'timber').wedge(
          'barrow ramp',
          [-1.5, 0, -7.5],
          [3, 0.6, 3],
          -90,
          'timber',
        );
      }),
      owned(level, 'Dressing', 'dressing', (b) => {
        b.strew(['piece-crate', 'piece-pallet', 'piece-rack'], 34, -16.5, 2.2, -8.4, 9.5, 0);
        b.strew(['piece-bottle-heap', 'piece-cart', 'piece-crate'], 26, -16.5, -9.5, -8.4, -0.4, 0);
        b.strew(['piece-crate', 'piece-bottle-heap'], 18, -5, 4.5, 14, 9, 0, (x, z) => x + z < 20);
        for (const [x, z, turn] of [
          [1.2, 2.6, 40],
          [10.8, 2.6, -40],
          [10.8, -3.4, -140],
        ] as const)
          b.place('piece-furnace', [x, 0, z], turn, 0.8);
        for (let x = -14; x <= 14; x += 7) b.place('piece-lamp-post', [x, 0, -10.2]);
      }),
      owned(level, 'Markers', 'events', (b) =>
        b
          .marker('spawn', [-15, 0, -6], -90)
          .marker('exit', [15, 0, -5])
          .marker('checkpoint', [-4, 0, 6])
          .pickups(0, [
            [-12, 8],
            [-3, -5],
            [14, 4],
          ])
          .pickups(0.6, [[10, -7.5]]),
      ),
    ],
  };
}

/** The foot of the great chimney: the stack, its flues on the ground, coal in heaps between low walls. */
function chimneyFoot(): BuiltLevel {
  const level = 'chimney-foot';
  const low = { height: 2.6, material: 'brick', thickness: 0.6 };
  return {
    level,
    openSky: true,
    bounds: { min: [-46, -1, -46], max: [46, 46, 46] },
    strata: [
      WORKS_BASE,
      owned(level, 'Structure', 'structure', (b) => {
        b.prism('plinth', [0, 0, 0], ring(0, 0, 9, 8, 22.5), 4, 0, 'stone')
          .prism('stack', [0, 4, 0], ring(0, 0, 6.4, 8, 22.5), 24, 0, 'brick')
          .prism('collar', [0, 28, 0], ring(0, 0, 7, 8, 22.5), 1.4, 0, 'iron')
          .prism('upper stack', [0, 29.4, 0], ring(0, 0, 5, 8, 22.5), 14, 0, 'brick');
        for (const [turn, length] of [
          [0, 26],
          [90, 22],
          [180, 24],
        ] as const) {
          const [[x, z]] = ring(0, 0, 8 + length / 2, 1, turn);
          b.box('flue', [x, 0, z], [length, 3.4, 3.6], -turn, 'brick');
        }
        b.partition(
          'coal yard wall',
          [
            [-40, 10],
            [-22, 10],
            [-22, 38],
            [-40, 38],
          ],
          { ...low, doors: [{ segment: 1, offset: 14, width: 4 }] },
        ).partition(
          'ash yard wall',
          [
            [24, -38],
            [24, -14],
            [42, -14],
          ],
          { ...low, doors: [{ segment: 0, offset: 12, width: 3.4 }] },
        );
        for (const [x, z, size] of [
          [-34, 18, 7],
          [-30, 30, 9],
          [-36, 33, 5],
        ] as const)
          b.prism('coal heap', [x, 0, z], ring(0, 0, size / 2, 7, size * 9), size * 0.45, 0, 'coal');
        for (const [x, z] of [
          [33, -22],
          [37, -31],
        ] as const)
          b.wedge('ash heap', [x, 0, z], [7, 2.4, 9], x, 'ash grey earth');
      }),
      owned(level, 'Dressing', 'dressing', (b) => {
        b.strew(
          ['piece-cart', 'piece-crate', 'piece-pallet', 'piece-rail-4-m'],
          90,
          -42,
          -42,
          42,
          42,
          0,
          (x, z) => x * x + z * z > 1000 && (x > -20 || z < 8) && (x < 22 || z > -12),
        );
        for (let i = 0; i < 7; i++) b.place('piece-rail-4-m', [-20 + i * 4, 0, 42], 90);
        b.strew(['piece-stack-tall', 'piece-stack-short'], 8, -44, -44, -14, -14, 0);
      }),
      owned(level, 'Markers', 'events', (b) =>
        b
          .marker('spawn', [-40, 0, -4], -90)
          .marker('exit', [38, 0, 38])
          .pickups(0, [
            [-28, 24],
            [34, -34],
            [12, -20],
            [0, 30],
          ]),
      ),
    ],
  };
}

/** The levels of the Works that are built of walls. */
export const worksLevels = (): BuiltLevel[] => [furnaceOne(), chimneyFoot()];
