import { boxPlanes } from '../geometry/block-solid';
import { randomStream } from '../random/random-stream';
import type { HidingBlock, SightInput } from '../sight/sight-input';

const ROOM_METRES = 6;
const WALL_METRES = 0.2;
const HEIGHT_METRES = 3;
const DOOR_METRES = 1;

/**
 * An extruded building of `columns` by `rows` rooms with a full-height doorway in every inner wall, its place along the
 * wall drawn at random. Seeded: the same building every time.
 */
export function roomGrid(columns: number, rows: number, seed = 'rooms'): SightInput {
  const random = randomStream(seed);
  const blocks: HidingBlock[] = [];
  const half = WALL_METRES / 2;
  const add = (x0: number, z0: number, x1: number, z1: number, y0 = 0, y1 = HEIGHT_METRES): void => {
    blocks.push({
      id: `b${String(blocks.length).padStart(6, '0')}`,
      position: [(x0 + x1) / 2, y0, (z0 + z1) / 2],
      turn: [0, 0, 0],
      planes: boxPlanes([x1 - x0, y1 - y0, z1 - z0]),
    });
  };
  const width = columns * ROOM_METRES;
  const depth = rows * ROOM_METRES;
  add(-half, -half, width + half, depth + half, -0.3, 0);
  add(-half, -half, width + half, depth + half, HEIGHT_METRES, HEIGHT_METRES + 0.3);
  const wall = (along: boolean, at: number, from: number, to: number, hasDoor: boolean): void => {
    const span = (a: number, b: number): void =>
      along ? add(a, at - half, b, at + half) : add(at - half, a, at + half, b);
    if (!hasDoor) {
      span(from, to);
      return;
    }
    const door = from + 0.4 + random.next() * (to - from - DOOR_METRES - 0.8);
    span(from, door);
    span(door + DOOR_METRES, to);
  };
  for (let j = 0; j <= rows; j++) {
    for (let i = 0; i < columns; i++) {
      wall(
        true,
        j * ROOM_METRES,
        i * ROOM_METRES + (i === 0 ? -half : half),
        (i + 1) * ROOM_METRES + (i === columns - 1 ? half : -half),
        j > 0 && j < rows,
      );
    }
  }
  for (let i = 0; i <= columns; i++) {
    for (let j = 0; j < rows; j++) {
      const outer = i === 0 || i === columns;
      const from = j * ROOM_METRES + (outer ? half : -half) * (j === 0 ? 1 : outer ? -1 : 1);
      const to = (j + 1) * ROOM_METRES + (outer ? -half : half) * (j === rows - 1 ? 1 : outer ? -1 : 1);
      wall(
        false,
        i * ROOM_METRES,
        outer ? from : j * ROOM_METRES - half,
        outer ? to : (j + 1) * ROOM_METRES + half,
        !outer,
      );
    }
  }
  return {
    blocks,
    dividers: [],
    spawns: [{ id: 'spawn', position: [ROOM_METRES / 2, 0, ROOM_METRES / 2] }],
    bounds: null,
    openSky: false,
  };
}
