import { finding, type Finding } from '../../findings';
import { convexParts } from '../../geometry/convex-parts';
import type { Vector3 } from '../../model/vector';
import type { Wall, WallOpening } from '../../model/wall';
import type { LevelContent } from '../level-content';
import { MIN_PART_METRES } from './wall-blocks';
import { wallPlan } from './wall-segments';

/** The openings of a wall that reach beyond the plain part of their segment, or above the wall; what fits of them is left open. */
export function openingsThatDoNotFit(wall: Wall): readonly WallOpening[] {
  const { segments } = wallPlan(wall);
  return wall.openings.filter(({ corner, offsetMetres, widthMetres, headMetres }) => {
    const segment = segments.find((one) => one.corner === corner);
    if (!segment) return true;
    const [from, to] = segment.whole;
    return (
      offsetMetres - widthMetres / 2 < from - MIN_PART_METRES ||
      offsetMetres + widthMetres / 2 > to + MIN_PART_METRES ||
      headMetres > wall.heightMetres + MIN_PART_METRES
    );
  });
}

/** Whether a closed wall is to have a floor or a ceiling and cannot: its line crosses itself, or encloses nothing. */
export function lacksSlabs(wall: Wall): boolean {
  return (
    (wall.floorMetres > 0 || wall.ceilingMetres > 0) && wall.closed && convexParts(wallPlan(wall).inside).length === 0
  );
}

/** What is wrong with the walls of a level. */
export function wallFindings({ level, strata }: LevelContent): Finding[] {
  return strata.flatMap(({ stratum, content }) =>
    content.wall.flatMap((wall) => {
      const at = { desk: 'layout' as const, subject: wall.id };
      const [x, z] = wall.corners[0].position;
      const position: Vector3 = [x, wall.baseMetres, z];
      const place = { level: level.id, stratum: stratum.id, item: wall.id, position };
      const name = wall.name ? `The wall “${wall.name}”` : 'A wall';
      const many = openingsThatDoNotFit(wall).length;
      return [
        ...(many === 0
          ? []
          : [
              finding({
                ...at,
                code: 'WALL_OPENING_CUT_OFF',
                severity: 'warning',
                place,
                message: `${name} of ${level.name} has ${many === 1 ? 'an opening' : `${many} openings`} beyond the end of its segment or above the wall`,
                why: 'Only the part that lies in the wall is open. Move it along, make it smaller, or make the wall higher.',
              }),
            ]),
        ...(lacksSlabs(wall)
          ? [
              finding({
                ...at,
                code: 'WALL_NOT_A_RING',
                severity: 'warning',
                place,
                message: `${name} of ${level.name} crosses itself or encloses nothing, so it has neither floor nor ceiling`,
                why: 'The level may be open to the outside there. Move its corners apart, or set floor and ceiling to 0.',
              }),
            ]
          : []),
      ];
    }),
  );
}
