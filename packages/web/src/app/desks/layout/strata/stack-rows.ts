import { ITEMS, kindsWith, type StackEntry, type Stratum, type StratumFigures } from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import type { LayoutState } from '../store/layout-store';
import type { StackRow } from './strata-stack';

type StackedContent = Pick<StratumDocument, 'tables'>;

/** What the rows of a stack are made from. */
export interface StackSources {
  readonly records: Readonly<Record<string, Stratum>>;
  /** Strata that are loaded. */
  readonly documents: ReadonlyMap<string, StackedContent>;
  readonly figures: readonly Pick<StratumFigures, 'stratum' | 'memoryBytes'>[];
  /** Levels that stack each stratum. */
  readonly reach: ReadonlyMap<string, readonly string[]>;
  /** How many things of a stratum the level has otherwise. */
  readonly patches: (stratum: string) => number;
  readonly state: Pick<LayoutState, 'hidden' | 'locked' | 'soloed'>;
  readonly active: string | undefined;
}

/** A row for each stratum of a stack, top first; the gauge is its share of the heaviest one's memory. */
export function stackRows(
  stack: readonly StackEntry[],
  { records, documents, figures, reach, patches, state, active }: StackSources,
): StackRow[] {
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
        text: document ? contentWords(document) : 'loading…',
        share: (costs.get(stratum) ?? 0) / most,
        levels: record.owner === null ? (reach.get(stratum)?.length ?? 1) : 1,
        isShared: record.owner === null,
        patches: patches(stratum),
        hidden: state.hidden.includes(stratum),
        locked: state.locked.includes(stratum),
        soloed: state.soloed === stratum,
        switchedOff,
        active: active === stratum,
      },
    ];
  });
}

/** The two kinds that a stratum holds first, counted: '14 blocks, 1 marker'. */
function contentWords({ tables }: StackedContent): string {
  const words = COUNTED.filter((kind) => tables[kind].size > 0).map((kind) => {
    const { one, many } = ITEMS[kind].words;
    return `${tables[kind].size} ${tables[kind].size === 1 ? one : many}`;
  });
  return words.slice(0, 2).join(', ') || 'empty';
}

/** What a stratum is told by: things of this desk with a place. */
const COUNTED = kindsWith('selected').filter((kind) => ITEMS[kind].place !== null);
