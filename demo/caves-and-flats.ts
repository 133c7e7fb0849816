import type { CellGrid, Recipe, Rehearsal } from '@stravel/core';
import { owned, type BuiltLevel } from './built-levels';

/** A burrow of the demo; what is not given is the same for all. */
function burrow(level: string, over: Partial<Recipe>): Recipe {
  return {
    id: `${level}-burrow`,
    name: 'Burrow',
    kind: 'burrow',
    position: [-40, 0, -32],
    columns: 40,
    rows: 32,
    squareMetres: 2,
    heightMetres: 4,
    openShare: 0.36,
    birthChance: 0.08,
    mostWalkers: 6,
    border: 2,
    stepLimit: 200000,
    seed: 'hollow',
    material: 'potash',
    hasMarkers: true,
    ...over,
  };
}

function grotto(level: string, over: Partial<Recipe>): BuiltLevel {
  return {
    level,
    openSky: false,
    bounds: null,
    strata: [owned(level, 'Cave', 'section', (b) => b.recipe(burrow(level, over)))],
  };
}

/** Side of one tile of the flat, and of its cells, metres. */
const TILE = 50;
const TILES = 8;
const HALF = (TILE * TILES) / 2;
/** Middle of the cell with the wrecks. */
const WRECKS = [75, -25] as const;

function lowWater(): BuiltLevel {
  const level = 'low-water';
  return {
    level,
    openSky: true,
    bounds: { min: [-HALF, -1, -HALF], max: [HALF, 24, HALF] },
    strata: [
      owned(level, 'Flat', 'base', (b) => {
        for (let i = 0; i < TILES; i++)
          for (let j = 0; j < TILES; j++)
            b.wall(
              `tile ${i + 1}-${j + 1}`,
              -HALF + i * TILE,
              -HALF + j * TILE,
              -HALF + (i + 1) * TILE,
              -HALF + (j + 1) * TILE,
              -1,
              0,
              'wet sand',
            );
        // A breakwater over many cells, and a pier over two.
        b.wall('breakwater', -150, -96, 60, -92, 0, 2.5, 'slate').wall('pier', 20, 40, 80, 44, 0, 1.2, 'timber');
      }),
      owned(level, 'Flotsam', 'dressing', (b) => {
        b.strew(
          ['piece-mooring-post', 'piece-salt-cone', 'piece-hull-rib', 'piece-signal-lamp'],
          420,
          -HALF + 4,
          -HALF + 4,
          HALF - 4,
          HALF - 4,
          0,
          (x, z) => Math.abs(x - WRECKS[0]) > 30 || Math.abs(z - WRECKS[1]) > 30,
        );
        b.place('piece-wreck-hull', [62, 0, -36], 25).place('piece-wreck-hull', [88, 0, -14], 160, 0.8);
        b.place('piece-sea-stack', [56, 0, -8])
          .place('piece-sea-stack', [94, 0, -42], 60, 1.2)
          .place('piece-sea-stack', [92, 0, -30], 130, 0.7);
        for (let i = 0; i < 12; i++)
          b.place('piece-brine-boulder', [55 + ((i * 17) % 40), 0, -45 + ((i * 29) % 40)], i * 47, 0.6 + (i % 4) * 0.2);
      }),
      owned(level, 'Markers', 'events', (b) =>
        b
          .marker('spawn', [-180, 0, 150], -60)
          .marker('exit', [180, 0, -150])
          .marker('checkpoint', [0, 0, 30])
          .pickups(0, [
            [-150, 120],
            [-90, 40],
            [-40, 140],
            [20, -20],
            [110, 60],
            [150, -60],
            [-120, -150],
            [40, -160],
          ]),
      ),
      // What a run across the flat sets off, one link by another.
      owned(level, 'Stage', 'events', (b) =>
        b
          .volume('horn', 'Tide horn', 'narration-welcome', [-60, 0, 60], [24, 6, 24])
          .volume('wind', 'Cold wind', 'music-cold', [70, 0, -28], [40, 8, 40])
          .link('horn', 'enter', 'say', 'horn', { once: true })
          .link('horn', 'used', 'start', 'wind', { delaySeconds: 3 })
          .link('wind', 'last leaves', 'fade out', 'wind'),
      ),
    ],
  };
}

/** Levels that a recipe makes, and the open flat. */
export function cavesAndFlats(): BuiltLevel[] {
  return [
    grotto('potash-grotto', {}),
    grotto('sump', {
      seed: 'tide',
      columns: 30,
      rows: 44,
      position: [-30, 0, -44],
      openShare: 0.3,
      mostWalkers: 3,
      material: 'wet clay',
    }),
    lowWater(),
  ];
}

/** How the flat is cut: near cells are loaded, far ones dropped. */
export const LOW_WATER_GRID: CellGrid = {
  id: 'low-water',
  sizeMetres: TILE,
  origin: [-HALF, -HALF],
  loadMetres: 12,
  dropMetres: 40,
  readyMetres: 0,
  resident: [],
};

/** A run across the flat; on the handheld one cell comes too late. */
export const LOW_WATER_RUN: Rehearsal = {
  id: 'low-water-run',
  level: 'low-water',
  name: 'Run to the exit',
  knots: [
    [-180, 150],
    [-90, 90],
    [-20, 20],
    [70, -28],
    [130, -90],
    [180, -150],
  ],
  floorMetres: 0,
  speedMetresPerSecond: 6,
  device: 'handheld',
};
