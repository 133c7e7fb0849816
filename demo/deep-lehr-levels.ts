import type { PlanPoint } from '@stravel/core';
import { ownStrata, type BuiltLevel, type Fills } from './built-levels';
import { ring, type WallStyle } from './walls';

/** A level under the ground: closed by its own walls, floor and ceiling. */
function vault(level: string, ...built: Fills): BuiltLevel {
  return { level, openSky: false, bounds: null, strata: ownStrata(level, ...built) };
}

/** The mouth of the long oven: a hall that narrows to a tunnel with rails. */
function lehrMouth(): BuiltLevel {
  return vault(
    'lehr-mouth',
    (b) => {
      const style: WallStyle = { height: 5, material: 'fireclay', thickness: 0.6 };
      b.room(
        'lehr',
        [
          [-24, -9],
          [-6, -9],
          [0, -3],
          [30, -3],
          [30, 3],
          [0, 3],
          [-6, 9],
          [-24, 9],
        ],
        style,
      ).partition(
        'fire wall',
        [
          [0, -3],
          [0, 3],
        ],
        { ...style, doors: [{ segment: 0, offset: 3, width: 2.6, head: 3 }] },
      );
      for (let x = 6; x < 30; x += 6) {
        const narrow = x % 12 === 0 ? 1 : -1;
        b.box('buttress', [x, 0, narrow * 2.2], [1.2, 5, 1.4], 0, 'brick');
      }
      for (const z of [-6, 6]) b.box('bench', [-15, 0, z], [10, 0.8, 1.4], 0, 'iron');
    },
    (b) => {
      for (let x = -20; x <= 27; x += 4) b.place('piece-rail-4-m', [x, 0, 0], 90);
      b.place('piece-cart', [-17, 0, 0], 90).place('piece-cart', [9, 0, 0], 90);
      b.strew(
        ['piece-bottle-heap', 'piece-crate', 'piece-rack'],
        26,
        -22.5,
        -7.5,
        -8,
        7.5,
        0,
        (_x, z) => Math.abs(z) > 1.6 && Math.abs(z) < 5,
      );
    },
    (b) =>
      b
        .marker('spawn', [-22, 0, 2], -90)
        .marker('exit', [28, 0, 0])
        .marker('checkpoint', [3, 0, 0])
        .pickups(0, [
          [-10, -4],
          [15, 1.2],
          [24, -1.2],
        ]),
  );
}

/** A hall of pillars where glass cooled on racks, in two aisles and a nave. */
function coolingVault(): BuiltLevel {
  const pillars: PlanPoint[] = [];
  for (let i = 0; i < 5; i++) for (const z of [-5, 5]) pillars.push([-16 + i * 8, z]);
  return vault(
    'cooling-vault',
    (b) => {
      const style: WallStyle = { height: 6, material: 'stone', thickness: 0.6 };
      b.room(
        'vault',
        [
          [-21, -11],
          [21, -11],
          [21, 11],
          [-21, 11],
        ],
        style,
      );
      for (const [x, z] of pillars)
        b.prism('pillar', [x, 0, z], ring(0, 0, 0.9, 8), 6, 0, 'stone').box(
          'pillar foot',
          [x, 0, z],
          [2.2, 0.5, 2.2],
          0,
          'stone',
        );
      b.partition(
        'sorting wall',
        [
          [8, 11],
          [8, 5],
        ],
        { ...style, thickness: 0.3, doors: [{ segment: 0, offset: 3, width: 1.4 }] },
      ).partition(
        'weighing wall',
        [
          [-8, -11],
          [-8, -5],
        ],
        { ...style, thickness: 0.3, doors: [{ segment: 0, offset: 3, width: 1.4 }] },
      );
    },
    (b) => {
      for (let x = -18; x <= 18; x += 3)
        for (const z of [-10, 10])
          if (Math.abs(x - (z > 0 ? 8 : -8)) > 1.2) b.place('piece-rack', [x, 0, z], z > 0 ? 180 : 0);
      b.strew(['piece-bottle-heap', 'piece-crate', 'piece-pallet'], 44, -19, -3.4, 19, 3.4, 0, (x) => Math.abs(x) < 15);
    },
    (b) =>
      b
        .marker('spawn', [-19, 0, 0], -90)
        .marker('exit', [19, 0, -7.6])
        .marker('checkpoint', [0, 0, 7.6])
        .pickups(0, [
          [14, 8],
          [-14, -8],
          [0, -8],
        ]),
  );
}

/** A gallery with two turns, rooms on one side, grey with ash. */
function ashGallery(): BuiltLevel {
  return vault(
    'ash-gallery',
    (b) => {
      const style: WallStyle = { height: 3.6, material: 'ash plaster', thickness: 0.4 };
      b.room(
        'gallery',
        [
          [-26, -6],
          [6, -6],
          [6, -18],
          [26, -18],
          [26, 6],
          [-10, 6],
          [-10, 14],
          [-26, 14],
        ],
        style,
      );
      const rooms: readonly (readonly [PlanPoint, PlanPoint, number])[] = [
        [[-10, 6], [-10, -6], 9],
        [[6, -6], [6, 6], 3],
        [[6, -8], [26, -8], 14],
        [[-26, 6], [-10, 6], 4],
        [[16, 6], [16, -8], 11],
      ];
      for (const [from, to, offset] of rooms)
        b.partition('gallery wall', [from, to], { ...style, doors: [{ segment: 0, offset, width: 1.4 }] });
      for (const [x, z] of [
        [-18, 10],
        [21, -13],
        [11, 1],
      ] as const)
        b.prism('ash heap', [x, 0, z], ring(0, 0, 1.6, 7, x), 0.9, 0, 'ash earth');
    },
    (b) => {
      b.strew(
        ['piece-crate', 'piece-rack', 'piece-bottle-heap'],
        40,
        -24.5,
        -4.6,
        4.6,
        4.4,
        0,
        (x, z) => Math.abs(x + 10) > 2 && Math.abs(z) > 1,
      );
      b.strew(['piece-crate', 'piece-pallet'], 18, 17.5, -16.5, 24.5, -9.5, 0);
      b.strew(['piece-pallet'], 4, -24, 8, -12, 12.5, 0, (x) => Math.abs(x + 18) > 3);
    },
    (b) =>
      b
        .marker('spawn', [-24, 0, 12], 180)
        .marker('exit', [9, 0, -16])
        .pickups(0, [
          [-20, 0],
          [20, 0],
          [24, -16],
        ]),
  );
}

