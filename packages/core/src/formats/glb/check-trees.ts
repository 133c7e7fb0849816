import { asTables } from './open-glb';

/**
 * Checks that nodes form trees: one that stands in itself has no place. Source: Khronos, glTF 2.0 specification, section 3.5.2.
 * @param fail throws the rule that is broken
 */
export function checkTrees(nodes: unknown, fail: (rule: string) => never): void {
  const children = asTables(nodes).map((node) =>
    Array.isArray(node['children']) ? (node['children'] as readonly unknown[]) : [],
  );
  /** 0 not met, 1 on the way down, 2 done with. */
  const state = new Uint8Array(children.length);
  for (let root = 0; root < children.length; root++) {
    if (state[root] !== 0) continue;
    state[root] = 1;
    const way = [{ node: root, next: 0 }];
    for (let last = way.at(-1); last; last = way.at(-1)) {
      const { node } = last;
      if (last.next === children[node].length) {
        state[node] = 2;
        way.pop();
        continue;
      }
      const child = children[node][last.next++];
      if (typeof child !== 'number' || !(child in children))
        return fail(`nodes[${node}] has the child ${JSON.stringify(child)}, there are ${children.length} nodes`);
      if (state[child] === 1) return fail(`nodes[${child}] is inside itself`);
      if (state[child] === 2) continue;
      state[child] = 1;
      way.push({ node: child, next: 0 });
    }
  }
}
