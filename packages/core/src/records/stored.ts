import type { RecordKind, RecordOfKind } from '../model/records';
import { shape, type Shape } from '../fields/field';
import { STORED_ACCEPTANCE } from './acceptance/stored';
import { STORED_CARRIED_VALUE } from './carried-value/stored';
import { STORED_CELL_GRID } from './cell-grid/stored';
import { STORED_COLLECTION } from './collection/stored';
import { STORED_DEVICE } from './device/stored';
import { STORED_ENTRY } from './entry/stored';
import { STORED_FIELD } from './field/stored';
import { STORED_KIT } from './kit/stored';
import { STORED_LEVEL } from './level/stored';
import { STORED_LEVEL_ORDER } from './level-order/stored';
import { STORED_LEVEL_SET } from './level-set/stored';
import { STORED_PIECE } from './piece/stored';
import { STORED_REGISTER } from './register/stored';
import { STORED_REHEARSAL } from './rehearsal/stored';
import { STORED_STRATUM } from './stratum/stored';
import { STORED_TABLE_VIEW } from './table-view/stored';
import { STORED_TARGET } from './target/stored';
import { RECORD_KINDS } from './index';
import type { StoredRecordSpec } from './stored-spec';

/** How every kind of small record is validated: a new one is a room and a line here. */
const STORED: { readonly [K in RecordKind]: StoredRecordSpec<K> } = {
  collection: STORED_COLLECTION,
  set: STORED_LEVEL_SET,
  level: STORED_LEVEL,
  field: STORED_FIELD,
  register: STORED_REGISTER,
  entry: STORED_ENTRY,
  carriedValue: STORED_CARRIED_VALUE,
  tableView: STORED_TABLE_VIEW,
  levelOrder: STORED_LEVEL_ORDER,
  stratum: STORED_STRATUM,
  kit: STORED_KIT,
  piece: STORED_PIECE,
  device: STORED_DEVICE,
  acceptance: STORED_ACCEPTANCE,
  cellGrid: STORED_CELL_GRID,
  rehearsal: STORED_REHEARSAL,
  target: STORED_TARGET,
};

function shapeOf<K extends RecordKind>(kind: K): Shape<RecordOfKind[K]> {
  const { fields, rules }: StoredRecordSpec<K> = STORED[kind];
  return shape<RecordOfKind[K]>(fields(), ...(rules?.() ?? []));
}

/** Validation of the small records. */
export const RECORD_SHAPES = Object.fromEntries(RECORD_KINDS.map((kind) => [kind, shapeOf(kind)])) as unknown as {
  // Each kind has the shape that was made for it.
  readonly [K in RecordKind]: Shape<RecordOfKind[K]>;
};