/** The heart of the oven: a hall of eight sides around the last furnace. */
function glassHeart(): BuiltLevel {
  return vault(
    'glass-heart',
    (b) => {
      b.room('heart', ring(0, 0, 17, 8, 22.5), { height: 9, material: 'fireclay', thickness: 0.8 });
      b.prism('hearth', [0, 0, 0], ring(0, 0, 5, 8, 22.5), 1, 0, 'brick')
        .prism('last furnace', [0, 1, 0], ring(0, 0, 3.4, 8), 4.4, 0, 'copper')
        .prism('crown', [0, 5.4, 0], ring(0, 0, 2, 8), 2.2, 0, 'glass');
      for (const [x, z] of ring(0, 0, 11.5, 8)) b.prism('column', [x, 0, z], ring(0, 0, 0.8, 6), 9, 0, 'stone');
      for (const turn of [45, 225]) {
        const [[x, z]] = ring(0, 0, 8.4, 1, turn);
        b.partition('screen', [ring(0, 0, 7.5, 1, turn - 24)[0], [x, z], ring(0, 0, 7.5, 1, turn + 24)[0]], {
          height: 3,
          material: 'iron',
          thickness: 0.2,
        });
      }
    },
    (b) => {
      for (const [x, z] of ring(0, 0, 14, 12, 15)) b.place('piece-lamp-post', [x, 0, z]);
      b.strew(
        ['piece-bottle-heap', 'piece-crate'],
        30,
        -14,
        -14,
        14,
        14,
        0,
        (x, z) => x * x + z * z > 90 && x * x + z * z < 180,
      );
    },
    (b) =>
      b
        .marker('spawn', [-14.4, 0, 0], -90)
        .marker('exit', [14.4, 0, 0])
        .pickups(0, [
          [0, -13],
          [0, 13],
        ])
        .pickups(1, [[4.2, 0]]),
  );
}

/** The last hall: a cross of four arms, and the great lamp in their middle. */
function relight(): BuiltLevel {
  const [arm, reach] = [5, 18] as const;
  const corners: PlanPoint[] = [
    [-arm, -reach],
    [arm, -reach],
    [arm, -arm],
    [reach, -arm],
    [reach, arm],
    [arm, arm],
    [arm, reach],
    [-arm, reach],
    [-arm, arm],
    [-reach, arm],
    [-reach, -arm],
    [-arm, -arm],
  ];
  return vault(
    'relight',
    (b) => {
      const style: WallStyle = { height: 8, material: 'marble', thickness: 0.6 };
      b.room('lamp hall', corners, style);
      b.prism('lamp foot', [0, 0, 0], ring(0, 0, 2.2, 8, 22.5), 1.2, 0, 'brass').prism(
        'great lamp',
        [0, 1.2, 0],
        ring(0, 0, 1.2, 8, 22.5),
        3,
        0,
        'glass',
      );
      const inner = { ...style, thickness: 0.4 };
      const arms: readonly (readonly [PlanPoint, PlanPoint])[] = [
        [
          [-arm, -arm - 4],
          [arm, -arm - 4],
        ],
        [
          [arm + 4, -arm],
          [arm + 4, arm],
        ],
        [
          [arm, arm + 4],
          [-arm, arm + 4],
        ],
        [
          [-arm - 4, arm],
          [-arm - 4, -arm],
        ],
      ];
      for (const [from, to] of arms)
        b.partition('arch', [from, to], { ...inner, doors: [{ segment: 0, offset: arm, width: 3, head: 4 }] });
    },
    (b) => {
      for (const [x, z] of ring(0, 0, 5.6, 4, 45)) b.place('piece-lamp-post', [x, 0, z]);
      b.strew(['piece-bottle-heap', 'piece-crate', 'piece-rack'], 30, -4, -17, 4, -10, 0, (x) => Math.abs(x) > 1.4);
      b.strew(['piece-cart', 'piece-pallet'], 8, 10.5, -3.5, 16, 3.5, 0, (_x, z) => Math.abs(z) > 1.6);
    },
    (b) =>
      b
        .marker('spawn', [0, 0, 16], 0)
        .marker('exit', [0, 0, -16])
        .marker('checkpoint', [0, 0, 7])
        .pickups(0, [
          [15, 0],
          [-15, 0],
        ]),
  );
}

/** The levels of the Deep Lehr that are built of walls. */
export const deepLehrLevels = (): BuiltLevel[] => [lehrMouth(), coolingVault(), ashGallery(), glassHeart(), relight()];
