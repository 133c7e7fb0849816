import { counted } from '../../counted';
import type { Finding } from '../../findings';
import { lengthOfPiece, pathPieces } from '../../layout/paths/path-curve';
import type { Path } from '../../model/level-path';
import { NO_ROOM, refused, type PackRule, type PackedStratum } from './rule';

/** Coordinates are kept to a millionth of a metre: what is wider by no more than two of them is not too wide. */
const ROUNDING_METRES = 2e-6;

/** Whether knots are so near each other as a target asks. @param gap the widest, metres */
export function isSpaced(gap: number, max: number): boolean {
  return gap <= max + ROUNDING_METRES;
}

/** The longest way from one knot of a path to the next, along it, metres. */
export function widestGap(path: Path): number {
  return pathPieces(path).reduce((widest, piece) => Math.max(widest, lengthOfPiece(piece)), 0);
}

export const PATH_SPACING: PackRule = {
  level: ({ level, strata }, { max }, { target }) =>
    pathsOf(strata).flatMap(({ stratum, path }): Finding[] => {
      const gap = widestGap(path);
      if (isSpaced(gap, max)) return [];
      return [
        refused({
          code: 'PACK_PATH_SPACING',
          subject: path.id,
          place: { level: level.id, stratum, item: path.id, position: path.knots[0].position },
          message: `Knots of ${called(path)} in ${level.name} are up to ${Number(gap.toPrecision(4))} m apart; ${target.name} takes ${max} m`,
          why: 'What follows it in the game would cut its corners. Resample the path.',
        }),
      ];
    }),
};

export const PATH_KNOTS: PackRule = {
  level: ({ level, strata }, { max }, { target }) =>
    pathsOf(strata).flatMap(({ stratum, path }): Finding[] => {
      if (path.knots.length <= max) return [];
      return [
        refused({
          code: 'PACK_PATH_KNOTS',
          subject: path.id,
          place: { level: level.id, stratum, item: path.id, position: path.knots[0].position },
          message: `${called(path)} in ${level.name} has ${counted(path.knots.length, 'knot')}; ${target.name} takes ${max}`,
          why: NO_ROOM,
        }),
      ];
    }),
};

function pathsOf(strata: readonly PackedStratum[]): { readonly stratum: string; readonly path: Path }[] {
  return strata.flatMap(({ stratum, content }) => content.path.map((path) => ({ stratum, path })));
}

function called({ name }: Path): string {
  return name === '' ? 'a path' : `the path ${name}`;
}
