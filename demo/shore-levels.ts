import type { PlanPoint } from '@stravel/core';
import type { BuiltLevel } from './built-levels';
import { openGround, openLevel } from './open-levels';
import { ring } from './walls';

/** A sea wall across the flat with three sluices, and the keeper's house on it. */
function tidalGate(): BuiltLevel {
  return openLevel(
    openGround('tidal-gate', 50, 34, 22, 'wet sand'),
    (b) => {
      for (const [x0, x1] of [
        [-50, -15],
        [-9, -3],
        [3, 9],
        [15, 50],
      ] as const)
        b.wall('sea wall', x0, -4, x1, 4, 0, 5, 'stone');
      for (const x of [-12, 0, 12]) {
        b.wall('sluice beam', x - 3, -1, x + 3, 1, 3.6, 5, 'iron').wall(
          'sluice gate',
          x - 3,
          -0.3,
          x + 3,
          0.3,
          2.4,
          3.6,
          'rust',
        );
      }
      b.wedge('ramp to the wall', [-34, 0, 9.5], [6, 5, 11], 0, 'stone').wedge(
        'ramp from the wall',
        [34, 0, -9.5],
        [6, 5, 11],
        180,
        'stone',
      );
      b.partition(
        'keeper\u2019s house',
        [
          [20, 3.4],
          [20, -3.4],
          [28, -3.4],
          [28, 3.4],
        ],
        {
          height: 3.2,
          base: 5,
          material: 'timber',
          thickness: 0.25,
          doors: [
            { segment: 0, offset: 3.4, width: 1.2 },
            { segment: 1, offset: 4, sill: 1, head: 2.2 },
          ],
        },
      );
      b.box('keeper\u2019s roof', [24, 8.2, 0], [9.5, 0.3, 8], 0, 'slate');
    },
    (b) => {
      b.strew(
        ['piece-mooring-post', 'piece-signal-lamp', 'piece-salt-cone'],
        60,
        -46,
        10,
        46,
        31,
        0,
        (x, z) => Math.abs(x + 34) > 6 || z > 17,
      );
      b.strew(
        ['piece-hull-rib', 'piece-mooring-post'],
        40,
        -46,
        -31,
        46,
        -8,
        0,
        (x, z) => Math.abs(x - 34) > 6 || z < -17,
      );
      for (let x = -46; x <= 46; x += 11.5) b.place('piece-lamp-post', [x, 5, 3.2]);
    },
    (b) =>
      b
        .marker('spawn', [-44, 0, 26], -120)
        .marker('exit', [44, 0, -26])
        .marker('checkpoint', [-34, 5, 0])
        .pickups(0, [
          [-12, 8],
          [0, -8],
          [12, 12],
        ]),
  );
}

/** A raised road over the mud in spans, one of them broken. */
function causeway(): BuiltLevel {
  return openLevel(
    openGround('causeway', 80, 20, 16, 'mud'),
    (b) => {
      for (let i = 0; i < 9; i++) {
        if (i === 5) continue;
        b.box('span', [-64 + i * 16, 0, i % 3 === 1 ? 1.2 : 0], [16, 1.4, 7], 0, 'stone');
      }
      b.wedge('landing', [-75.5, 0, 0], [7, 1.4, 7], -90, 'stone').wedge(
        'far landing',
        [75.5, 0, 0],
        [7, 1.4, 7],
        90,
        'stone',
      );
      b.wedge('broken span', [11, 0, 0], [5, 1.4, 6], 90, 'stone').wedge(
        'broken span',
        [21, 0, 0.4],
        [5, 1.4, 6],
        -90,
        'stone',
      );
      for (const x of [-48, 48])
        b.prism('watch tower', [x, 0, -12], ring(0, 0, 3.4, 8), 9, 0, 'brick').prism(
          'tower roof',
          [x, 9, -12],
          ring(0, 0, 4, 8),
          0.6,
          0,
          'slate',
        );
    },
    (b) => {
      b.strew(['piece-mooring-post', 'piece-hull-rib'], 110, -76, -18, 76, 18, 0, (_x, z) => Math.abs(z) > 6);
      for (let x = -60; x <= 60; x += 12) if (x !== 12) b.place('piece-lamp-post', [x, 1.4, -2.8]);
    },
    (b) =>
      b
        .marker('spawn', [-77, 0, 10], -90)
        .marker('exit', [77, 0, 10])
        .marker('checkpoint', [0, 1.4, 0])
        .pickups(0, [
          [-48, -6],
          [16, 6],
          [48, -6],
        ])
        .pickups(1.4, [[-30, 1]]),
  );
}

