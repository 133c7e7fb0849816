import {
  EMPTY_CONTENT,
  bakeSight,
  canonicalJson,
  createRunContext,
  levelSightInput,
  packLevel,
  parseJson,
  type LevelContent,
  type Box3,
  type PackLevelInput,
  type Placement,
  type PlacementColumns,
} from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { turnQuaternion } from '../../packages/core/src/geometry/turn-quaternion';
import { columnsOf } from '../../packages/core/src/items/placement/columns';
import { columnsFile, describedColumns } from '../../packages/core/src/layout/placed-columns/columns-file';
import { ColumnsBuilder } from '../../packages/core/src/layout/placed-columns/columns-builder';
import { ColumnsLayout } from '../../packages/core/src/layout/placed-columns/columns-layout';
import type { ColumnForm } from '../../packages/core/src/layout/placed-columns/placed-files';
import { placedJson } from '../../packages/core/src/layout/placed-json';
import { Fields } from '../../packages/reader/src/fields';
import { Piece } from '../../packages/reader/src/pieces';
import { columnPlacements, type Placements } from '../../packages/reader/src/placements';
import { atMost, inTurns, timingText, type Row } from '../measure';

const MANY = 100000;
const PACKED = 60000;
const ROUNDS = 7;
const BOUNDS: Box3 = { min: [-0.5, 0, -0.5], max: [0.5, 2, 0.5] };

/** So many placements in rows, turned every way, a third of them scaled, to the millimetre. */
function placements(count: number, piece: string): Placement[] {
  return Array.from({ length: count }, (_unused, i) => ({
    id: `placement-${i}`,
    piece,
    position: [(i % 300) * 2.125, ((i * 7) % 13) / 8, Math.floor(i / 300) * 1.75 + 0.001 * (i % 9)],
    turn: [(i * 37) % 360, i % 5 === 0 ? 15 : 0, 0],
    scale: i % 3 === 0 ? [1.25, 0.75, 1.25] : [1, 1, 1],
  }));
}

/** Placements out as columns and in again: what a pack writes, and what the reader makes of it. */
function outAndIn(of: PlacementColumns, form: ColumnForm): { bytes: number; read: Placements } {
  const builder = new ColumnsBuilder(form);
  for (let i = 0; i < of.count; i++) builder.add({ of, i }, { bounds: BOUNDS });
  const layout = new ColumnsLayout(builder);
  const text = canonicalJson(describedColumns(builder, layout, 'a.bin'));
  const bytes = columnsFile(builder, layout);
  const pieceOf = (id: string): Piece => new Piece(id, id, 'a.glb', BOUNDS, [], undefined);
  return {
    bytes: bytes.length + text.length,
    read: columnPlacements(Fields.of(parseJson(text, 'columns'), 'a.json'), bytes, pieceOf),
  };
}

/** The same as plain arrays, one a column; making them is not measured. */
function plainColumns(all: readonly Placement[]): Record<string, unknown> {
  const turned = all.map(({ turn }) => turnQuaternion(turn));
  return {
    ids: all.map(({ id }) => id),
    pieces: all.map(({ piece }) => piece),
    translations: all.flatMap(({ position }) => position),
    rotations: turned.flat(),
    scales: all.flatMap(({ scale }) => scale),
  };
}

function jsonOutAndIn(columns: Record<string, unknown>): { bytes: number; read: unknown } {
  const bytes = new TextEncoder().encode(JSON.stringify(columns));
  return { bytes: bytes.length, read: JSON.parse(new TextDecoder().decode(bytes)) };
}

async function levelOf(count: number): Promise<PackLevelInput> {
  const { records } = await smallCollection();
  const piece = Object.values(records.piece)[0];
  const content: LevelContent = {
    level: { ...records.level['one'], strata: [] },
    strata: [
      {
        stratum: Object.values(records.stratum)[0],
        content: { ...EMPTY_CONTENT, placement: placements(count, piece.id) },
      },
    ],
  };
  return {
    content,
    pieces: records.piece,
    kits: records.kit,
    kitLoads: { [piece.kit]: { files: 2, diskBytes: 1, memoryBytes: 1 } },
    grid: null,
    number: null,
    sets: [],
    sections: [],
    sight: bakeSight(levelSightInput(content), {}, createRunContext()),
  };
}

/** Placements as columns against JSON of plain arrays, and packing a level of many against writing the same JSON plainly. */
export async function columnsBench(): Promise<Row[]> {
  const rows: Row[] = [];
  const many = placements(MANY, 'post');
  const plain = plainColumns(many);
  const columnsOfMany = columnsOf(many);
  const plainBytes = jsonOutAndIn(plain).bytes;
  for (const form of ['exact', 'millimetre'] as const) {
    const [columns, json] = await inTurns(
      ROUNDS,
      () => outAndIn(columnsOfMany, form),
      () => jsonOutAndIn(plain),
    );
    const { bytes } = outAndIn(columnsOfMany, form);
    rows.push(
      { name: `${MANY} placements as ${form} columns, out and in`, value: timingText(columns) },
      { name: 'the same as JSON of plain column arrays', value: timingText(json) },
      atMost('  time, in times of that', columns.medianMs / json.medianMs, 1.5),
      { name: `bytes as ${form} columns, and as JSON`, value: `${bytes} and ${plainBytes}` },
    );
    if (form === 'millimetre') rows.push(atMost('  bytes, in times of JSON', bytes / plainBytes, 0.5));
  }
  const level = await levelOf(PACKED);
  for (const placed of [undefined, { form: 'exact', withJson: false } as const]) {
    const [packing, writing] = await inTurns(
      ROUNDS,
      () => packLevel({ ...level, placed }, createRunContext()),
      () => writtenPlainly(level),
    );
    rows.push(
      { name: `packing ${PACKED} placements as ${placed ? 'columns' : 'JSON'}`, value: timingText(packing) },
      { name: 'writing the same placements and ids as JSON, plainly', value: timingText(writing) },
      atMost('  ratio', packing.medianMs / writing.medianMs, 3),
    );
  }
  return rows;
}

/** What a script would do: each placement as an object, in a list, and the ids of what is seen. */
function writtenPlainly({ content }: PackLevelInput): Uint8Array {
  const all = content.strata.flatMap((one) => one.content.placement);
  const level = { chunks: [{ placements: all.map(placedJson) }] };
  const sight = { things: all.map(({ id }) => id) };
  return new TextEncoder().encode(JSON.stringify([level, sight]));
}
