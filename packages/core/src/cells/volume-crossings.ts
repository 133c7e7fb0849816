import type { RunContext } from '../context/run-context';
import { segmentInVolume } from '../layout/volumes/segment-in-volume';
import { volumeBounds } from '../layout/volumes/volume-surface';
import type { Vector3 } from '../model/vector';
import type { Volume } from '../model/volume';
import { BoxTree } from '../spatial/box-tree';
import { FOOTING_METRES } from './footing';
import type { WalkPath } from './walk-path';

/** Heights above the floor at which a body is felt, metres: low plates and what hangs at the chest. */
const BODY_METRES = [0.1, 1];

/** A moment at which a walk enters or leaves a volume. */
export interface VolumeCrossing {
  readonly atMs: number;
  /** Id of the volume. */
  readonly volume: string;
  readonly event: 'enter' | 'leave';
  /** Where one stood, metres. */
  readonly at: Vector3;
}

/**
 * When a walk enters and leaves volumes, in order of time; exact on the straight way between two looks at the floor. A walk that
 * begins in a volume enters it at 0; one that ends in it never leaves.
 * @param heights of the floor every `FOOTING_METRES` of the path
 * @throws CoreError 'CANCELLED'
 */
export function volumeCrossings(
  volumes: readonly Volume[],
  path: WalkPath,
  heights: Float64Array,
  speedMetresPerSecond: number,
  context: RunContext,
): VolumeCrossing[] {
  const boxes = new Float64Array(volumes.length * 6);
  volumes.forEach((volume, i) => {
    const { min, max } = volumeBounds(volume);
    boxes.set([...min, ...max], i * 6);
  });
  const tree = new BoxTree(boxes);
  const found: VolumeCrossing[] = [];
  const within = new Set<number>();
  const pointAt = (metres: number, look: number): Vector3 => {
    const [x, z] = path.at(metres);
    return [x, heights[Math.min(look, heights.length - 1)], z];
  };
  const looks = Math.ceil(path.lengthMetres / FOOTING_METRES);
  for (let look = 0; look < looks; look++) {
    if (look % 1024 === 0) context.checkCancelled();
    const [startMetres, endMetres] = [look * FOOTING_METRES, Math.min(path.lengthMetres, (look + 1) * FOOTING_METRES)];
    const [a, b] = [pointAt(startMetres, look), pointAt(endMetres, look + 1)];
    const low = [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.min(a[2], b[2])];
    const high = [Math.max(a[0], b[0]), Math.max(a[1], b[1]) + BODY_METRES[1], Math.max(a[2], b[2])];
    const near = new Set(tree.inBox(low, high));
    for (const volume of [...new Set([...near, ...within])].sort((p, q) => p - q)) {
      const part = near.has(volume) ? bodyInVolume(volumes[volume], a, b) : undefined;
      const tell = (share: number, event: VolumeCrossing['event']): void => {
        const metres = startMetres + (endMetres - startMetres) * share;
        found.push({
          atMs: (metres / speedMetresPerSecond) * 1000,
          volume: volumes[volume].id,
          event,
          at: [a[0] + (b[0] - a[0]) * share, a[1], a[2] + (b[2] - a[2]) * share],
        });
      };
      if (within.has(volume) && (!part || part[0] > 0)) {
        within.delete(volume);
        tell(0, 'leave');
      }
      if (!part) continue;
      if (!within.has(volume)) {
        within.add(volume);
        tell(part[0], 'enter');
      }
      if (part[1] < 1) {
        within.delete(volume);
        tell(part[1], 'leave');
      }
    }
  }
  return found.sort((p, q) => p.atMs - q.atMs);
}

function bodyInVolume(volume: Volume, a: Vector3, b: Vector3): readonly [number, number] | undefined {
  const parts = BODY_METRES.flatMap((up) => {
    const part = segmentInVolume(volume, [a[0], a[1] + up, a[2]], [b[0], b[1] + up, b[2]]);
    return part ? [part] : [];
  });
  return parts.length > 0
    ? [Math.min(...parts.map(([low]) => low)), Math.max(...parts.map(([, high]) => high))]
    : undefined;
}
