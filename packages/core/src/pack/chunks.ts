import { RESIDENT, type CutLevel } from '../cells/cut-level';
import type { LevelContent } from '../layout/level-content';
import type { Block } from '../model/block';
import type { CellGrid } from '../model/cell-grid';
import { placementsOf } from '../layout/level-placements';
import type { PlacedAt } from '../layout/placed-columns/placed-files';

/** A part of a level that is loaded as one: all of it, what is resident, or a cell. */
export interface Chunk {
  /** '' for what is always loaded. */
  readonly cell: string;
  readonly blocks: Block[];
  readonly placements: (PlacedAt & { readonly stratum: string })[];
}

/** Name of a chunk's files, without ending. */
export function chunkName({ cell }: Chunk): string {
  return cell === '' ? 'resident' : `cell-${cell.replace(',', '-')}`;
}

/** The grid by which a level is cut: its own, else one with a single cell; what is too large for that is resident anyway. */
export function gridOf(level: string, grid: CellGrid | null): CellGrid {
  return (
    grid ?? {
      id: level,
      sizeMetres: 10000,
      origin: [-5000, -5000],
      loadMetres: 0,
      dropMetres: 0,
      readyMetres: 0,
      resident: [],
    }
  );
}

/** The chunks of a level, the resident one first. @param cut undefined where the level is not cut: all is resident then */
export function chunksOf({ strata }: LevelContent, cut: CutLevel | undefined): Chunk[] {
  const chunks = new Map<string, Chunk>([['', { cell: '', blocks: [], placements: [] }]]);
  const chunkOf = (id: string): Chunk => {
    const cell = cut?.cellOfThing[id] ?? RESIDENT;
    const key = cut && cell !== RESIDENT ? cut.cells[cell].key : '';
    const known = chunks.get(key) ?? { cell: key, blocks: [], placements: [] };
    chunks.set(key, known);
    return known;
  };
  for (const one of strata) {
    for (const block of one.content.block) chunkOf(block.id).blocks.push(block);
    const of = placementsOf(one);
    const stratum = one.stratum.id;
    of.ids.forEach((id, i) => chunkOf(id).placements.push({ of, i, stratum }));
  }
  return [...chunks.values()].sort((a, b) => (a.cell < b.cell ? -1 : 1));
}
