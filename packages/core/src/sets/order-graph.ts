import { Graph, layout } from '@dagrejs/dagre';
import type { RunContext } from '../context/run-context';
import { ORDER_NODE } from './order-node';

/** Levels and which follows which. */
export interface OrderGraphInput {
  readonly nodes: readonly string[];
  readonly edges: readonly { readonly from: string; readonly to: string; readonly text: string }[];
}

/** Where everything is drawn, in pixels from the top left corner. */
export interface OrderGraph {
  readonly nodes: readonly { readonly id: string; readonly x: number; readonly y: number }[];
  readonly edges: readonly {
    readonly from: string;
    readonly to: string;
    readonly text: string;
    readonly points: readonly (readonly [number, number])[];
  }[];
  readonly width: number;
  readonly height: number;
}

/** What the library leaves on a node, an edge and the graph; its own types leave them open. */
interface Placed {
  readonly x: number;
  readonly y: number;
}
interface Routed {
  readonly points?: readonly Placed[];
}
interface Whole {
  readonly width?: number;
  readonly height?: number;
}

/**
 * Lays the order of play out in layers, from the top down. Nodes that an edge names but the list lacks are left out.
 * Cannot be cancelled midway: the layout library runs through.
 * Source: the layered method of K. Sugiyama, S. Tagawa, M. Toda, 1981, as the package dagre does it.
 */
export function layoutOrderGraph({ nodes, edges }: OrderGraphInput, context: RunContext): OrderGraph {
  context.checkCancelled();
  const graph = new Graph({ multigraph: true });
  graph.setGraph({ rankdir: 'TB', nodesep: 18, ranksep: 30, marginx: 14, marginy: 14 });
  graph.setDefaultEdgeLabel(() => ({}));
  const known = new Set(nodes);
  for (const id of nodes) graph.setNode(id, { ...ORDER_NODE });
  const drawn = edges.filter(({ from, to }) => known.has(from) && known.has(to) && from !== to);
  drawn.forEach(({ from, to }, i) => graph.setEdge(from, to, {}, String(i)));
  layout(graph);
  const round = (value: number): number => Math.round(value * 10) / 10;
  const whole = graph.graph() as Whole;
  return {
    nodes: nodes.map((id) => {
      const { x, y } = graph.node(id) as Placed;
      return { id, x: round(x), y: round(y) };
    }),
    edges: drawn.map((edge, i) => ({
      ...edge,
      points: ((graph.edge(edge.from, edge.to, String(i)) as Routed).points ?? []).map(({ x, y }): [number, number] => [
        round(x),
        round(y),
      ]),
    })),
    width: round(whole.width ?? 0),
    height: round(whole.height ?? 0),
  };
}
