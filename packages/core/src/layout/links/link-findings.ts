import { counted } from '../../counted';
import { finding, type Finding } from '../../findings';
import { ITEMS } from '../../items';
import type { Link } from '../../model/link';
import type { StandingLevel } from '../standing-level';
import { linkEnds, type LinkEnd } from './link-ends';

/** As much of a level as its links are told by. */
export interface LinkedLevel extends StandingLevel {
  readonly level: StandingLevel['level'] & { readonly name: string };
}

/**
 * What is wrong with the links of a level: ends that are not there, links that can never fire, and links that fire each
 * other round and round. A link whose target is the emitter of others sets off those that wait for it to be used.
 */
export function linkFindings({ level, strata }: LinkedLevel): Finding[] {
  const links = strata.flatMap(({ stratum, content }) => content.link.map((link) => ({ stratum: stratum.id, link })));
  if (links.length === 0) return [];
  const ends = linkEnds({ level, strata });
  const all = new Map(links.map(({ link }) => [link.id, link]));
  const looping = loopsOf([...all.values()]);
  return links.flatMap(({ stratum, link }): Finding[] => {
    const [emitter, target] = [ends.get(link.emitter), ends.get(link.target)];
    const position = emitter?.place ?? target?.place;
    const place = {
      level: level.id,
      stratum,
      item: emitter ? link.emitter : link.target,
      ...(position ? { position } : {}),
    };
    const tell = (code: string, severity: Finding['severity'], message: string, why: string): Finding =>
      finding({ code, desk: 'layout', severity, subject: link.id, place, message, why });
    const text = `“${link.action}” of ${emitter?.name ?? 'something'} in ${level.name}`;
    if (!emitter || !target) {
      const gone = [emitter ? '' : 'its emitter', target ? '' : 'its target'].filter(Boolean).join(' and ');
      return [
        tell(
          'LINK_END_MISSING',
          'error',
          `The link ${text} leads nowhere: ${gone} is not in the level`,
          'It was deleted, parked, or is in a stratum that the level does not use. Choose another target, or delete the link.',
        ),
      ];
    }
    const never = neverFires(link, emitter);
    if (never)
      return [
        tell(
          'LINK_NEVER',
          'warning',
          `The link ${text} can never be triggered: ${never}`,
          'A link that nothing triggers does nothing in the game. Choose an event that its emitter has, or switch the emitter on.',
        ),
      ];
    if (looping.has(link.id)) {
      return [
        tell(
          'LINK_LOOP',
          'warning',
          `The link ${text} triggers itself again through ${counted(looping.get(link.id) ?? 0, 'link')}`,
          'Links that trigger each other never stop. Make one of them work only once, or give it another target.',
        ),
      ];
    }
    return [];
  });
}

function neverFires({ event }: Link, { kind, name, isOff }: LinkEnd): string | undefined {
  if (!ITEMS[kind].isEntered && event !== 'used')
    return `only a volume can be entered or left, and ${name} is a ${kind}`;
  return isOff ? `${name} is switched off` : undefined;
}

/** Links that set themselves off again, by id, with the number of links of their ring. One that fires once only ends a ring. */
function loopsOf(links: readonly Link[]): Map<string, number> {
  const again = links.filter(({ once }) => !once);
  const waiting = new Map<string, Link[]>();
  for (const link of again)
    if (link.event === 'used') waiting.set(link.emitter, [...(waiting.get(link.emitter) ?? []), link]);
  const loops = new Map<string, number>();
  for (const start of again) {
    // Breadth first: the shortest ring through this link.
    let ring = waiting.get(start.target) ?? [];
    const seen = new Set<string>();
    for (let length = 1; ring.length > 0; length++) {
      if (ring.includes(start)) {
        loops.set(start.id, length);
        break;
      }
      ring = ring.flatMap((link) => (seen.has(link.id) ? [] : (seen.add(link.id), waiting.get(link.target) ?? [])));
    }
  }
  return loops;
}
