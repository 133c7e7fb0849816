import { cosDegrees, sinDegrees, type PlanPoint, type Wall } from '@stravel/core';

/** A door in a segment: which corner it begins at, from 0, and how far along it its middle is. Metres. */
export interface Door {
  readonly segment: number;
  readonly offset: number;
  readonly width?: number;
  readonly head?: number;
  /** Above the floor; a window where it is more than 0. */
  readonly sill?: number;
}

/** How a wall of the demo is, where it is not as most are. */
export interface WallStyle {
  readonly height: number;
  readonly material: string;
  readonly doors?: readonly Door[];
  readonly thickness?: number;
  readonly base?: number;
  /** Thickness of the floor of a room; 0 where it stands on a ground of its own. */
  readonly floor?: number;
  readonly ceiling?: number;
}

/** A wall along some corners; a closed one is a room. */
export function wallAlong(
  id: string,
  name: string,
  points: readonly PlanPoint[],
  closed: boolean,
  { height, material, doors = [], thickness = 0.4, base = 0, floor = 0.3, ceiling = 0.3 }: WallStyle,
): Wall {
  const corners = points.map((position, i) => ({ id: `c${i + 1}`, position }));
  return {
    id,
    name,
    corners,
    closed,
    baseMetres: base,
    heightMetres: height,
    thicknessMetres: thickness,
    openings: doors.map(({ segment, offset, width = 1.6, head = 2.4, sill = 0 }, i) => ({
      id: `o${i + 1}`,
      corner: corners[segment].id,
      offsetMetres: offset,
      widthMetres: width,
      sillMetres: sill,
      headMetres: head,
    })),
    floorMetres: closed ? floor : 0,
    ceilingMetres: closed ? ceiling : 0,
    sight: 'hides',
    material,
  };
}

/** Corners of a regular figure on the plan, by the map's directions: the first to the east. */
export function ring(x: number, z: number, radius: number, sides: number, turn = 0): PlanPoint[] {
  return Array.from({ length: sides }, (_unused, i): PlanPoint => {
    const degrees = (i / sides) * 360 + turn;
    return [round(x + radius * cosDegrees(degrees)), round(z + radius * sinDegrees(degrees))];
  });
}

/** To hundredths. */
export const round = (value: number): number => Math.round(value * 100) / 100;