/** Where ships were left: hulls, stacks of rock, and a way of planks between them. */
function wreckReach(): BuiltLevel {
  return openLevel(
    openGround('wreck-reach', 60, 44, 30, 'wet sand'),
    (b) => {
      const planks: readonly PlanPoint[] = [
        [-44, 26],
        [-30, 18],
        [-14, 20],
        [2, 8],
        [16, -4],
        [32, -10],
      ];
      for (let i = 0; i + 1 < planks.length; i++) {
        const [[ax, az], [bx, bz]] = [planks[i], planks[i + 1]];
        b.partition(
          'gangway',
          [
            [ax, az],
            [bx, bz],
          ],
          { height: 0.4, material: 'plank', thickness: 1.6 },
        );
      }
      for (const [x, z, size, height] of [
        [-24, -16, 6, 11],
        [20, 24, 7, 14],
        [40, 16, 4, 8],
        [-46, -8, 5, 7],
      ] as const)
        b.prism('reef', [x, 0, z], ring(0, 0, size, 7, x), height, 0, 'rock');
    },
    (b) => {
      b.place('piece-wreck-hull', [-6, 0, -10], 70)
        .place('piece-wreck-hull', [36, 0, -24], 10, 0.9)
        .place('piece-sea-stack', [-36, 0, -30], 20, 0.9);
      for (let i = 0; i < 9; i++)
        b.place('piece-brine-boulder', [-50 + ((i * 23) % 100), 0, -34 + ((i * 31) % 20)], i * 40, 0.5 + (i % 3) * 0.2);
      b.strew(
        ['piece-hull-rib', 'piece-mooring-post', 'piece-crate'],
        90,
        -56,
        -40,
        56,
        40,
        0,
        (x, z) => Math.abs(x) > 18 || Math.abs(z) > 26,
      );
    },
    (b) =>
      b
        .marker('spawn', [-54, 0, 34], -60)
        .marker('exit', [52, 0, -36])
        .marker('checkpoint', [2, 0.4, 8])
        .pickups(0, [
          [-30, 6],
          [26, 6],
          [0, -30],
        ]),
  );
}

/** A mast on three platforms, and the huts of those who kept its light. */
function signalMast(): BuiltLevel {
  return openLevel(
    openGround('signal-mast', 40, 40, 44, 'gravel'),
    (b) => {
      b.prism('first platform', [0, 0, 0], ring(0, 0, 14, 8, 22.5), 3, 0, 'stone')
        .prism('second platform', [0, 3, 0], ring(0, 0, 9, 8, 22.5), 3, 0, 'stone')
        .prism('mast foot', [0, 6, 0], ring(0, 0, 2.6, 8), 8, 0, 'timber')
        .prism('mast', [0, 14, 0], ring(0, 0, 1.1, 8), 20, 0, 'timber')
        .prism('light room', [0, 34, 0], ring(0, 0, 2.4, 8), 2.6, 0, 'glass');
      b.wedge('first ramp', [16.9, 0, 0], [4, 3, 8], 90, 'stone').wedge(
        'second ramp',
        [-10.56, 3, 0],
        [3, 3, 4.5],
        -90,
        'stone',
      );
      for (const [x, z] of [
        [-28, -24],
        [26, -26],
      ] as const) {
        b.room(
          'hut',
          [
            [x - 4, z - 3],
            [x + 4, z - 3],
            [x + 4, z + 3],
            [x - 4, z + 3],
          ],
          {
            height: 2.8,
            material: 'brick',
            thickness: 0.3,
            floor: 0,
            doors: [{ segment: 2, offset: 4, width: 1.2, head: 2.1 }],
          },
        );
      }
    },
    (b) => {
      b.strew(
        ['piece-signal-lamp', 'piece-mooring-post', 'piece-crate'],
        70,
        -37,
        -37,
        37,
        37,
        0,
        (x, z) => x * x + z * z > 520 && z > -19,
      );
      for (const [x, z] of ring(0, 0, 12.4, 8)) b.place('piece-signal-lamp', [x, 3, z]);
    },
    (b) =>
      b
        .marker('spawn', [34, 0, 34], 45)
        .marker('exit', [4.5, 6, 0])
        .pickups(0, [
          [-28, -24],
          [26, -26],
        ])
        .pickups(3, [[-11.4, 4]]),
  );
}

/** The levels of the Flats along the water. */
export const shoreLevels = (): BuiltLevel[] => [tidalGate(), causeway(), wreckReach(), signalMast()];
