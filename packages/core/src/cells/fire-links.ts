import type { RunContext } from '../context/run-context';
import type { StandingLevel } from '../layout/standing-level';
import { linkEnds } from '../layout/links/link-ends';
import type { Link } from '../model/link';
import type { Vector3 } from '../model/vector';
import type { FiredLink } from './rehearsal-result';
import { volumeCrossings } from './volume-crossings';
import type { WalkPath } from './walk-path';

/** Most links that are told; those that fire round and round would go on for ever. */
const MAX_FIRED = 10000;

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
  const emitting = content.strata.flatMap(({ content: items }) => items.volume.filter(({ id }) => byEmitter.has(id)));
  for (const { atMs, volume, event, at } of volumeCrossings(emitting, path, heights, speedMetresPerSecond, context)) {
    act(atMs);
    setOff(volume, event === 'enter' ? ['enter'] : ['leave', 'last leaves'], atMs, at, '');
  }
  act(Infinity);
  return fired;
}
