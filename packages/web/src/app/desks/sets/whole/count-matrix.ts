import type { Level, LevelFiguresTable, Piece } from '@stravel/core';

/** What is counted in every level: a kind of marker, a sight of blocks, a piece or a kit. */
export interface MatrixColumn {
  readonly id: string;
  readonly name: string;
  /** Kit of a piece, or what the column is of. */
  readonly of: string;
}

export interface MatrixCell {
  readonly count: number;
  /** Share of the most of its column, 0 to 1. */
  readonly share: number;
  /** 'crowded': far more than the others have. 'missing': none, where nearly all others of the set have some. */
  readonly stands: 'crowded' | 'missing' | '';
}

export interface MatrixRow {
  readonly level: Level;
  /** Null while nothing has counted the level. */
  readonly cells: readonly MatrixCell[] | null;
  /** Whether the level cannot be counted as it stands, and this is what its last bake counted. */
  readonly isStale: boolean;
}

export interface CountMatrix {
  readonly columns: readonly MatrixColumn[];
  readonly rows: readonly MatrixRow[];
}

/** Where at least this share of a set's levels have something, one that has none stands out. */
const NEARLY_ALL = 0.75;
/** Times the median of those that have some. */
const CROWDED_TIMES = 4;
const FEWEST_TO_COMPARE = 4;

/**
 * How many of what stand in each level.
 * @param topOf names the top set of a level: levels are compared with those of the same one
 */
export function countMatrix(
  levels: readonly Level[],
  figures: LevelFiguresTable,
  pieces: Readonly<Record<string, Piece>>,
  kitName: (kit: string) => string,
  by: 'pieces' | 'kits',
  topOf: (level: Level) => string,
): CountMatrix {
  const columns = new Map<string, MatrixColumn>();
  const counted = levels.map((level) => {
    const tally = Object.hasOwn(figures, level.id)
      ? (figures[level.id].tally as (typeof figures)[string]['tally'] | undefined)
      : undefined;
    if (!tally) return { level, counts: null };
    const counts = new Map<string, number>();
    const add = (column: MatrixColumn, count: number): void => {
      columns.set(column.id, column);
      counts.set(column.id, (counts.get(column.id) ?? 0) + count);
    };
    for (const [kind, count] of Object.entries(tally.markers))
      add({ id: `marker ${kind}`, name: kind, of: 'markers' }, count);
    for (const [sight, count] of Object.entries(tally.blocks))
      add(
        { id: `block ${sight}`, name: sight === 'hides' ? 'blocks view' : 'does not block view', of: 'blocks' },
        count,
      );
    for (const [id, count] of Object.entries(tally.pieces)) {
      const piece = Object.hasOwn(pieces, id) ? pieces[id] : undefined;
      const kit = piece ? kitName(piece.kit) : 'deleted pieces';
      if (by === 'kits') add({ id: `kit ${piece?.kit ?? ''}`, name: kit, of: 'kits' }, count);
      else add({ id: `piece ${id}`, name: piece?.name ?? id, of: kit }, count);
    }
    return { level, counts };
  });
  const sorted = [...columns.values()].sort(
    (a, b) => rank(a) - rank(b) || (a.of < b.of ? -1 : a.of > b.of ? 1 : a.name < b.name ? -1 : 1),
  );
  const shape = new Map(
    sorted.map(({ id }) => [
      id,
      columnShape(
        counted.flatMap(({ level, counts }) => (counts ? [{ top: topOf(level), count: counts.get(id) ?? 0 }] : [])),
      ),
    ]),
  );
  const rows = counted.map(({ level, counts }): MatrixRow => {
    if (!counts) return { level, cells: null, isStale: false };
    return {
      level,
      isStale: figures[level.id].counted === 'stale',
      cells: sorted.map(({ id }): MatrixCell => {
        const count = counts.get(id) ?? 0;
        const { most, crowdedFrom, common } = shape.get(id) as ColumnShape;
        return {
          count,
          share: most > 0 ? count / most : 0,
          stands: count >= crowdedFrom ? 'crowded' : count === 0 && common.has(topOf(level)) ? 'missing' : '',
        };
      }),
    };
  });
  return { columns: sorted, rows };
}

interface ColumnShape {
  readonly most: number;
  readonly crowdedFrom: number;
  /** Top sets in which nearly all levels have some. */
  readonly common: ReadonlySet<string>;
}

function columnShape(all: readonly { readonly top: string; readonly count: number }[]): ColumnShape {
  const some = all.flatMap(({ count }) => (count > 0 ? [count] : [])).sort((a, b) => a - b);
  const median = some.length > 0 ? some[some.length >> 1] : 0;
  const bySet = new Map<string, { have: number; all: number }>();
  for (const { top, count } of all) {
    const set = bySet.get(top) ?? { have: 0, all: 0 };
    bySet.set(top, { have: set.have + (count > 0 ? 1 : 0), all: set.all + 1 });
  }
  const common = [...bySet]
    .filter(([, { have, all: size }]) => size >= FEWEST_TO_COMPARE && have / size >= NEARLY_ALL)
    .map(([top]) => top);
  return {
    most: some.at(-1) ?? 0,
    crowdedFrom: some.length >= FEWEST_TO_COMPARE ? median * CROWDED_TIMES : Infinity,
    common: new Set(common),
  };
}

const RANKS = ['markers', 'blocks'];
const rank = ({ of }: MatrixColumn): number => (RANKS.includes(of) ? RANKS.indexOf(of) : RANKS.length);
