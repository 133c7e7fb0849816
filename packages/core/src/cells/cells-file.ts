import { strToU8 } from 'fflate';
import type { CutLevel } from './cut-level';
import { canonicalJson } from '../json/canonical-json';
import type { CellGrid } from '../model/cell-grid';

/** The file of a level's grid and cells. */
export function cellsFile(grid: CellGrid, { cells }: CutLevel): Uint8Array {
  const { sizeMetres, origin, loadMetres, dropMetres, readyMetres } = grid;
  const file = {
    format: 'stravel-pack-cells',
    version: 1,
    sizeMetres,
    origin: [...origin],
    loadMetres,
    dropMetres,
    readyMetres,
    cells: cells.map(({ key, min, max, memoryBytes, triangles }) => ({
      cell: key,
      min: [...min],
      max: [...max],
      memoryBytes,
      triangles,
    })),
  };
  return strToU8(canonicalJson(file));
}
