import fc from 'fast-check';
import { EMPTY_CONTENT } from '../../items';
import type { Placement } from '../../model/placement';
import type { TurnDegrees, Vector3 } from '../../model/vector';
import type { LevelContent } from '../level-content';
import { SAME_PLACE_METRES, sameContent, type SameContent } from './same-content';

const stratum = (id: string): LevelContent['strata'][number]['stratum'] => ({
  id,
  name: id,
  role: 'base',
  owner: null,
});
const strataOf = (...lists: Placement[][]): Pick<LevelContent, 'strata'> => ({
  strata: lists.map((placement, i) => ({ stratum: stratum('st'[i]), content: { ...EMPTY_CONTENT, placement } })),
});

/** The same by cells with names, as it was written first. */
function plainly({ strata }: Pick<LevelContent, 'strata'>): SameContent[] {
  const cells = new Map<
    string,
    { piece: string; position: Vector3; turn: Vector3; items: { stratum: string; id: string }[] }[]
  >();
  const all: SameContent[] = [];
  for (const {
    stratum: { id: of },
    content,
  } of strata)
    for (const { id, piece, position, turn } of content.placement) {
      const at = position.map((value) => Math.floor(value / SAME_PLACE_METRES));
      const found = Array.from({ length: 27 }, (_, i) => [
        (i % 3) - 1,
        (Math.floor(i / 3) % 3) - 1,
        Math.floor(i / 9) - 1,
      ])
        .flatMap((by) => cells.get(`${piece} ${at.map((value, k) => value + by[k]).join(' ')}`) ?? [])
        .find(
          (one) =>
            one.position.every((value, k) => Math.abs(value - position[k]) <= SAME_PLACE_METRES) &&
            one.turn.every((value, k) => {
              const off = Math.abs(value - turn[k]) % 360;
              return Math.min(off, 360 - off) <= 0.1;
            }),
        );
      if (found) {
        found.items.push({ stratum: of, id });
        continue;
      }
      const made = { piece, position, turn: [...turn] as unknown as Vector3, items: [{ stratum: of, id }] };
      const key = `${piece} ${at.join(' ')}`;
      cells.set(key, [...(cells.get(key) ?? []), made]);
      all.push(made);
    }
  return all.filter(({ items }) => items.length > 1).map(({ piece, position, items }) => ({ piece, position, items }));
}

/** Close to one of few places, some of them so far out that cells have numbers beyond 32 bits. */
const near = fc
  .tuple(
    fc.constantFrom(0, -0, 0.01, -0.01, 3, 99999.99, -1e5, 42949672.96),
    fc.constantFrom(0, 0.004, -0.004, 0.01, 0.0099, -0.01, 0.011),
  )
  .map(([at, by]) => at + by);
const placement = fc.record({
  piece: fc.constantFrom('pin', 'post'),
  position: fc.tuple(near, near, near) as fc.Arbitrary<Vector3>,
  turn: fc.constantFrom<TurnDegrees>([0, 0, 0], [360, 0, 0], [0.05, 0, 0], [359.95, 0, 0], [90, 0, 0]),
  scale: fc.constant<Vector3>([1, 1, 1]),
});
const placements = (letter: string): fc.Arbitrary<Placement[]> =>
  fc.array(placement, { maxLength: 30 }).map((all) => all.map((one, i) => ({ id: `${letter}${i}`, ...one })));

describe('the same thing twice', () => {
  it('is found as the same search written plainly finds it, far out and at the edges of cells', () => {
    fc.assert(
      fc.property(placements('a'), placements('b'), (a, b) => {
        const level = strataOf(a, b);
        const found = sameContent(level).map(({ position, ...rest }) => ({
          ...rest,
          position: position.map((v) => v + 0),
        }));
        expect(found).toEqual(
          plainly(level).map(({ position, ...rest }) => ({ ...rest, position: position.map((v) => v + 0) })),
        );
      }),
      { numRuns: 300 },
    );
  });
});
