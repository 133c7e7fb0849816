import { finding, type Finding } from '../../findings';
import type { LevelContent } from '../level-content';
import { linkFindings } from '../links/link-findings';
import { wallFindings } from '../walls/wall-findings';
import { sameContentFindings } from './same-content';

/** What is wrong with a level as it was laid out. */
export function layoutFindings(content: LevelContent): Finding[] {
  return [...linkFindings(content), ...standingFindings(content)];
}

/** The same but for its links. */
export function standingFindings(content: LevelContent): Finding[] {
  return [...sameContentFindings(content), ...assemblyFindings(content), ...wallFindings(content)];
}

/** Uses that could not be laid out. */
function assemblyFindings({ level, strata }: LevelContent): Finding[] {
  return strata.flatMap(({ stratum, content }) =>
    content.assembly.map(({ id, assembly, position }) =>
      finding({
        code: 'ASSEMBLY_NOT_LAID',
        desk: 'layout',
        severity: 'error',
        subject: id,
        place: { level: level.id, stratum: stratum.id, item: id, position },
        message: `An assembly of ${level.name} is not placed: ${assembly} was deleted, or contains itself`,
        why: 'None of it is in the level. Undo its deletion, replace it, or delete this use.',
      }),
    ),
  );
}
