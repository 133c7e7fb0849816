import {
  localBounds,
  stretchPlanes,
  turnMatrix,
  turnVector,
  type Block,
  type Divider,
  type ItemKind,
  type ItemOfKind,
  type Json,
  type Marker,
  type Operation,
  type Piece,
  type Placement,
  type TurnDegrees,
  type Vector3,
} from '@stravel/core';
import { create, newId, remove, setField } from '../../edits/operations';

/** The kinds of item that this desk edits; recipes and pins belong to Sections. */
export const LAYOUT_KINDS = ['block', 'placement', 'marker', 'divider'] as const satisfies readonly ItemKind[];
export type LayoutItem = ItemOfKind[(typeof LAYOUT_KINDS)[number]];

/** An item with its place, as it stands. */
export interface PlacedItem {
  readonly stratum: string;
  readonly kind: ItemKind;
  readonly item: LayoutItem;
}

const MICRO = 1e6;

/** Lengths and angles are kept to a millionth, so that sums of steps stay round. */
export function rounded(value: number): number {
  return Math.round(value * MICRO) / MICRO + 0;
}

export function roundedVector([x, y, z]: Vector3): Vector3 {
  return [rounded(x), rounded(y), rounded(z)];
}

/** Moves items by the same amount, metres. */
export function moveItems(items: readonly PlacedItem[], by: Vector3): Operation[] {
  return items.flatMap(({ stratum, kind, item }) => {
    if (kind === 'divider') {
      const divider = item as Divider;
      return [
        setField(stratum, kind, item, 'from', [rounded(divider.from[0] + by[0]), rounded(divider.from[1] + by[2])]),
        setField(stratum, kind, item, 'to', [rounded(divider.to[0] + by[0]), rounded(divider.to[1] + by[2])]),
        ...(by[1] === 0 ? [] : [setField(stratum, kind, item, 'bottom', rounded(divider.bottom + by[1])), setField(stratum, kind, item, 'top', rounded(divider.top + by[1]))]),
      ];
    }
    const { position } = item as Block | Placement | Marker;
    return [setField(stratum, kind, item, 'position', roundedVector([position[0] + by[0], position[1] + by[1], position[2] + by[2]]) as unknown as Json)];
  });
}

/** Turns items together about an upright axis through a point of the plan. Degrees, counter-clockwise seen from above. */
export function turnItems(items: readonly PlacedItem[], degrees: number, about: readonly [number, number]): Operation[] {
  const m = turnMatrix([degrees, 0, 0]);
  const turned = (x: number, y: number, z: number): Vector3 => {
    const [dx, dy, dz] = turnVector(m, x - about[0], y, z - about[1]);
    return roundedVector([dx + about[0], dy, dz + about[1]]);
  };
  return items.flatMap(({ stratum, kind, item }) => {
    if (kind === 'divider') {
      const { from, to } = item as Divider;
      const flat = ([x, z]: readonly [number, number]): Json => {
        const p = turned(x, 0, z);
        return [p[0], p[2]];
      };
      return [setField(stratum, kind, item, 'from', flat(from)), setField(stratum, kind, item, 'to', flat(to))];
    }
    const { position } = item as Block | Placement | Marker;
    const moved = setField(stratum, kind, item, 'position', turned(...position) as unknown as Json);
    const yaw = kind === 'marker' ? wholeTurn((item as Marker).turn + degrees) : turnAbout((item as Block | Placement).turn, degrees);
    return [moved, setField(stratum, kind, item, 'turn', yaw as unknown as Json)];
  });
}

/** Size of a block or a placement in its own frame, metres; undefined for things that have none. */
export function sizeOfItem({ kind, item }: PlacedItem, piece: Piece | undefined): Vector3 | undefined {
  if (kind === 'block') return sizeOfPlanes((item as Block).planes);
  if (kind !== 'placement' || !piece) return undefined;
  const natural = naturalSize(piece);
  const { scale } = item as Placement;
  return [natural[0] * scale[0], natural[1] * scale[1], natural[2] * scale[2]];
}

function naturalSize({ bounds: { min, max } }: Piece): Vector3 {
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
}

/** Sets the size of a block by stretching its planes about its own origin, or of a placement by its scale. Metres, each above 0. */
export function resizeItem({ stratum, kind, item }: PlacedItem, size: Vector3, piece: Piece | undefined): Operation[] {
  if (kind === 'placement' && piece) {
    const natural = naturalSize(piece);
    return [setField(stratum, kind, item, 'scale', roundedVector([size[0] / natural[0], size[1] / natural[1], size[2] / natural[2]]) as unknown as Json)];
  }
  if (kind !== 'block') return [];
  const { planes } = item as Block;
  const now = sizeOfPlanes(planes);
  const factors: Vector3 = [size[0] / now[0], size[1] / now[1], size[2] / now[2]];
  return [setField(stratum, kind, item, 'planes', stretchPlanes(planes, factors) as unknown as Json)];
}

/** Extent of planes in their own frame, metres to the micrometre. */
export function sizeOfPlanes(planes: Block['planes']): Vector3 {
  const { min, max } = localBounds(planes);
  return roundedVector([max[0] - min[0], max[1] - min[1], max[2] - min[2]]);
}

/** Copies of items beside the originals. */
export function duplicateItems(items: readonly PlacedItem[], by: Vector3): { copies: PlacedItem[]; operations: Operation[] } {
  const copies = items.map(({ stratum, kind, item }) => ({ stratum, kind, item: { ...item, id: newId() } }));
  const moved = copies.map((copy) => ({ ...copy, item: { ...copy.item, ...movedFields(copy, by) } as LayoutItem }));
  return { copies: moved, operations: moved.map(({ stratum, kind, item }) => create(stratum, kind, item)) };
}

export function deleteItems(items: readonly PlacedItem[]): Operation[] {
  return items.map(({ stratum, kind, item }) => remove(stratum, kind, item));
}

/** The fields that a move changes, with their new values. */
function movedFields(item: PlacedItem, by: Vector3): Record<string, Json> {
  return Object.fromEntries(moveItems([item], by).map(({ field, after }) => [field as string, after]));
}

function turnAbout([yaw, pitch, roll]: TurnDegrees, degrees: number): TurnDegrees {
  return [wholeTurn(yaw + degrees), pitch, roll];
}

/** The same angle in (−180, 180]. */
function wholeTurn(degrees: number): number {
  const turn = degrees - Math.floor(degrees / 360) * 360;
  return rounded(turn > 180 ? turn - 360 : turn);
}
