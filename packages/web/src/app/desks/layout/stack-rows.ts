import type { StackEntry, Stratum, StratumFigures } from '@stravel/core';
import type { StratumDocument } from '../../document/stratum-document';
import type { StackRow } from './parts/strata-stack';
import type { LayoutState } from './store/layout-store';

/** What the rows of a stack are made from. */
export interface StackSources {
  readonly records: Readonly<Record<string, Stratum>>;
  /** Strata that are loaded. */
  readonly documents: ReadonlyMap<string, Pick<StratumDocument, 'blocks' | 'placements' | 'markers' | 'dividers'>>;
  readonly figures: readonly Pick<StratumFigures, 'stratum' | 'memoryBytes'>[];
  /** Levels that stack each stratum. */
  readonly reach: ReadonlyMap<string, readonly string[]>;
  readonly state: Pick<LayoutState, 'hidden' | 'locked'>;
  readonly active: string | undefined;
}

/** A row for each stratum of a stack, top first; the gauge is its share of the heaviest one's memory. */
export function stackRows(stack: readonly StackEntry[], { records, documents, figures, reach, state, active }: StackSources): StackRow[] {
  const costs = new Map(figures.map(({ stratum, memoryBytes }) => [stratum, memoryBytes]));
  const most = Math.max(1, ...costs.values());
  return [...stack].reverse().flatMap(({ stratum, switchedOff }) => {
    const record = records[stratum];
    if (!record) return [];
    const document = documents.get(stratum);
    return [
      {
        id: stratum,
        name: record.name,
        role: record.role,
        says: switchedOff ? 'switched off' : document ? contentWords(document) : 'loading…',
        share: (costs.get(stratum) ?? 0) / most,
        levels: record.owner === null ? (reach.get(stratum)?.length ?? 1) : 1,
        hidden: state.hidden.includes(stratum),
        locked: state.locked.includes(stratum),
        switchedOff,
        active: active === stratum,
      },
    ];
  });
}

/** The two kinds that a stratum holds first, counted: '14 blocks, 1 marker'. */
function contentWords({ blocks, placements, markers, dividers }: Pick<StratumDocument, 'blocks' | 'placements' | 'markers' | 'dividers'>): string {
  const counts = [
    [blocks.size, 'block'],
    [placements.count, 'placement'],
    [markers.size, 'marker'],
    [dividers.size, 'divider'],
  ] as const;
  const words = counts.filter(([count]) => count > 0).map(([count, noun]) => `${count} ${noun}${count === 1 ? '' : 's'}`);
  return words.slice(0, 2).join(', ') || 'empty';
}
