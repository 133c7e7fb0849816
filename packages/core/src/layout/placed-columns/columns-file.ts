import { plainJson } from '../../json/plain-json';
import type { Json } from '../../model/json';
import type { ColumnsBuilder } from './columns-builder';
import type { ColumnsLayout, FilledRun } from './columns-layout';
import type { ColumnForm } from './placed-files';

/** What a form promises: no point of a piece is farther from its place, metres. */
const WITHIN_METRES = { exact: 0, millimetre: 0.001, centimetre: 0.01 } as const satisfies Record<ColumnForm, number>;

/** Placements of a chunk as columns, little-endian; docs/formats/pack.md tells of them. */
export function columnsFile({ ids }: ColumnsBuilder, layout: ColumnsLayout): Uint8Array {
  const bytes = new Uint8Array(layout.bytes);
  const view = new DataView(bytes.buffer);
  for (const run of layout.runs) fill(view, run);
  let at = layout.ids.offset;
  // Ids are letters, digits, dots, dashes and underscores.
  for (const id of ids) for (let k = 0; k < id.length; k++) bytes[at++] = id.charCodeAt(k);
  return bytes;
}

/** What a level's file tells of the columns of a chunk. @param file path of them */
export function describedColumns(
  { form, count, pieces, groups, values }: ColumnsBuilder,
  { columns }: ColumnsLayout,
  file: string,
): Json {
  return {
    file,
    placements: count,
    withinMetres: WITHIN_METRES[form],
    pieces: [...pieces.names],
    // What stands in no group has '' for it.
    ...(columns.some(({ name }) => name === 'group') ? { groups: [...groups.names] } : {}),
    ...(values.length > 0
      ? { values: values.map(({ placement, values: own }) => ({ placement, values: plainJson(own) })) }
      : {}),
    table: columns.map((column) => plainJson(column)),
  };
}

function fill(view: DataView, { type, offset, count, numberAt }: FilledRun): void {
  switch (type) {
    case 'float64':
      for (let i = 0; i < count; i++) view.setFloat64(offset + i * 8, numberAt(i), true);
      break;
    case 'float32':
      for (let i = 0; i < count; i++) view.setFloat32(offset + i * 4, numberAt(i), true);
      break;
    case 'uint32':
      for (let i = 0; i < count; i++) view.setUint32(offset + i * 4, numberAt(i), true);
      break;
    case 'uint16':
      for (let i = 0; i < count; i++) view.setUint16(offset + i * 2, numberAt(i), true);
      break;
    case 'uint8':
      for (let i = 0; i < count; i++) view.setUint8(offset + i, numberAt(i));
      break;
  }
}
