import {
  placePoint,
  placementBounds,
  turnMatrix,
  type Box3,
  type ItemKind,
  type Mask,
  type Piece,
  type Placement,
  type TileFloor,
} from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { surfaceOfBlock } from './block-meshes';
import { boundsOfVolume, lineOfPath, surfaceOfVolume } from './event-marks';

const MARKER_REACH = 0.5;

/** The box around boxes; undefined when there are none. */
export function boxAround(boxes: Iterable<Box3>): Box3 | undefined {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const box of boxes) {
    for (let k = 0; k < 3; k++) {
      min[k] = Math.min(min[k], box.min[k]);
      max[k] = Math.max(max[k], box.max[k]);
    }
  }
  return min[0] <= max[0] ? { min, max } : undefined;
}

/** Bounds of an item, undefined when it has none (a block that encloses nothing, a piece that is gone). */
export function boundsOfItem(
  document: StratumDocument,
  kind: ItemKind,
  id: string,
  pieces: Readonly<Record<string, Piece>>,
): Box3 | undefined {
  if (kind === 'block') {
    const block = document.tables.block.get(id);
    return block && surfaceOfBlock(block)?.bounds;
  }
  if (kind === 'placement') {
    const placement = document.tables.placement.get(id);
    const piece = placement && pieces[placement.piece];
    return piece && placementBounds(placement, piece.bounds);
  }
  if (kind === 'marker') {
    const marker = document.tables.marker.get(id);
    if (!marker) return undefined;
    const [x, y, z] = marker.position;
    return { min: [x - MARKER_REACH, y, z - MARKER_REACH], max: [x + MARKER_REACH, y + 1.8, z + MARKER_REACH] };
  }
  if (kind === 'volume') {
    const volume = document.tables.volume.get(id);
    return volume && boundsOfVolume(volume);
  }
  if (kind === 'tileFloor') {
    const floor = document.tables.tileFloor.get(id);
    return floor && boundsOfFloor(floor);
  }
  if (kind === 'assembly') {
    const { laid } = document;
    return (
      laid &&
      boxAround(
        (laid.items.get(id) ?? []).flatMap((item) => boundsOfItem(laid.document, item.kind, item.id, pieces) ?? []),
      )
    );
  }
  if (kind === 'mask') {
    const mask = document.tables.mask.get(id);
    return mask && boundsOfMask(mask);
  }
  if (kind === 'path') {
    const path = document.tables.path.get(id);
    return path && boundsOfLine(lineOfPath(path));
  }
  const divider = document.tables.divider.get(id);
  if (!divider) return undefined;
  const { from, to, bottom, top } = divider;
  return {
    min: [Math.min(from[0], to[0]), bottom, Math.min(from[1], to[1])],
    max: [Math.max(from[0], to[0]), top, Math.max(from[1], to[1])],
  };
}

/** Face loops of a block, or of the turned box of a placement's piece; undefined for things that have none. */
export function facesOfItem(
  document: StratumDocument,
  kind: ItemKind,
  id: string,
  pieces: Readonly<Record<string, Piece>>,
): readonly Float64Array[] | undefined {
  if (kind === 'block') {
    const block = document.tables.block.get(id);
    return block && surfaceOfBlock(block)?.faces;
  }
  if (kind === 'volume') {
    const volume = document.tables.volume.get(id);
    return volume && surfaceOfVolume(volume)?.faces;
  }
  if (kind !== 'placement') return undefined;
  const placement = document.tables.placement.get(id);
  const piece = placement && pieces[placement.piece];
  return piece && boxFaces(placement, piece.bounds);
}

/** Corners of a box's faces by number, bit 0 for x, 1 for y, 2 for z; each loop counter-clockwise from outside. */
const BOX_LOOPS = [
  [0, 4, 6, 2],
  [1, 3, 7, 5],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 2, 3, 1],
  [4, 5, 7, 6],
];

function boxFaces({ position, turn, scale }: Placement, { min, max }: Box3): Float64Array[] {
  const m = turnMatrix(turn);
  const corners = Array.from({ length: 8 }, (_unused, i) =>
    placePoint(position, m, scale, [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]]),
  );
  return BOX_LOOPS.map((loop) => Float64Array.from(loop.flatMap((i) => corners[i])));
}

function boundsOfFloor({ position: [x, y, z], squareMetres, columns, rows }: TileFloor): Box3 {
  return { min: [x, y, z], max: [x + columns * squareMetres, y + 0.01, z + rows * squareMetres] };
}

function boundsOfMask({ position: [x, y, z], pixelsPerMetre, columns, rows }: Mask): Box3 {
  return { min: [x, y, z], max: [x + columns / pixelsPerMetre, y + 0.01, z + rows / pixelsPerMetre] };
}

function boundsOfLine(line: Float64Array): Box3 {
  const points = Array.from({ length: line.length / 3 }, (_unused, i): Box3['min'] => [
    line[i * 3],
    line[i * 3 + 1],
    line[i * 3 + 2],
  ]);
  return boxAround(points.map((point) => ({ min: point, max: point }))) ?? { min: points[0], max: points[0] };
}
