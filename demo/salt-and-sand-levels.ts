import type { BuiltLevel } from './built-levels';
import { openGround, openLevel } from './open-levels';
import { ring } from './walls';

/** A quarry in terraces, with the sheds of those who dug there. */
function duneQuarry(): BuiltLevel {
  const terraces = [
    [34, 10],
    [27, 6.5],
    [20, 3],
  ] as const;
  return openLevel(
    openGround('dune-quarry', 46, 46, 26, 'sand'),
    (b) => {
      // Each terrace is a frame of four banks around the pit.
      for (const [reach, height] of terraces) {
        b.wall('north bank', -reach - 7, -reach - 7, reach + 7, -reach, 0, height, 'sand').wall(
          'west bank',
          -reach - 7,
          -reach,
          -reach,
          reach + 7,
          0,
          height,
          'sand',
        );
        b.wall('east bank', reach, -reach, reach + 7, 8, 0, height, 'sand');
      }
      b.wedge('way up', [-16.5, 0, 12], [5, 3, 7], 90, 'gravel').wedge(
        'second way up',
        [-23.75, 3, 2],
        [5, 3.5, 6.5],
        90,
        'gravel',
      );
      b.room(
        'tool shed',
        [
          [4, 18],
          [14, 18],
          [14, 26],
          [4, 26],
        ],
        {
          height: 3,
          material: 'plank',
          thickness: 0.2,
          floor: 0,
          doors: [
            { segment: 3, offset: 4, width: 1.8 },
            { segment: 0, offset: 5, sill: 1, head: 2.2 },
          ],
        },
      );
      for (const [x, z, size] of [
        [-6, -6, 3],
        [2, -11, 2.2],
        [9, -4, 2.6],
        [-11, 3, 1.8],
      ] as const)
        b.prism('sandstone', [x, 0, z], ring(0, 0, size, 5, x * 7), size, x * 11, 'sandstone');
    },
    (b) => {
      for (let i = 0; i < 9; i++) b.place('piece-rail-4-m', [18, 0, 34 - i * 4], 0);
      b.strew(
        ['piece-cart', 'piece-crate', 'piece-pallet'],
        60,
        -18,
        -16,
        17,
        40,
        0,
        (x, z) => z < 16 || z > 28 || x > 16,
      );
      b.strew(['piece-salt-cone', 'piece-rack'], 40, 28, 12, 44, 44, 0);
    },
    (b) =>
      b
        .marker('spawn', [38, 0, 38], 45)
        .marker('exit', [-30.5, 6.5, -10])
        .pickups(0, [
          [-14, -14],
          [9, 22],
          [0, 4],
          [36, 20],
        ]),
  );
}

/** Salt pans in rows between low dams, a boiling house, and heaps of salt. */
function brinePans(): BuiltLevel {
  const [columns, rows, side] = [5, 4, 14] as const;
  const [left, front] = [(-columns * side) / 2, (-rows * side) / 2];
  return openLevel(
    openGround('brine-pans', 52, 40, 18, 'clay'),
    (b) => {
      for (let i = 0; i <= columns; i++)
        b.wall('dam', left + i * side - 0.6, front - 0.6, left + i * side + 0.6, -front + 0.6, 0, 0.7, 'salt');
      for (let j = 0; j <= rows; j++)
        for (let i = 0; i < columns; i++)
          b.wall(
            'cross dam',
            left + i * side + 0.6,
            front + j * side - 0.6,
            left + (i + 1) * side - 0.6,
            front + j * side + 0.6,
            0,
            0.7,
            'salt',
          );
      for (let i = 0; i < columns; i++)
        for (let j = 0; j < rows; j++)
          if ((i + j) % 3 !== 0)
            b.box(
              'brine',
              [left + (i + 0.5) * side, 0, front + (j + 0.5) * side],
              [side - 1.2, 0.25, side - 1.2],
              0,
              'water',
              'decor',
            );
      b.room(
        'boiling house',
        [
          [38, -34],
          [50, -34],
          [50, -16],
          [38, -16],
        ],
        {
          height: 4,
          material: 'plank',
          thickness: 0.3,
          floor: 0,
          doors: [
            { segment: 3, offset: 9, width: 2.4, head: 3 },
            { segment: 1, offset: 5, sill: 1, head: 2.4, width: 3 },
          ],
        },
      );
      b.prism('vent', [44, 4.3, -25], ring(0, 0, 1.2, 8), 3, 0, 'iron');
    },
    (b) => {
      b.strew(
        ['piece-salt-cone'],
        70,
        left + 2,
        front + 2,
        -left - 2,
        -front - 2,
        0,
        (x, z) => (Math.floor((x - left) / side) + Math.floor((z - front) / side)) % 3 === 0,
      );
      b.strew(['piece-crate', 'piece-pallet', 'piece-cart'], 22, 39.5, -14, 50, 36, 0);
      b.strew(['piece-furnace'], 3, 42, -31, 47, -19, 0);
    },
    (b) =>
      b
        .marker('spawn', [-47, 0, 34], -90)
        .marker('exit', [47, 0, 37])
        .pickups(0.7, [
          [-21, 0],
          [7, -14],
          [21, 14],
        ])
        .pickups(0, [[41, -18]]),
  );
}

/** The levels of the Flats where something is dug or boiled. */
export const saltAndSandLevels = (): BuiltLevel[] => [duneQuarry(), brinePans()];
