import type { MovementRules, SquareCode, SquareRole, TileFloor } from '../../model/tile-floor';
import { squaresOfRow } from '../../items/tile-floor/squares-of-row';
import { readSquare } from './square-text';

/** A square that may be entered, with the squares to which one may go from it. */
export interface TileNode {
  /** Index of its floor. */
  readonly floor: number;
  readonly column: number;
  readonly row: number;
  readonly role: SquareRole;
  /** Visits before it goes; 0: it stays. */
  readonly visits: number;
  readonly height: number;
  readonly next: readonly number[];
}

/** What one can walk on a stack of tile floors. */
export interface TileGraph {
  readonly nodes: readonly TileNode[];
  /** What keeps it from being solved, '' when nothing does. */
  readonly fault: string;
}

const FOUR = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;
const EIGHT = [...FOUR, [1, 1], [1, -1], [-1, 1], [-1, -1]] as const;
/** Squares of two floors stand over each other when their corners are off by less, as a share of a square. */
const OVER_SHARE = 0.01;

/** The walkable squares of some floors by a legend and rules. Squares with unknown codes count as holes. */
export function tileGraph(
  floors: readonly TileFloor[],
  legend: readonly SquareCode[],
  rules: MovementRules,
): TileGraph {
  const codes = new Map(legend.map((code) => [code.code, code]));
  const nodes: (Omit<TileNode, 'next'> & { next: number[]; readonly label: string | undefined })[] = [];
  const places = new Map<string, number>();
  floors.forEach((floor, f) => {
    for (let row = 0; row < floor.rows; row++) {
      squaresOfRow(floor.squares[String(row)], floor.columns).forEach((text, column) => {
        const square = readSquare(text, codes).square;
        const code = square && codes.get(square.code);
        if (!square || !code?.mayEnter) return;
        places.set(`${f} ${column} ${row}`, nodes.length);
        nodes.push({
          floor: f,
          column,
          row,
          role: code.role,
          visits: square.visits ?? code.visits,
          height: square.height ?? code.height,
          label: square.label,
          next: [],
        });
      });
    }
  });
  const linked = new Map<string, number[]>();
  nodes.forEach(({ label }, i) => label !== undefined && linked.set(label, [...(linked.get(label) ?? []), i]));
  const order = floors.map((_floor, i) => i).sort((a, b) => floors[b].position[1] - floors[a].position[1] || a - b);
  const isHole = (f: number, column: number, row: number): boolean => {
    const { columns, rows, squares } = floors[f];
    if (column < 0 || row < 0 || column >= columns || row >= rows) return true;
    return readSquare(squaresOfRow(squares[String(row)], columns)[column], codes).square === undefined;
  };
  nodes.forEach((node, i) => {
    for (const [dx, dz] of rules.neighbours === 8 ? EIGHT : FOUR) {
      const [column, row] = [node.column + dx, node.row + dz];
      const beside = places.get(`${node.floor} ${column} ${row}`);
      if (beside !== undefined) {
        const rise = nodes[beside].height - node.height;
        if (rise <= rules.upSteps && -rise <= rules.downSteps) node.next.push(beside);
      } else if (rules.mayFall && isHole(node.floor, column, row)) {
        const below = squareBelow(floors, order, node.floor, column, row, places);
        if (below !== undefined && below !== i) node.next.push(below);
      }
    }
    for (const other of node.label === undefined ? [] : (linked.get(node.label) ?? []))
      if (other !== i) node.next.push(other);
  });
  const starts = nodes.filter(({ role }) => role === 'start').length;
  const goals = nodes.filter(({ role }) => role === 'goal').length;
  const fault =
    starts !== 1
      ? `There must be one start; there ${starts === 0 ? 'is none' : `are ${starts}`}.`
      : goals === 0
        ? 'There is no goal.'
        : '';
  return {
    nodes: nodes.map(({ floor, column, row, role, visits, height, next }) => ({
      floor,
      column,
      row,
      role,
      visits,
      height,
      next: [...new Set(next)],
    })),
    fault,
  };
}

/** The highest square that may be entered straight below a place of a floor. */
function squareBelow(
  floors: readonly TileFloor[],
  order: readonly number[],
  from: number,
  column: number,
  row: number,
  places: ReadonlyMap<string, number>,
): number | undefined {
  const { position, squareMetres } = floors[from];
  const [x, z] = [position[0] + column * squareMetres, position[2] + row * squareMetres];
  for (const f of order) {
    const floor = floors[f];
    if (floor.position[1] >= position[1] || floor.squareMetres !== squareMetres) continue;
    const [c, r] = [(x - floor.position[0]) / squareMetres, (z - floor.position[2]) / squareMetres];
    if (Math.abs(c - Math.round(c)) > OVER_SHARE || Math.abs(r - Math.round(r)) > OVER_SHARE) continue;
    const below = places.get(`${f} ${Math.round(c)} ${Math.round(r)}`);
    if (below !== undefined) return below;
  }
  return undefined;
}
