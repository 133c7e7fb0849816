import { ColumnsBuilder } from '../layout/placed-columns/columns-builder';
import { describedColumns } from '../layout/placed-columns/columns-file';
import { ColumnsLayout } from '../layout/placed-columns/columns-layout';
import type { PlacedFiles } from '../layout/placed-columns/placed-files';
import type { Json } from '../model/json';
import type { Piece } from '../model/kit';
import type { Chunk } from './chunks';

/** The placements of a chunk as columns, before they are written. */
export interface ChunkColumns {
  readonly path: string;
  readonly builder: ColumnsBuilder;
  readonly layout: ColumnsLayout;
  /** What the level's file tells of them. */
  readonly described: Json;
}

/** The columns of a chunk; undefined where placements are JSON alone, and where there are none. @param path that of its file */
export function chunkColumns(
  { placements }: Chunk,
  path: string,
  pieces: Readonly<Record<string, Piece>>,
  placed: PlacedFiles | undefined,
): ChunkColumns | undefined {
  if (!placed || placements.length === 0) return undefined;
  const builder = new ColumnsBuilder(placed.form);
  for (const one of placements) builder.add(one, pieces[one.of.pieces[one.i]]);
  const layout = new ColumnsLayout(builder);
  return { path, builder, layout, described: describedColumns(builder, layout, path) };
}
