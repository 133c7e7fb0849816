import { finding, type Finding } from '../../findings';
import type { Vector3 } from '../../model/vector';
import { toMicro } from '../../numeric/micro';
import { PLACEMENT_NUMBERS, threeAt } from '../../items/placement/columns';
import type { LevelContent } from '../level-content';
import { placementsOf } from '../level-placements';

/** Two placements of one piece nearer than this are the same thing twice, metres. */
export const SAME_PLACE_METRES = 0.01;
/** … and turned alike within this, degrees. */
const SAME_TURN_DEGREES = 0.1;

/** A placement that stands in a level twice. */
export interface SameContent {
  readonly piece: string;
  readonly position: Vector3;
  /** Bottom of the stack first. */
  readonly items: readonly { readonly stratum: string; readonly id: string }[];
}

/**
 * Placements of the same piece in the same place and turn, in the same or different strata of one level.
 * @param tolerance metres
 * Cost: O(placements), by a grid of the tolerance.
 */
export function sameContent({ strata }: Pick<LevelContent, 'strata'>, tolerance = SAME_PLACE_METRES): SameContent[] {
  interface Group {
    readonly cell: Vector3;
    readonly position: Vector3;
    readonly turn: Vector3;
    readonly piece: string;
    readonly items: { stratum: string; id: string }[];
  }
  // By a hash of the cell: what only shares the hash is told apart by its cell.
  const cells = new Map<number, Group[]>();
  const groups: Group[] = [];
  for (const one of strata) {
    const { ids, pieces, numbers, count } = placementsOf(one);
    for (let n = 0; n < count; n++) {
      const [id, piece] = [ids[n], pieces[n]];
      const position = threeAt(numbers, n * PLACEMENT_NUMBERS);
      const turn = threeAt(numbers, n * PLACEMENT_NUMBERS + 3);
      const cell: Vector3 = [
        Math.floor(position[0] / tolerance),
        Math.floor(position[1] / tolerance),
        Math.floor(position[2] / tolerance),
      ];
      let found: Group | undefined;
      for (let i = 0; i < 27 && !found; i++) {
        const x = cell[0] + (i % 3) - 1;
        const y = cell[1] + (Math.floor(i / 3) % 3) - 1;
        const z = cell[2] + Math.floor(i / 9) - 1;
        found = cells
          .get(hashOf(x, y, z))
          ?.find(
            (other) =>
              other.cell[0] === x &&
              other.cell[1] === y &&
              other.cell[2] === z &&
              other.piece === piece &&
              isNear(other.position, position, tolerance) &&
              sameTurn(other.turn, turn),
          );
      }
      if (found) {
        found.items.push({ stratum: one.stratum.id, id });
        continue;
      }
      const made: Group = { cell, piece, position, turn, items: [{ stratum: one.stratum.id, id }] };
      groups.push(made);
      const hash = hashOf(...cell);
      const known = cells.get(hash);
      if (known) known.push(made);
      else cells.set(hash, [made]);
    }
  }
  return groups
    .filter(({ items }) => items.length > 1)
    .map(({ piece, position, items }) => ({ piece, position, items }));
}

/** The same as findings, each with what goes. Names of pieces are not part of a level's content: the piece's id stands for it. */
export function sameContentFindings(content: LevelContent): Finding[] {
  const names = new Map(content.strata.map(({ stratum }) => [stratum.id, stratum.name]));
  return sameContent(content).map(({ position, items }) => {
    const last = items[items.length - 1];
    const where = [...new Set(items.map(({ stratum }) => names.get(stratum) ?? stratum))];
    return finding({
      code: 'SAME_CONTENT',
      desk: 'layout',
      severity: 'warning',
      subject: last.id,
      place: { level: content.level.id, stratum: last.stratum, item: last.id, position },
      message: `The same object is placed ${items.length} times at ${position.map((value) => toMicro(Math.round(value * 100) / 100)).join(', ')} in ${content.level.name}: in ${where.join(' and ')}`,
      why: 'It is drawn and loaded twice and nobody sees the second one; a change to one misses the other. Remove all but one.',
    });
  });
}

/** Of a cell's numbers, which may be far beyond 32 bits. */
function hashOf(x: number, y: number, z: number): number {
  return (
    (Math.imul(x % 2147483647, 73856093) ^ Math.imul(y % 2147483647, 19349663) ^ Math.imul(z % 2147483647, 83492791)) |
    0
  );
}

function isNear(a: Vector3, b: Vector3, tolerance: number): boolean {
  return a.every((value, k) => Math.abs(value - b[k]) <= tolerance);
}

function sameTurn(a: Vector3, b: Vector3): boolean {
  return a.every((value, k) => {
    const off = Math.abs(value - b[k]) % 360;
    return Math.min(off, 360 - off) <= SAME_TURN_DEGREES;
  });
}
