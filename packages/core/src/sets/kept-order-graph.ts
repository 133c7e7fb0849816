import type { OrderGraph, OrderGraphInput } from './order-graph';
import { ORDER_NODE } from './order-node';

/** Room between nodes beside each other, and around the whole, pixels; as `layoutOrderGraph` has it. */
const GAP = 18;
const MARGIN = 14;
const ROW = ORDER_NODE.height + 30;

type Point = readonly [number, number];

/**
 * The graph after an edit, with everything that was there in its place: a person finds it where they saw it. New levels stand in rows
 * below; new rules are straight lines. `layoutOrderGraph` arranges all of it anew.
 * Cost: O(nodes + edges).
 */
export function keptOrderGraph(before: OrderGraph, { nodes, edges }: OrderGraphInput): OrderGraph {
  const places = new Map(before.nodes.map(({ id, x, y }) => [id, [x, y] as Point]));
  const lines = new Map(before.edges.map(({ from, to, points }) => [keyOf(from, to), points]));
  const low = before.nodes.reduce((least, { y }) => Math.max(least, y), ORDER_NODE.height / 2 + MARGIN - ROW);
  const columns = Math.max(1, Math.floor((before.width - 2 * MARGIN + GAP) / (ORDER_NODE.width + GAP)));
  let added = 0;
  const placed = nodes.map((id) => {
    const place = places.get(id) ?? [
      MARGIN + ORDER_NODE.width / 2 + (added % columns) * (ORDER_NODE.width + GAP),
      low + ROW * (1 + Math.floor(added / columns)),
    ];
    if (!places.has(id)) added++;
    return { id, x: place[0], y: place[1] };
  });
  const now = new Map(placed.map(({ id, x, y }) => [id, [x, y] as Point]));
  const drawn = edges.flatMap((edge) => {
    const [from, to] = [now.get(edge.from), now.get(edge.to)];
    if (!from || !to || edge.from === edge.to) return [];
    return [{ ...edge, points: lines.get(keyOf(edge.from, edge.to)) ?? straight(from, to) }];
  });
  const most = (of: (node: { readonly x: number; readonly y: number }) => number): number =>
    placed.reduce((value, node) => Math.max(value, of(node)), 0);
  return {
    nodes: placed,
    edges: drawn,
    width: Math.max(
      before.width,
      most(({ x }) => x + ORDER_NODE.width / 2 + MARGIN),
    ),
    height: Math.max(
      before.height,
      most(({ y }) => y + ORDER_NODE.height / 2 + MARGIN),
    ),
  };
}

const keyOf = (from: string, to: string): string => `${from} ${to}`;

/** From the nearer edge of one node to that of the other; beside each other from side to side. */
function straight([x, y]: Point, [toX, toY]: Point): Point[] {
  if (Math.abs(toY - y) < ORDER_NODE.height) {
    const half = Math.sign(toX - x || 1) * (ORDER_NODE.width / 2);
    return [
      [x + half, y],
      [toX - half, toY],
    ];
  }
  const half = Math.sign(toY - y) * (ORDER_NODE.height / 2);
  return [
    [x, y + half],
    [toX, toY - half],
  ];
}
