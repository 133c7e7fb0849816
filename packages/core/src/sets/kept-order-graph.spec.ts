import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { keptOrderGraph } from './kept-order-graph';
import { layoutOrderGraph, type OrderGraphInput } from './order-graph';
import { ORDER_NODE } from './order-node';

const edge = (from: string, to: string): OrderGraphInput['edges'][number] => ({ from, to, text: '' });
const laid = (input: OrderGraphInput): ReturnType<typeof layoutOrderGraph> =>
  layoutOrderGraph(input, createRunContext());

describe('the order graph after an edit', () => {
  it('keeps places and lines, puts new levels below and draws new rules straight', () => {
    const before = laid({ nodes: ['a', 'b', 'c'], edges: [edge('a', 'b'), edge('b', 'c')] });
    const after = keptOrderGraph(before, {
      nodes: ['a', 'c', 'd'],
      edges: [edge('a', 'c'), edge('c', 'd'), edge('b', 'c')],
    });
    expect(after.nodes.slice(0, 2)).toEqual(before.nodes.filter(({ id }) => id !== 'b'));
    const [a, c, d] = after.nodes;
    expect(d.y - c.y).toBe(ORDER_NODE.height + 30);
    expect(after.edges.map(({ from, to, points }) => [from, to, points])).toEqual([
      [
        'a',
        'c',
        [
          [a.x, a.y + 21],
          [c.x, c.y - 21],
        ],
      ],
      [
        'c',
        'd',
        [
          [c.x, c.y + 21],
          [d.x, d.y - 21],
        ],
      ],
    ]);
    expect(after.height).toBeGreaterThanOrEqual(d.y + ORDER_NODE.height / 2);
  });

  it('begins from nothing, and is the same when nothing changed', () => {
    const first = keptOrderGraph(laid({ nodes: [], edges: [] }), { nodes: ['a', 'b'], edges: [] });
    expect(first.nodes[0].y).toBeGreaterThanOrEqual(ORDER_NODE.height / 2);
    const input = { nodes: ['a', 'b', 'c'], edges: [edge('a', 'c'), edge('b', 'c')] };
    expect(keptOrderGraph(laid(input), input)).toEqual(laid(input));
  });

  it('never lays two levels over each other, however it was edited', () => {
    const ids = fc.uniqueArray(fc.constantFrom(...'abcdefghijkl'), { minLength: 1 });
    fc.assert(
      fc.property(ids, ids, ids, (first, second, third) => {
        const once = keptOrderGraph(laid({ nodes: first, edges: [] }), { nodes: second, edges: [] });
        const { nodes, width, height } = keptOrderGraph(once, { nodes: third, edges: [] });
        nodes.forEach((one, i) =>
          nodes.slice(0, i).forEach((other) => {
            const apart =
              Math.abs(one.x - other.x) >= ORDER_NODE.width || Math.abs(one.y - other.y) >= ORDER_NODE.height;
            expect([one.id, other.id, apart]).toEqual([one.id, other.id, true]);
          }),
        );
        for (const { x, y } of nodes)
          expect(x + ORDER_NODE.width / 2 <= width && y + ORDER_NODE.height / 2 <= height).toBe(true);
      }),
    );
  });
});
