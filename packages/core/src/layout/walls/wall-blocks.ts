import { CoreError } from '../../errors';
import { convexParts } from '../../geometry/convex-parts';
import { blockSurfaceIfAny, prismPlanes } from '../../geometry/block-solid';
import type { StratumContent } from '../../model/items';
import type { Block, BlockPlane } from '../../model/block';
import type { PlanPoint, TurnDegrees, Vector3 } from '../../model/vector';
import type { Wall } from '../../model/wall';
import { laidId } from '../assemblies/lay-assemblies';
import { wallPlan, type HalfPlane, type WallSegment } from './wall-segments';

const UNTURNED: TurnDegrees = [0, 0, 0];
/** Parts of a wall that are thinner than this in any direction are left out, metres. */
export const MIN_PART_METRES = 1e-4;

/** Blocks of a wall, made once a record: many ask for them, and a record never changes. */
const made = new WeakMap<Wall, readonly Block[]>();

/**
 * The convex blocks of a wall: one a segment, around openings up to four pieces an opening, triangles at corners that are not mitred,
 * and the floor and ceiling of a closed one. They meet face to face without gaps. Ids begin with the wall's, as `laidId` has it.
 */
export function blocksOfWall(wall: Wall): readonly Block[] {
  const known = made.get(wall);
  if (known) return known;
  const blocks = makeBlocks(wall);
  made.set(wall, blocks);
  return blocks;
}

/** A stratum's content with the blocks of its walls among its own, so that what reads blocks need know no walls. */
export function withWallBlocks(content: StratumContent): StratumContent {
  if (content.wall.length === 0) return content;
  return { ...content, block: [...content.block, ...content.wall.flatMap(blocksOfWall)] };
}

function makeBlocks(wall: Wall): Block[] {
  const { segments, wedges, inside } = wallPlan(wall);
  const { baseMetres, heightMetres, floorMetres, ceilingMetres, sight, material, closed } = wall;
  const position: Vector3 = [wall.corners[0].position[0], baseMetres, wall.corners[0].position[1]];
  const slabs = closed ? convexParts(inside) : [];
  // Beside a floor and a ceiling the wall goes on to their far sides.
  const low = slabs.length > 0 ? -floorMetres : 0;
  const high = heightMetres + (slabs.length > 0 ? ceilingMetres : 0);
  const blocks: Block[] = [];
  const counts = new Map<string, number>();
  const add = (part: string, planes: readonly BlockPlane[]): void => {
    const count = (counts.get(part) ?? 0) + 1;
    counts.set(part, count);
    const block: Block = {
      id: laidId(wall.id, `${part}-${count}`),
      name: wall.name || 'wall',
      position,
      turn: UNTURNED,
      planes,
      sight,
      material,
      ...(wall.group ? { group: wall.group } : {}),
    };
    if (blockSurfaceIfAny(block)) blocks.push(block);
  };
  for (const segment of segments) {
    for (const { ends, bottom, top } of piecesOf(segment, wall, low, high))
      add(segment.corner, [...[...segment.faces, ...ends].map(upright), ...between(bottom, top)]);
  }
  for (const { corner, sides } of wedges) add(corner, [...sides.map(upright), ...between(low, high)]);
  for (const part of slabs) {
    if (floorMetres > 0) add('floor', slabPlanes(part, -floorMetres, 0));
    if (ceilingMetres > 0) add('ceiling', slabPlanes(part, heightMetres, high));
  }
  return blocks;
}

const upright = ([nx, nz, offset]: HalfPlane): BlockPlane => [nx, 0, nz, offset];
const between = (bottom: number, top: number): BlockPlane[] => [
  [0, 1, 0, top],
  [0, -1, 0, -bottom + 0],
];

function slabPlanes(part: readonly PlanPoint[], bottom: number, top: number): BlockPlane[] {
  return [...between(bottom, top), ...prismPlanes(part, top - bottom).slice(2)];
}

interface WallPiece {
  readonly ends: readonly [HalfPlane, HalfPlane];
  readonly bottom: number;
  readonly top: number;
}

/** A segment without its openings, piece by piece along it and from bottom to top. */
function piecesOf(segment: WallSegment, { openings }: Wall, low: number, high: number): WallPiece[] {
  const [first, last] = segment.whole;
  const own = openings
    .filter(({ corner }) => corner === segment.corner)
    .map(({ offsetMetres, widthMetres, sillMetres, headMetres }) => ({
      from: Math.max(offsetMetres - widthMetres / 2, first),
      to: Math.min(offsetMetres + widthMetres / 2, last),
      bottom: sillMetres,
      top: headMetres,
    }))
    .filter(({ from, to }) => to - from > MIN_PART_METRES);
  const cuts = [...new Set(own.flatMap(({ from, to }) => [from, to]))].sort((a, b) => a - b);
  const spans: [number, number][] = [-Infinity, ...cuts].map((from, i) => [from, i < cuts.length ? cuts[i] : Infinity]);
  return spans.flatMap(([from, to]) => {
    if (Math.min(to, segment.lengthMetres) - Math.max(from, 0) <= MIN_PART_METRES && cuts.length > 0) return [];
    const over = own.filter((opening) => opening.from <= from && opening.to >= to);
    const ends: WallPiece['ends'] = [
      from === -Infinity ? segment.ends[0] : across(segment, from, -1),
      to === Infinity ? segment.ends[1] : across(segment, to, 1),
    ];
    return solidHeights(over, low, high).map(([bottom, top]) => ({ ends, bottom, top }));
  });
}

/** The plane across a segment at a length from its first corner. @param side 1 with what comes before inside, -1 with what comes after */
function across({ direction: [dx, dz], from }: WallSegment, at: number, side: 1 | -1): HalfPlane {
  const offset = dx * from[0] + dz * from[1] + at;
  return [side * dx + 0, side * dz + 0, side * offset + 0];
}

/** What is left of the heights between two when openings are taken away. */
function solidHeights(
  openings: readonly { readonly bottom: number; readonly top: number }[],
  low: number,
  high: number,
): [number, number][] {
  const solid: [number, number][] = [];
  let from = low;
  for (const { bottom, top } of [...openings].sort((a, b) => a.bottom - b.bottom)) {
    if (bottom - from > MIN_PART_METRES) solid.push([from, Math.min(bottom, high)]);
    from = Math.max(from, top);
  }
  if (high - from > MIN_PART_METRES) solid.push([from, high]);
  return solid;
}

/** @throws CoreError 'WALL_NO_BLOCKS' when nothing of the wall is solid */
export function detachedBlocks(wall: Wall, newId: () => string): Block[] {
  const blocks = blocksOfWall(wall).map((block) => ({ ...block, id: newId() }));
  if (blocks.length === 0)
    throw new CoreError(
      'WALL_NO_BLOCKS',
      'wall: it has no solid part to turn into blocks; its corners are all in one place',
    );
  return blocks;
}
