import { finding, type Finding } from '../../findings';
import type { Vector3 } from '../../model/vector';
import { toMicro } from '../../numeric/micro';
import { PLACEMENT_NUMBERS } from '../../items/placement/columns';
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
export function sameContent({ strata }: LevelContent, tolerance = SAME_PLACE_METRES): SameContent[] {
  interface Group {
    readonly position: Vector3;
    readonly turn: Vector3;
    readonly piece: string;
    readonly items: { stratum: string; id: string }[];
  }
  const cells = new Map<string, Group[]>();
  const square = (value: number): number => Math.floor(value / tolerance);
  const groups: Group[] = [];
  for (const one of strata) {
    const { ids, pieces, numbers, count } = placementsOf(one);
    for (let n = 0; n < count; n++) {
      const [id, piece] = [ids[n], pieces[n]];
      const position = threeOf(numbers, n * PLACEMENT_NUMBERS);
      const turn = threeOf(numbers, n * PLACEMENT_NUMBERS + 3);
      const at = position.map(square);
      let found: Group | undefined;
      for (let i = 0; i < 27 && !found; i++) {
        const key = `${piece} ${at[0] + (i % 3) - 1} ${at[1] + (Math.floor(i / 3) % 3) - 1} ${at[2] + Math.floor(i / 9) - 1}`;
        found = cells
          .get(key)
          ?.find((other) => isNear(other.position, position, tolerance) && sameTurn(other.turn, turn));
      }
      if (found) {
        found.items.push({ stratum: one.stratum.id, id });
        continue;
      }
      const made: Group = { piece, position, turn, items: [{ stratum: one.stratum.id, id }] };
      groups.push(made);
      const key = `${piece} ${at.join(' ')}`;
      cells.set(key, [...(cells.get(key) ?? []), made]);
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
      message: `The same thing stands ${items.length} times at ${position.map((value) => toMicro(Math.round(value * 100) / 100)).join(', ')} in ${content.level.name}: in ${where.join(' and ')}`,
      why: 'It is drawn and loaded twice and nobody sees the second one; a change of one leaves the other behind. Remove all but one.',
    });
  });
}

function threeOf(numbers: Float64Array, at: number): Vector3 {
  return [numbers[at], numbers[at + 1], numbers[at + 2]];
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
