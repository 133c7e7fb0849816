import {
  DataTypes,
  type Model,
  type ModelAttributeColumnOptions,
  type ModelStatic,
  type Sequelize,
  type ModelAttributes,
} from 'sequelize';

export interface CollectionRow {
  id: string;
  name: string;
  created_at: string;
  /** Time at which it went to the bin, null while in use. */
  binned_at: string | null;
}
export interface PersonRow {
  id: string;
  name: string;
  created_at: string;
}
export interface EditRow {
  collection: string;
  sequence: number;
  id: string;
  person: string;
  label: string;
  undoes: string | null;
  at: string;
  operations: string;
  /** Version of the model that wrote the operations. */
  model: number;
}
export interface EditDocumentRow {
  collection: string;
  document: string;
  sequence: number;
}
export interface SnapshotRow {
  collection: string;
  document: string;
  sequence: number;
  /** Version of the model that its chunks are of. */
  model: number;
}
export interface SnapshotChunkRow {
  collection: string;
  document: string;
  kind: string;
  chunk: number;
  count: number;
  bytes: Buffer;
}
export interface BakeRow {
  collection: string;
  kind: string;
  key: string;
  file: string;
  bytes: number;
  /** JSON. */
  summary: string;
  /** JSON: hash of each part that others read by itself. */
  parts: string;
  used_at: string;
}
/** Which bake each subject had last. */
export interface BakeSubjectRow {
  collection: string;
  kind: string;
  subject: string;
  key: string;
}
export interface JobRow {
  id: string;
  collection: string;
  kind: string;
  state: string;
  attempts: number;
  input: string;
  progress: number;
  stage: string;
  error: string | null;
  /** JSON, null until it is done. */
  result: string | null;
  created_at: string;
  changed_at: string;
}

/** One model a table. */
export interface Models {
  readonly collections: ModelStatic<Model<CollectionRow>>;
  readonly people: ModelStatic<Model<PersonRow>>;
  readonly edits: ModelStatic<Model<EditRow>>;
  readonly editDocuments: ModelStatic<Model<EditDocumentRow>>;
  readonly snapshots: ModelStatic<Model<SnapshotRow>>;
  readonly snapshotChunks: ModelStatic<Model<SnapshotChunkRow>>;
  readonly bakes: ModelStatic<Model<BakeRow>>;
  readonly bakeSubjects: ModelStatic<Model<BakeSubjectRow>>;
  readonly jobs: ModelStatic<Model<JobRow>>;
}

// Sequelize writes into the attribute objects, so each column needs one of its own.
const text = (): ModelAttributeColumnOptions => ({ type: DataTypes.TEXT, allowNull: false });
const whole = (): ModelAttributeColumnOptions => ({ type: DataTypes.INTEGER, allowNull: false });
const key = (): ModelAttributeColumnOptions => ({ ...text(), primaryKey: true });
const wholeKey = (): ModelAttributeColumnOptions => ({ ...whole(), primaryKey: true });

/** Describes the tables that the migrations made. */
export function defineModels(sequelize: Sequelize): Models {
  const define = <Row extends object>(
    table: string,
    attributes: ModelAttributes<Model<Row>, Row>,
  ): ModelStatic<Model<Row>> =>
    sequelize.define<Model<Row>, Row>(table, attributes, { tableName: table, timestamps: false });
  return {
    collections: define<CollectionRow>('collections', {
      id: key(),
      name: text(),
      created_at: text(),
      binned_at: { type: DataTypes.TEXT },
    }),
    people: define<PersonRow>('people', { id: key(), name: text(), created_at: text() }),
    edits: define<EditRow>('edits', {
      collection: key(),
      sequence: wholeKey(),
      id: text(),
      person: text(),
      label: text(),
      undoes: { type: DataTypes.TEXT },
      at: text(),
      operations: text(),
      model: whole(),
    }),
    editDocuments: define<EditDocumentRow>('edit_documents', {
      collection: key(),
      document: key(),
      sequence: wholeKey(),
    }),
    snapshots: define<SnapshotRow>('snapshots', {
      collection: key(),
      document: key(),
      sequence: whole(),
      model: whole(),
    }),
    snapshotChunks: define<SnapshotChunkRow>('snapshot_chunks', {
      collection: key(),
      document: key(),
      kind: key(),
      chunk: wholeKey(),
      count: whole(),
      bytes: { type: DataTypes.BLOB, allowNull: false },
    }),
    bakes: define<BakeRow>('bakes', {
      collection: key(),
      kind: key(),
      key: key(),
      file: text(),
      bytes: whole(),
      summary: text(),
      parts: text(),
      used_at: text(),
    }),
    bakeSubjects: define<BakeSubjectRow>('bake_subjects', {
      collection: key(),
      kind: key(),
      subject: key(),
      key: text(),
    }),
    jobs: define<JobRow>('jobs', {
      id: key(),
      collection: text(),
      kind: text(),
      state: text(),
      attempts: whole(),
      input: text(),
      progress: { type: DataTypes.FLOAT, allowNull: false },
      stage: text(),
      error: { type: DataTypes.TEXT },
      result: { type: DataTypes.TEXT },
      created_at: text(),
      changed_at: text(),
    }),
  };
}
