import type { PlanPoint, Vector3 } from '../../model/vector';
import type { Wall, WallCorner } from '../../model/wall';
import { toMicro } from '../../numeric/micro';
import { IN_GROUP } from '../in-group';
import type { ItemFault, ItemSpec } from '../item-spec';
import { STANDING } from '../traits';

const changed = (corners: readonly WallCorner[], flat: (position: PlanPoint) => PlanPoint): WallCorner[] =>
  corners.map((corner) => ({ ...corner, position: flat(corner.position) }));

const movedFlat =
  (by: Vector3) =>
  ([x, z]: PlanPoint): PlanPoint => [toMicro(x + by[0]), toMicro(z + by[2])];

/** Each opening must begin at a corner with a segment behind it, and be higher than nothing. */
function faultOfOpenings({ corners, closed, openings }: Wall): ItemFault | undefined {
  for (const [i, { corner, sillMetres, headMetres }] of openings.entries()) {
    const at = corners.findIndex(({ id }) => id === corner);
    if (at < 0 || (!closed && at === corners.length - 1))
      return {
        path: `openings[${i}].corner`,
        message: `opening ${i + 1} must begin at a corner of the wall with a segment behind it, is at ${corner}`,
      };
    if (!(headMetres > sillMetres))
      return {
        path: `openings[${i}].headMetres`,
        message: `the head of opening ${i + 1} must be above its sill of ${sillMetres} m, is ${headMetres} m`,
      };
  }
  return undefined;
}

export const WALL: ItemSpec<'wall'> = {
  words: { one: 'wall', many: 'walls' },
  /** A pack has its blocks alone, so that no link could lead to it. */
  traits: { ...STANDING, linked: false, named: true },
  optional: { group: true },
  place: {
    /** The middle of its corners. */
    anchor: ({ corners, baseMetres }) => {
      const [x, z] = corners.reduce<PlanPoint>(
        ([sx, sz], { position }) => [sx + position[0], sz + position[1]],
        [0, 0],
      );
      return [x / corners.length, baseMetres, z / corners.length];
    },
    moved: ({ corners, baseMetres }, by) => ({
      corners: changed(corners, movedFlat(by)),
      ...(by[1] === 0 ? {} : { baseMetres: toMicro(baseMetres + by[1]) }),
    }),
    turned: ({ corners }, { flat }) => ({ corners: changed(corners, flat) }),
    mirrored: ({ corners }, { flat }) => ({ corners: changed(corners, flat) }),
    /** It stands on one height: that changes when all of it moves. */
    movedWithin: ({ corners, baseMetres }, isWithin, by) => {
      const moves = corners.map(({ position: [x, z] }) => isWithin([x, baseMetres, z]));
      if (!moves.includes(true)) return {};
      const flat = movedFlat(by);
      return {
        corners: corners.map((corner, i) => (moves[i] ? { ...corner, position: flat(corner.position) } : corner)),
        ...(by[1] === 0 || moves.includes(false) ? {} : { baseMetres: toMicro(baseMetres + by[1]) }),
      };
    },
  },
  fault: faultOfOpenings,
  name: ({ name }) => name,
  ...IN_GROUP,
  material: ({ material }) => material,
  alike: (a, b) => a.material === b.material && a.sight === b.sight,
};
