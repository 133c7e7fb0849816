import {
  BAKES,
  DEFAULT_VIEW,
  EMPTY_CONTENT,
  boxPlanes,
  createRunContext,
  type Device,
  type LevelScene,
  type Piece,
  type PlanPoint,
  type StratumContent,
} from '@stravel/core';
import { timing, timingText, type Row } from '../measure';

const COLUMNS = 40;
const ROWS = 25;
const CELL_METRES = 15;
const SPEED = 4;
const ROUNDS = 5;

const device: Device = {
  id: 'box',
  name: 'Box',
  order: 'a0',
  budget: { triangles: 1e6, drawCalls: 1000, memoryBytes: 1e9, loadMs: 1e4, diskBytes: 1e9 },
  seekMs: 6,
  diskBytesPerSecond: 9e7,
  unpackBytesPerSecond: 2.5e8,
  activationSliceMs: 3,
  activationBytesPerMs: 80000,
  framesPerSecond: 60,
};

/** A thousand tiles, each a cell with five placements of three kits. */
function input(): LevelScene {
  const block: StratumContent['block'][number][] = [];
  const placement: StratumContent['placement'][number][] = [];
  for (let i = 0; i < COLUMNS; i++) {
    for (let j = 0; j < ROWS; j++) {
      const [x, z] = [(i + 0.5) * CELL_METRES, (j + 0.5) * CELL_METRES];
      block.push({
        id: `t${i}-${j}`,
        name: '',
        position: [x, -1, z],
        turn: [0, 0, 0],
        planes: boxPlanes([CELL_METRES, 1, CELL_METRES]),
        sight: 'hides',
        material: 'sand',
      });
      for (let k = 0; k < 5; k++)
        placement.push({
          id: `p${i}-${j}-${k}`,
          piece: `piece${(i + j + k) % 3}`,
          position: [x + k, 0, z + 3],
          turn: [0, 0, 0],
          scale: [1, 1, 1],
        });
    }
  }
  const pieces: Record<string, Piece> = {};
  for (let k = 0; k < 3; k++) {
    pieces[`piece${k}`] = {
      id: `piece${k}`,
      kit: `kit${k}`,
      name: `piece${k}`,
      bounds: { min: [-0.5, 0, -0.5], max: [0.5, 1, 0.5] },
      steps: [{ triangles: 500, vertices: 400, materials: 1, bytes: 400000 }],
    };
  }
  // Up and down the rows, over every cell: an hour at four metres a second.
  const knots: PlanPoint[] = [];
  for (let j = 0; j < ROWS; j++) {
    const z = (j + 0.5) * CELL_METRES;
    const ends: PlanPoint[] = [
      [2, z],
      [COLUMNS * CELL_METRES - 2, z],
    ];
    knots.push(...(j % 2 === 0 ? ends : ends.reverse()));
  }
  const level = {
    id: 'l',
    name: 'Flat',
    set: 's',
    order: 'a0',
    purpose: 'play' as const,
    key: 'level',
    code: '',
    values: {},
    strata: [{ stratum: 'own', switchedOff: false }],
    openSky: true,
    bounds: null,
    binned: null,
  };
  return {
    content: {
      level,
      strata: [
        {
          stratum: { id: 'own', name: 'Own', role: 'base', owner: 'l' },
          content: { ...EMPTY_CONTENT, block, placement },
        },
      ],
    },
    pieces,
    kits: {},
    kitLoads: Object.fromEntries(
      [0, 1, 2].map((k) => [`kit${k}`, { files: 2, memoryBytes: 400000, diskBytes: 220000 }]),
    ),
    grid: {
      id: 'l',
      sizeMetres: CELL_METRES,
      origin: [0, 0],
      loadMetres: 30,
      dropMetres: 45,
      readyMetres: 0,
      resident: [],
    },
    view: DEFAULT_VIEW,
    rehearsals: [
      {
        id: 'w',
        level: 'l',
        name: 'All of it',
        knots,
        floorMetres: 0,
        speedMetresPerSecond: SPEED,
        device: 'box',
      },
    ],
    devices: { [device.id]: device },
  };
}

/** An hour's walk over a thousand cells, against the hour. */
export function rehearsalBench(): Promise<Row[]> {
  const made = input();
  const walk = (): ReturnType<typeof BAKES.rehearsal.make> =>
    BAKES.rehearsal.make(BAKES.rehearsal.reads(made, 'w'), [], createRunContext());
  const samples: number[] = [];
  let result = walk();
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    result = walk();
    samples.push(performance.now() - start);
  }
  const took = timing(samples);
  const { durationMs, frames, loads, drops } = result.figures;
  const times = durationMs / took.medianMs;
  return Promise.resolve([
    {
      name: 'cells, minutes of walk, frames',
      value: `${result.cut.cells.length}, ${(durationMs / 60000).toFixed(1)}, ${frames}`,
    },
    { name: 'loads, drops, late', value: `${loads}, ${drops}, ${result.late.length}` },
    { name: 'cut, floor and walk', value: timingText(took) },
    { name: 'times as fast as real time', value: times.toFixed(0), goal: 'at least 1000', isMet: times >= 1000 },
  ]);
}
