import type { RunContext } from '../context/run-context';
import type { StandingLevel } from '../layout/standing-level';
import { linkEnds } from '../layout/links/link-ends';
import { segmentInVolume } from '../layout/volumes/segment-in-volume';
import type { Link } from '../model/link';
import type { Vector3 } from '../model/vector';
import { volumeBounds } from '../layout/volumes/volume-surface';
import { BoxTree } from '../spatial/box-tree';
import { FOOTING_METRES } from './footing';
import type { FiredLink } from './rehearsal-result';
import type { WalkPath } from './walk-path';

/** Heights above the floor at which a body is felt, metres: low plates and what hangs at the chest. */
const BODY_METRES = [0.1, 1];
/** Most links that are told; those that fire round and round would go on for ever. */
const MAX_FIRED = 10000;

interface Crossing {
  readonly atMs: number;
  readonly volume: string;
  readonly event: 'enter' | 'leave';
  readonly at: Vector3;
}

/**
 * The links that a walk sets off, in order of time: by entering and leaving volumes, and on from there where the target of one is the emitter
 * of others. A walker alone is the last to leave; it uses nothing by itself. What is switched off does nothing. Who must do it is not looked at.
 * @param heights of the floor every `FOOTING_METRES` of the path
 * @throws CoreError 'CANCELLED'
 */
export function fireLinks(
  content: StandingLevel,
  path: WalkPath,
  heights: Float64Array,
  speedMetresPerSecond: number,
  context: RunContext,
): FiredLink[] {
  const links = content.strata.flatMap(({ content: items }) => items.link);
  if (links.length === 0) return [];
  const ends = linkEnds(content);
  const isOn = (id: string): boolean => ends.get(id)?.isOff === false;
  const byEmitter = new Map<string, Link[]>();
  for (const link of links)
    if (isOn(link.emitter)) byEmitter.set(link.emitter, [...(byEmitter.get(link.emitter) ?? []), link]);
  const fired: FiredLink[] = [];
  const done = new Set<string>();
  // Kept in order of time: what waits longest for its delay comes last.
  const waiting: { readonly link: Link; readonly atMs: number; readonly at: Vector3; readonly by: string }[] = [];
  const setOff = (emitter: string, events: readonly Link['event'][], atMs: number, at: Vector3, by: string): void => {
    for (const link of byEmitter.get(emitter) ?? []) {
      if (!events.includes(link.event) || (link.once && done.has(link.id))) continue;
      done.add(link.id);
      const entry = { link, atMs: atMs + link.delaySeconds * 1000, at, by };
      let place = waiting.length;
      while (place > 0 && waiting[place - 1].atMs > entry.atMs) place--;
      waiting.splice(place, 0, entry);
    }
  };
  const act = (until: number): void => {
    while (waiting.length > 0 && waiting[0].atMs <= until && fired.length < MAX_FIRED) {
      const [{ link, atMs, at, by }] = waiting.splice(0, 1);
      const { id, action, event, who, target } = link;
      fired.push({
        atMs,
        link: id,
        event,
        who,
        action,
        emitterName: ends.get(link.emitter)?.name ?? '',
        targetName: ends.get(target)?.name ?? '',
        at,
        by,
      });
      setOff(target, ['used'], atMs, at, id);
    }
  };
  for (const { atMs, volume, event, at } of crossings(
    content,
    new Set(byEmitter.keys()),
    path,
    heights,
    speedMetresPerSecond,
    context,
  )) {
    act(atMs);
    setOff(volume, event === 'enter' ? ['enter'] : ['leave', 'last leaves'], atMs, at, '');
  }
  act(Infinity);
  return fired;
}

/** When the walk enters and leaves volumes that emit anything; exact on the straight way between two looks at the floor. */
function crossings(
  content: StandingLevel,
  emitters: ReadonlySet<string>,
  path: WalkPath,
  heights: Float64Array,
  speedMetresPerSecond: number,
  context: RunContext,
): Crossing[] {
  const volumes = content.strata.flatMap(({ content: items }) => items.volume.filter(({ id }) => emitters.has(id)));
  const boxes = new Float64Array(volumes.length * 6);
  volumes.forEach((volume, i) => {
    const { min, max } = volumeBounds(volume);
    boxes.set([...min, ...max], i * 6);
  });
  const tree = new BoxTree(boxes);
  const found: Crossing[] = [];
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
      const tell = (share: number, event: Crossing['event']): void => {
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

function bodyInVolume(
  volume: Parameters<typeof segmentInVolume>[0],
  a: Vector3,
  b: Vector3,
): readonly [number, number] | undefined {
  const parts = BODY_METRES.flatMap((up) => {
    const part = segmentInVolume(volume, [a[0], a[1] + up, a[2]], [b[0], b[1] + up, b[2]]);
    return part ? [part] : [];
  });
  return parts.length > 0
    ? [Math.min(...parts.map(([low]) => low)), Math.max(...parts.map(([, high]) => high))]
    : undefined;
}
