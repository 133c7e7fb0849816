import { RECORDS_DOCUMENT, type LoggedEdit, type Operation } from '@stravel/core';
import { Op, QueryTypes } from 'sequelize';
import type { Database } from '../db/database';
import type { EditRow } from '../db/models';

/** Which part of a history is asked for. */
export interface HistoryRange {
  readonly below: number;
  readonly after: number;
  readonly limit: number;
}

/** The append-only log. Rows are never changed. */
export class EditRepository {
  constructor(private readonly database: Database) {}

  /** Number of the last edit, 0 when there is none. */
  async lastSequence(collection: string): Promise<number> {
    const [{ last }] = await this.database.sequelize.query<{ last: number | null }>('SELECT MAX(sequence) AS last FROM edits WHERE collection = ?', {
      replacements: [collection],
      type: QueryTypes.SELECT,
    });
    return last ?? 0;
  }

  async byId(collection: string, id: string): Promise<LoggedEdit | undefined> {
    const row = await this.database.direct.first<EditRow>({ sql: 'SELECT * FROM edits WHERE collection = $1 AND id = $2', values: [collection, id] });
    return row && fromRow(row);
  }

  /** Edits after a number, oldest first. */
  async after(collection: string, sequence: number, limit: number): Promise<LoggedEdit[]> {
    const rows = await this.database.models.edits.findAll({
      where: { collection, sequence: { [Op.gt]: sequence } },
      order: ['sequence'],
      limit,
      raw: true,
    });
    return (rows as unknown as EditRow[]).map(fromRow);
  }

  /** Edits that touch a document, after a number, oldest first. */
  async ofDocument(collection: string, document: string, sequence: number): Promise<LoggedEdit[]> {
    const rows = await this.database.sequelize.query<EditRow>(
      'SELECT edits.* FROM edit_documents JOIN edits USING (collection, sequence) ' +
        'WHERE edit_documents.collection = ? AND edit_documents.document = ? AND edit_documents.sequence > ? ORDER BY edit_documents.sequence',
      { replacements: [collection, document, sequence], type: QueryTypes.SELECT },
    );
    return rows.map(fromRow);
  }

  /**
   * Edits that may touch some records or documents, newest first: the records' edits are narrowed down by text, so that what
   * they are about must still be read from their operations.
   * @param ids of small records, and of documents
   * @param kind when given, only edits that mention it too
   */
  async mentioning(collection: string, ids: readonly string[], { below, after, limit }: HistoryRange, kind = ''): Promise<LoggedEdit[]> {
    const mentions = ids.map((_id, i) => `instr(edits.operations, :mention${i}) > 0`).join(' OR ');
    const rows = await this.database.sequelize.query<EditRow>(
      'SELECT DISTINCT edits.* FROM edit_documents JOIN edits USING (collection, sequence) ' +
        'WHERE edit_documents.collection = :collection AND edit_documents.sequence < :below AND edit_documents.sequence > :after AND ' +
        `(edit_documents.document IN (:ids) OR (edit_documents.document = :records AND (${mentions}))) AND instr(edits.operations, :kind) > 0 ORDER BY edits.sequence DESC LIMIT :limit`,
      {
        replacements: { collection, below, after, limit, ids, kind, records: RECORDS_DOCUMENT, ...Object.fromEntries(ids.map((id, i) => [`mention${i}`, JSON.stringify(id)])) },
        type: QueryTypes.SELECT,
      },
    );
    return rows.map(fromRow);
  }

  /** The last edits of one person, oldest first. */
  async ofPerson(collection: string, person: string, limit: number): Promise<LoggedEdit[]> {
    const rows = await this.database.models.edits.findAll({
      where: { collection, person },
      order: [['sequence', 'DESC']],
      limit,
      raw: true,
    });
    return (rows as unknown as EditRow[]).map(fromRow).reverse();
  }

  /** Writes edits with the documents that they touch, as one transaction; from inside the write queue. */
  async append(edits: readonly { readonly collection: string; readonly edit: LoggedEdit }[]): Promise<void> {
    if (edits.length === 0) return;
    await this.database.direct.atOnce(
      edits.flatMap(({ collection, edit }) => [
        {
          sql: 'INSERT INTO edits (collection, sequence, id, person, label, undoes, at, operations) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)',
          values: [collection, edit.sequence, edit.id, edit.person, edit.label, edit.undoes, edit.at, JSON.stringify(edit.operations)],
        },
        ...[...new Set(edit.operations.map((operation) => operation.document))].map((document) => ({
          sql: 'INSERT INTO edit_documents (collection, document, sequence) VALUES ($1, $2, $3)',
          values: [collection, document, edit.sequence],
        })),
        // The list of collections has names of its own, so that it need not open them.
        ...namesIn(edit).map((name) => ({ sql: 'UPDATE collections SET name = $1 WHERE id = $2', values: [name, collection] })),
      ]),
    );
  }
}

/** What an edit calls the collection. */
function namesIn({ operations }: LoggedEdit): string[] {
  return operations.flatMap(({ kind, field, after }) => {
    if (kind !== 'collection') return [];
    const name = field === 'name' ? after : field === null ? (after as { readonly name?: unknown } | null)?.name : undefined;
    return typeof name === 'string' ? [name] : [];
  });
}

function fromRow(row: EditRow): LoggedEdit {
  return {
    sequence: row.sequence,
    id: row.id,
    person: row.person,
    label: row.label,
    undoes: row.undoes,
    at: row.at,
    operations: JSON.parse(row.operations) as Operation[], // written by `append` from a checked edit
  };
}
