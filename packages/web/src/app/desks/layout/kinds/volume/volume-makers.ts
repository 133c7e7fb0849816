import { prismPlanes, toMicro, type PlanPoint, type Volume, type VolumeShape } from '@stravel/core';
import { newId } from '../../../../edits/operations';
import { MIN_METRES, UNTURNED, aboutMiddle, areaBetween } from '../../plan/areas';

/** What is set for new volumes. */
export interface VolumeRequest {
  readonly volumeForm: VolumeShape['form'];
  /** Kind of new volumes; '' for none. */
  readonly volumeKind: string;
  /** Metres. */
  readonly blockHeight: number;
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
  const area = areaBetween(from, to);
  return (
    area && {
      ...base,
      position: [area.middle[0], floor, area.middle[1]],
      shape: { form: 'box', size: [area.size[0], blockHeight, area.size[1]] },
    }
  );
}

/** A prism over an outline. @throws CoreError 'OUTLINE_NOT_CONVEX', 'OUTLINE_TOO_SHORT' */
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
