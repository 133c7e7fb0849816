import {
  anchorOf,
  mirroredFields,
  movedFields,
  movedWithin,
  randomStream,
  turnedFields,
  type Json,
  type AnyItem,
  type Vector3,
} from '@stravel/core';
import { variants } from './content';

/** In the order in which the draws were made. */
const KINDS = [
  'block',
  'placement',
  'marker',
  'divider',
  'volume',
  'path',
  'tileFloor',
  'mask',
  'recipe',
  'assembly',
] as const;

/** What placing gives for things at random places: an anchor, and the fields of things moved, turned, mirrored and moved in part. */
export function placedResults(): Json {
  const random = randomStream('golden places');
  const number = (size: number): number => random.between(-size, size);
  const point = (size: number): Vector3 => [number(size), number(size), number(size)];
  return KINDS.flatMap((kind) =>
    variants(kind).flatMap((item) =>
      [1, 1000, 1e5].map((size) => {
        const start = { kind, item } as AnyItem;
        const moved = { kind, item: { ...item, ...movedFields(start, point(size)) } } as unknown as AnyItem;
        return {
          kind,
          id: item.id,
          anchor: anchorOf(moved),
          moved: movedFields(moved, point(3)),
          turned: turnedFields(moved, number(720), [number(size), number(size)]),
          quarter: turnedFields(moved, 90, [0, 0]),
          mirrored: [mirroredFields(moved, 'x', number(size), false), mirroredFields(moved, 'z', 0, false)],
          within: [
            movedWithin(moved, [-size, -size, -size], [size, size, size], point(1)),
            movedWithin(moved, [0, 0, 0], [0, 0, 0], point(1)),
          ],
        };
      }),
    ),
  ) as unknown as Json;
}
