import { CoreError } from '../errors';
import { MAX_CELLS_OF_VOLUME, type CellGrid, type VolumeRule } from '../model/cell-grid';

/** Part of a cell by which another must reach into it. */
const REACH_SHARE = 1e-6;

type Lattice = Pick<CellGrid, 'sizeMetres' | 'origin'>;

/**
 * The rules of volumes for a level that is cut otherwise: each cell becomes all those that reach into where it was, in order of column,
 * then row.
 * @throws CoreError 'CELL_RULE_CELLS' where a volume would load more than `MAX_CELLS_OF_VOLUME` cells
 */
export function recutRules(rules: readonly VolumeRule[], from: Lattice, to: Lattice): VolumeRule[] {
  return rules.map((rule) => {
    const spans = rule.cells.map((key) => key.split(',').map((at, axis) => span(Number(at), axis, from, to)));
    const count = spans.reduce((sum, [[left, right], [near, far]]) => sum + (right - left + 1) * (far - near + 1), 0);
    // Where they overlap the count is too high, at most ninefold; so much is allowed for before any is made.
    if (count > MAX_CELLS_OF_VOLUME * 9) throw tooMany(to);
    const cells = new Map<string, readonly [number, number]>();
    for (const [[left, right], [near, far]] of spans)
      for (let column = left; column <= right; column++)
        for (let row = near; row <= far; row++) cells.set(`${column},${row}`, [column, row]);
    if (cells.size > MAX_CELLS_OF_VOLUME) throw tooMany(to);
    const inOrder = [...cells].sort(([, a], [, b]) => a[0] - b[0] || a[1] - b[1]);
    return { ...rule, cells: inOrder.map(([key]) => key) };
  });
}

/** First and last number of the new cells on one axis. */
function span(at: number, axis: number, from: Lattice, to: Lattice): readonly [number, number] {
  const low = (from.origin[axis] + at * from.sizeMetres - to.origin[axis]) / to.sizeMetres;
  const high = low + from.sizeMetres / to.sizeMetres;
  const reach = REACH_SHARE * Math.min(1, high - low);
  return [Math.floor(low + reach), Math.ceil(high - reach) - 1];
}

function tooMany({ sizeMetres }: Lattice): CoreError {
  return new CoreError(
    'CELL_RULE_CELLS',
    `With cells of ${sizeMetres} m a volume would load more than ${MAX_CELLS_OF_VOLUME} cells, the most it can. Choose larger cells, or delete the rule first.`,
  );
}
