import { strToU8 } from 'fflate';
import type { CutLevel } from './cut-level';
import { canonicalJson } from '../json/canonical-json';
import type { StandingLevel } from '../layout/standing-level';
import type { CellGrid } from '../model/cell-grid';
import { rulesInLevel } from './volume-rules';
import { packHead } from '../model/pack-format';

/** The file of a level's grid and cells, and of what its volumes load: only cells and volumes that are there. */
export function cellsFile(grid: CellGrid, { cells }: CutLevel, level: StandingLevel): Uint8Array {
  const keys = new Set(cells.map(({ key }) => key));
  const rules = rulesInLevel(grid, level).flatMap(([{ volume, cells: loaded }]) => {
    const there = loaded.filter((key) => keys.has(key));
    return there.length > 0 ? [{ volume, cells: there }] : [];
  });
  const { sizeMetres, origin, loadMetres, dropMetres, readyMetres } = grid;
  const file = {
    ...packHead('stravel-pack-cells'),
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
    ...(rules.length > 0 ? { volumes: rules } : {}),
  };
  return strToU8(canonicalJson(file));
}
