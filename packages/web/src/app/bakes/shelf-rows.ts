import { counted, levelsUnder, type Device, type Level, type SetNode } from '@stravel/core';
import type { ShelfCore, ShelfRow } from '../ui/core-shelf';
import { costsOf, type LevelBakes } from './bakes-store';
import { heldText, levelCore, limitOf, measureText, type Measure } from './core-bands';

/** More levels than this and a set shows one core each for the sets in it. */
const MAX_CORES = 60;

/** What the cores of a shelf are made from. */
export interface ShelfInput {
  readonly bakes: Readonly<Record<string, LevelBakes>>;
  readonly device: Device | undefined;
  readonly measure: Measure;
  readonly selected: string;
}

/** The shelf: the top sets with a core for each of their levels, or for each set inside when there are very many. */
export function shelfRows(tree: readonly SetNode[], { bakes, device, measure, selected }: ShelfInput): ShelfRow[] {
  if (!device) return [];
  const rows = tree
    .map((node) => ({ node, levels: levelsUnder(node).filter(({ purpose }) => purpose === 'play') }))
    .filter(({ levels }) => levels.length > 0);
  const isCrowded = rows.reduce((sum, { levels }) => sum + levels.length, 0) > MAX_CORES;
  return rows.map(({ node, levels }) => {
    const cores = levels.map((level) => coreOf(level, bakes[level.id], device, measure, selected));
    return {
      id: node.set.id,
      name: node.set.name,
      text: textOf(cores),
      cores: isCrowded ? gather(node, cores, device, measure) : cores,
    };
  });
}

/** The shelf as one row, in the order of a table; the first of them when there are very many. */
export function shelfInOrder(
  levels: readonly Level[],
  name: string,
  { bakes, device, measure, selected }: ShelfInput,
): ShelfRow[] {
  const shown = levels.slice(0, MAX_CORES);
  if (!device || shown.length === 0) return [];
  const cores = shown.map((level) => coreOf(level, bakes[level.id], device, measure, selected));
  const text = textOf(cores);
  return [{ id: 'in order', name, text: levels.length > shown.length ? `first ${text}` : text, cores }];
}

/** What a set's cores come to, worst first: over, not known, stale, by a bound, within. Only known figures count as over. */
function textOf(cores: readonly ShelfCore[]): string {
  const count = (is: (core: ShelfCore) => boolean): number => cores.filter(is).length;
  const parts = [
    { count: count(({ held: { state, share = 0 } }) => state === 'known' && share > 1), text: 'over budget' },
    { count: count(({ held }) => held.state === 'not known'), text: 'not known' },
    { count: count(({ held }) => held.state === 'stale'), text: 'stale' },
  ].filter((part) => part.count > 0);
  const within = count(({ held }) => held.state === 'bound') > 0 ? 'within budget at most' : 'within budget';
  return `${counted(cores.length, 'level')} · ${parts.length > 0 ? parts.map((part) => `${part.count} ${part.text}`).join(', ') : within}`;
}

function coreOf(
  level: Level,
  bakes: LevelBakes | undefined,
  device: Device,
  measure: Measure,
  selected: string,
): ShelfCore {
  const { bands, held } = levelCore(costsOf(bakes), device, measure);
  return {
    id: level.id,
    name: level.name,
    bands,
    total: bands.reduce((sum, { value }) => sum + value, 0),
    totalText:
      held.state === 'not known' && held.value === undefined
        ? 'not known: nothing is laid out yet'
        : heldText(measure, held),
    held,
    selected: level.id === selected,
  };
}

/** One core for each set inside (or for the set itself): its heaviest level. */
function gather(node: SetNode, cores: readonly ShelfCore[], device: Device, measure: Measure): ShelfCore[] {
  const byId = new Map(cores.map((core) => [core.id, core]));
  const inner = node.sets.length > 0 ? node.sets : [node];
  return inner.flatMap((set) => {
    const own = levelsUnder(set).flatMap(({ id }) => byId.get(id) ?? []);
    const heaviest = own.reduce<ShelfCore | undefined>(
      (best, core) => (!best || core.total > best.total ? core : best),
      undefined,
    );
    return heaviest
      ? [
          {
            ...heaviest,
            name: `${set.set.name} (${own.length})`,
            totalText: `heaviest: ${heaviest.name}, ${heaviest.totalText} of ${measureText(measure, limitOf(device, measure))}`,
          },
        ]
      : [];
  });
}
