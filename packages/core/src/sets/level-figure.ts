import type { LevelLoad } from '../budget/cost-model';
import type { FigureState } from '../budget/hold-against';
import type { FiguresSummary } from '../budget/level-figures';
import type { Field } from '../model/field';
import type { RecordTables } from '../model/records';
import type { FigureOf } from './unlock-model';

/** What is counted in levels, by id of the level. */
export type LevelFiguresTable = Readonly<
  Record<
    string,
    Pick<FiguresSummary, 'worst' | 'worstDrawCalls' | 'tally'> & {
      readonly load: Pick<LevelLoad, 'memoryBytes' | 'diskBytes' | 'isCut'> | null;
      /** How far what the last bake saw can be trusted. */
      readonly seen: FigureState;
      /** The same of the tally. */
      readonly counted: FigureState;
    }
  >
>;

/** Tells how far what `levelFigureIn` finds can be trusted. Of a level that is cut into cells, never more than all of it is in memory at once. */
export function figureStateIn(
  figures: LevelFiguresTable,
): (level: string, field: Pick<Field, 'figure'>) => FigureState {
  return (level, { figure }) => {
    if (!figure || figure === 'strata') return 'known';
    if (!Object.hasOwn(figures, level)) return 'not known';
    const { load, seen, counted } = figures[level];
    switch (figure) {
      case 'triangles of the worst pocket':
      case 'draw calls of the worst pocket':
        return seen;
      case 'memory bytes':
        return !load ? 'not known' : load.isCut ? 'bound' : 'known';
      case 'disk bytes':
        return load ? 'known' : 'not known';
      case 'markers':
      case 'placements':
        return counted;
    }
  };
}

/** Looks up what fields show of levels. */
export function levelFigureIn(tables: Pick<RecordTables, 'level'>, figures: LevelFiguresTable): FigureOf {
  return (level, { figure, counted }) => {
    if (figure === 'strata') return Object.hasOwn(tables.level, level) ? tables.level[level].strata.length : null;
    if (!figure || !Object.hasOwn(figures, level)) return null;
    const known = figures[level];
    switch (figure) {
      case 'triangles of the worst pocket':
        return known.worst.at(0)?.triangles ?? null;
      case 'draw calls of the worst pocket':
        return known.worstDrawCalls?.drawCalls ?? null;
      case 'memory bytes':
        return known.load?.memoryBytes ?? null;
      case 'disk bytes':
        return known.load?.diskBytes ?? null;
      case 'markers':
      case 'placements': {
        // Bakes from before things were counted one by one have no tally.
        const counts = (known.tally as typeof known.tally | undefined)?.[figure === 'markers' ? 'markers' : 'pieces'];
        if (!counts) return null;
        return counted ? (counts[counted] ?? 0) : Object.values(counts).reduce((sum, count) => sum + count, 0);
      }
    }
  };
}
