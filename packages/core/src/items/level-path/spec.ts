import type { Knot } from '../../model/level-path';
import type { Vector3 } from '../../model/vector';
import { IN_GROUP } from '../in-group';
import type { ItemSpec } from '../item-spec';
import { movedPoint } from '../place';
import { STANDING } from '../traits';

/** Knots with other places and handles. */
function changedKnots(
  knots: readonly Knot[],
  place: (position: Vector3) => Vector3,
  direction: (handle: Vector3) => Vector3,
): Knot[] {
  return knots.map((knot) => ({
    ...knot,
    position: place(knot.position),
    handle: knot.handle && direction(knot.handle),
  }));
}

const moved = (knot: Knot, by: Vector3): Knot => ({ ...knot, position: movedPoint(knot.position, by) });

export const PATH: ItemSpec<'path'> = {
  words: { one: 'path', many: 'paths' },
  traits: { ...STANDING, named: true },
  optional: { group: true },
  place: {
    /** The middle of its knots. */
    anchor: ({ knots }) => {
      const sum = knots.reduce<Vector3>(([x, y, z], { position: [px, py, pz] }) => [x + px, y + py, z + pz], [0, 0, 0]);
      return [sum[0] / knots.length, sum[1] / knots.length, sum[2] / knots.length];
    },
    moved: ({ knots }, by) => ({ knots: knots.map((knot) => moved(knot, by)) }),
    turned: ({ knots }, { point, direction }) => ({ knots: changedKnots(knots, point, direction) }),
    mirrored: ({ knots }, { point, direction }) => ({ knots: changedKnots(knots, point, direction) }),
    movedWithin: ({ knots }, isWithin, by) =>
      knots.some(({ position }) => isWithin(position))
        ? { knots: knots.map((knot) => (isWithin(knot.position) ? moved(knot, by) : knot)) }
        : {},
  },
  name: ({ name }) => name,
  tags: ({ knots }) => knots.flatMap(({ tags }) => tags),
  ...IN_GROUP,
  alike: () => true,
};
