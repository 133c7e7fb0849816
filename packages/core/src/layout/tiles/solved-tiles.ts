import type { RunContext } from '../../context/run-context';
import type { MovementRules, SquareCode, TileFloor } from '../../model/tile-floor';
import { solveTiles, type TileAnswer } from './solve-tiles';
import { tileGraph } from './tile-graph';

export interface SolveTilesInput {
  readonly floors: readonly TileFloor[];
  readonly legend: readonly SquareCode[];
  readonly rules: MovementRules;
  /** Most states that are looked at. */
  readonly stateLimit: number;
}

/** A square by its floor's id. */
export interface TilePlace {
  readonly floor: string;
  readonly column: number;
  readonly row: number;
}

/** What the solver found, in places. */
export interface SolvedTiles {
  /** What keeps the floors from being solved, '' when nothing does. */
  readonly fault: string;
  readonly answer: TileAnswer;
  /** From start to goal; the shortest. */
  readonly way: readonly TilePlace[];
  readonly states: number;
  readonly neverNeeded: readonly TilePlace[];
  readonly deadEnds: readonly TilePlace[];
}

/** Solves tile floors as they stand. @throws CoreError 'CANCELLED' */
export function solvedTiles(
  floors: readonly TileFloor[],
  legend: readonly SquareCode[],
  rules: MovementRules,
  stateLimit: number,
  context: RunContext,
): SolvedTiles {
  const graph = tileGraph(floors, legend, rules);
  const places = (nodes: readonly number[]): TilePlace[] =>
    nodes.map((i) => ({
      floor: floors[graph.nodes[i].floor].id,
      column: graph.nodes[i].column,
      row: graph.nodes[i].row,
    }));
  if (graph.fault)
    return { fault: graph.fault, answer: 'not decided', way: [], states: 0, neverNeeded: [], deadEnds: [] };
  const { answer, way, states, neverNeeded, deadEnds } = solveTiles(graph, { stateLimit }, context);
  return { fault: '', answer, states, way: places(way), neverNeeded: places(neverNeeded), deadEnds: places(deadEnds) };
}
