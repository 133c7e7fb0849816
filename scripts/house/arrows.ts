import type ts from 'typescript';
import type { Spot } from './kinds';
import { importsOf, type House } from './program';

/** The core's folders from the ground up: a folder may import from its own step and from those below. */
const STEPS: readonly (readonly string[])[] = [
  ['errors', 'findings', 'counted', 'model'],
  ['json', 'numeric', 'random', 'context'],
  ['geometry', 'mesh', 'spatial'],
  ['fields'],
  ['items', 'records', 'recipes'],
  ['document', 'upgrades'],
  ['formats'],
  ['sets', 'layout', 'sections', 'cells', 'detail', 'sight', 'budget', 'scene'],
  ['bakes'],
  ['pack', 'archive'],
  ['tasks'],
];
const CORE = 'packages/core/src/';

/** Imports of the core that go up, and folders that have no step. */
export function wrongArrows(house: House): Spot[] {
  const stepOf = (path: string): number => {
    const top = path.slice(CORE.length).split('/')[0].replace(/\.ts$/, '');
    return STEPS.findIndex((step) => step.includes(top));
  };
  const spots: Spot[] = [];
  for (const [source, targets] of importsOf(house)) {
    const path = house.pathOf(source);
    if (!path.startsWith(CORE) || path === `${CORE}index.ts` || path.startsWith(`${CORE}testing/`)) continue;
    const own = stepOf(path);
    if (own < 0) spots.push({ path, line: 1, what: 'lies in a folder without a step' });
    for (const target of targets) {
      const other = stepOf(house.pathOf(target));
      if (other > own && own >= 0)
        spots.push({ path, line: 1, what: `imports ${house.pathOf(target).slice(CORE.length)}` });
    }
  }
  return spots;
}

/** Files that import each other in a circle. */
export function circles(house: House): Spot[] {
  const graph = importsOf(house);
  const index = new Map<ts.SourceFile, number>();
  const low = new Map<ts.SourceFile, number>();
  const stack: ts.SourceFile[] = [];
  const on = new Set<ts.SourceFile>();
  const spots: Spot[] = [];
  // Tarjan, Depth-first search and linear graph algorithms, 1972.
  const visit = (one: ts.SourceFile): void => {
    index.set(one, index.size);
    low.set(one, index.get(one) ?? 0);
    stack.push(one);
    on.add(one);
    for (const next of graph.get(one) ?? []) {
      if (!index.has(next)) visit(next);
      if (on.has(next)) low.set(one, Math.min(low.get(one) ?? 0, low.get(next) ?? 0));
    }
    if (low.get(one) !== index.get(one)) return;
    const circle = stack.splice(stack.indexOf(one));
    for (const member of circle) on.delete(member);
    if (circle.length > 1)
      for (const member of circle)
        spots.push({ path: house.pathOf(member), line: 1, what: `in a circle of ${circle.length}` });
  };
  for (const source of graph.keys()) if (!index.has(source)) visit(source);
  return spots;
}
