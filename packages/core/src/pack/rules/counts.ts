import { listOf, specOf } from '../../items';
import type { Finding } from '../../findings';
import { placementsOf } from '../../layout/level-placements';
import type { ItemKind } from '../../model/items';
import type { Level } from '../../model/level';
import type { Target } from '../../model/target';
import { countSetting, countedKinds } from '../target-settings';
import { NO_ROOM, refused, type PackedStratum } from './rule';

/** Kinds of item that a level has more of than its target takes. */
export function countFindings(
  { level, strata }: { readonly level: Level; readonly strata: readonly PackedStratum[] },
  target: Pick<Target, 'name' | 'counts'>,
): Finding[] {
  return countedKinds().flatMap((kind): Finding[] => {
    const { isOn, max } = countSetting(target, kind);
    const count = strata.reduce((sum, one) => sum + countOf(one, kind), 0);
    if (!isOn || count <= max) return [];
    return [tooMany(level, count, max, kind, target)];
  });
}

/** Placements may stand in columns beside the others. */
function countOf({ content }: PackedStratum, kind: ItemKind): number {
  const { traits } = specOf(kind);
  return traits.many ? placementsOf({ content }).count : listOf(content, kind).length;
}

function tooMany(level: Level, count: number, max: number, kind: ItemKind, { name }: Pick<Target, 'name'>): Finding {
  const { many } = specOf(kind).words;
  return refused({
    code: 'PACK_COUNT',
    subject: `${level.id}.${many}`,
    place: { level: level.id },
    message: `${level.name} has ${count} ${many}; ${name} takes ${max}`,
    why: NO_ROOM,
  });
}
