import {
  boxPlanes,
  cylinderPlanes,
  prismPlanes,
  toMicro,
  wedgePlanes,
  yawOfDirection,
  type AssemblyUse,
  type Block,
  type BlockPlane,
  type Marker,
  type Path,
  type Placement,
  type PlanPoint,
  type Vector3,
  type Volume,
  withKnotIds,
} from '@stravel/core';
import { newId } from '../../edits/operations';
import type { LayoutState } from './store/layout-store';

const MIN_METRES = 0.01;
const UNTURNED = [0, 0, 0] as const;

/** Middle and size of a rectangle of the plan, metres; undefined when it is too small to be meant. */
function rectangle(
  [x0, z0]: PlanPoint,
  [x1, z1]: PlanPoint,
): { readonly middle: PlanPoint; readonly size: PlanPoint } | undefined {
  const size: PlanPoint = [toMicro(Math.abs(x1 - x0)), toMicro(Math.abs(z1 - z0))];
  return size[0] < MIN_METRES || size[1] < MIN_METRES
    ? undefined
    : { middle: [toMicro((x0 + x1) / 2), toMicro((z0 + z1) / 2)], size };
}

/** Middle of an outline, and the outline about it. @param points at least one */
function aboutMiddle(points: readonly PlanPoint[]): { readonly middle: PlanPoint; readonly outline: PlanPoint[] } {
  const mean = (k: 0 | 1): number => toMicro(points.reduce((sum, point) => sum + point[k], 0) / points.length);
  const middle: PlanPoint = [mean(0), mean(1)];
  return { middle, outline: points.map(([x, z]): PlanPoint => [toMicro(x - middle[0]), toMicro(z - middle[1])]) };
}

function block(name: string, planes: readonly BlockPlane[], position: Vector3): Block {
  return { id: newId(), name, position, turn: UNTURNED, planes, sight: 'hides', material: 'brick' };
}

/** A box, wedge or cylinder over a dragged rectangle. @throws CoreError 'CYLINDER_SIDES' */
export function draggedBlock(
  { tool, blockHeight, sides }: Pick<LayoutState, 'tool' | 'blockHeight' | 'sides'>,
  floor: number,
  from: PlanPoint,
  to: PlanPoint,
): Block | undefined {
  const area = rectangle(from, to);
  if (!area) return undefined;
  const size: Vector3 = [area.size[0], blockHeight, area.size[1]];
  const planes =
    tool === 'wedge' ? wedgePlanes(size) : tool === 'cylinder' ? cylinderPlanes(size, sides) : boxPlanes(size);
  return block(tool, planes, [area.middle[0], floor, area.middle[1]]);
}

/** A prism over an outline. @throws CoreError 'OUTLINE_NOT_CONVEX', 'OUTLINE_TOO_SHORT' */
export function outlinedBlock(blockHeight: number, floor: number, points: readonly PlanPoint[]): Block {
  const { middle, outline } = aboutMiddle(points);
  return block('prism', prismPlanes(outline, blockHeight), [middle[0], floor, middle[1]]);
}

/** A box or a sphere over a dragged rectangle; a sphere goes from its middle to where one lets go. */
export function draggedVolume(
  { volumeForm, volumeKind, blockHeight }: VolumeRequest,
  name: string,
  floor: number,
  from: PlanPoint,
  to: PlanPoint,
): Volume | undefined {
  const base = { id: newId(), name, kind: volumeKind, turn: UNTURNED };
  if (volumeForm === 'sphere') {
    const radiusMetres = toMicro(Math.hypot(to[0] - from[0], to[1] - from[1]));
    return radiusMetres < MIN_METRES
      ? undefined
      : {
          ...base,
          position: [from[0], toMicro(floor + radiusMetres), from[1]],
          shape: { form: 'sphere', radiusMetres },
        };
  }
  const area = rectangle(from, to);
  return (
    area && {
      ...base,
      position: [area.middle[0], floor, area.middle[1]],
      shape: { form: 'box', size: [area.size[0], blockHeight, area.size[1]] },
    }
  );
}

/** A prism over an outline. @throws CoreError as `outlinedBlock` */
export function outlinedVolume(
  { volumeKind, blockHeight }: VolumeRequest,
  name: string,
  floor: number,
  points: readonly PlanPoint[],
): Volume {
  const { middle, outline } = aboutMiddle(points);
  prismPlanes(outline, blockHeight);
  return {
    id: newId(),
    name,
    kind: volumeKind,
    position: [middle[0], floor, middle[1]],
    turn: UNTURNED,
    shape: { form: 'prism', outline, heightMetres: blockHeight },
  };
}

type VolumeRequest = Pick<LayoutState, 'volumeForm' | 'volumeKind' | 'blockHeight'>;

/** A path through points of the plan; undefined with fewer than two different ones. */
export function drawnPath(form: Path['form'], floor: number, points: readonly PlanPoint[]): Path | undefined {
  const knots = points.filter((point, i) => i === 0 || point[0] !== points[i - 1][0] || point[1] !== points[i - 1][1]);
  if (knots.length < 2) return undefined;
  return {
    id: newId(),
    name: 'path',
    form,
    closed: false,
    knots: withKnotIds(knots.map(([x, z]) => ({ position: [x, floor, z], widthMetres: 2, tags: [], handle: null }))),
  };
}

export function placedPiece(piece: string, floor: number, [x, z]: PlanPoint): Placement {
  return { id: newId(), piece, position: [x, floor, z], turn: UNTURNED, scale: [1, 1, 1] };
}

export function placedAssembly(assembly: string, floor: number, [x, z]: PlanPoint): AssemblyUse {
  return { id: newId(), assembly, position: [x, floor, z], turn: 0 };
}

/** A marker that looks where one drags to. */
export function draggedMarker(kind: Marker['kind'], floor: number, [x, z]: PlanPoint, to: PlanPoint): Marker {
  const far = Math.hypot(to[0] - x, to[1] - z) > MIN_METRES;
  return {
    id: newId(),
    kind,
    position: [x, floor, z],
    turn: far ? toMicro(Math.round(yawOfDirection(to[0] - x, to[1] - z))) : 0,
  };
}
