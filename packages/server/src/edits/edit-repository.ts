import { UPGRADES, recordSpecOf, type EditHead, type LoggedEdit, type ModelUpgrades } from '@stravel/core';
import { QueryTypes } from 'sequelize';
import type { Database } from '../db/database';
import type { SqlValue, Statement } from '../db/direct-connection';
import type { EditRow } from '../db/models';
import { readAlone } from '../db/read-alone';
import type { ThreadPool } from '../jobs/thread-pool';
import { Stretches } from '../loop/stretches';
import { ownedPrefix, recordsTouched } from './records-touched';
import { upgradedOperations, upgradedText, type KeptOperations } from './upgraded-text';

/** Which part of a history is asked for. */
export interface HistoryRange {
  readonly below: number;
  readonly after: number;
  readonly limit: number;
}

/** An edit of the log as it goes out: JSON, as it was kept where the version that wrote it is the newest. */
export interface EditText {
  readonly sequence: number;
  readonly id: string;
  readonly text: string;
}

/** Operations of earlier versions that are longer than this are upgraded in a thread, characters. */
const LONG_TEXT = 1000000;

/** The append-only log. Rows are never changed: what an earlier version wrote is upgraded as it is read. */
export class EditRepository {
  constructor(
    private readonly database: Database,
    private readonly upgrades: ModelUpgrades = UPGRADES,
    /** Where there are none, long texts are upgraded here. */
    private readonly readers?: Pick<ThreadPool, 'run'>,
  ) {}

  /** Number of the last edit, 0 when there is none. */
  async lastSequence(collection: string): Promise<number> {
    const [{ last }] = await this.database.sequelize.query<{ last: number | null }>(
      'SELECT MAX(sequence) AS last FROM edits WHERE collection = ?',
      {
        replacements: [collection],
        type: QueryTypes.SELECT,
      },
    );
    return last ?? 0;
  }

  async byId(collection: string, id: string): Promise<LoggedEdit | undefined> {
    const row = await this.database.direct.first<EditRow>({
      sql: 'SELECT * FROM edits WHERE collection = $1 AND id = $2',
      values: [collection, id],
    });
    return row && this.fromRow(row);
  }

  async textById(collection: string, id: string): Promise<EditText | undefined> {
    const row = await this.database.direct.first<EditRow>({
      sql: 'SELECT * FROM edits WHERE collection = $1 AND id = $2',
      values: [collection, id],
    });
    return row && this.textOfRow(row);
  }

  /** Edits after a number, oldest first. */
  async after(collection: string, sequence: number, limit: number): Promise<EditText[]> {
    const sql = 'SELECT * FROM edits WHERE collection = $1 AND sequence > $2 ORDER BY sequence LIMIT $3';
    return this.textsOf(await this.read<EditRow>(sql, [collection, sequence, limit]));
  }

  /** Edits that touch a document, after a number, oldest first. */
  async ofDocument(collection: string, document: string, sequence: number): Promise<LoggedEdit[]> {
    const rows = await this.database.sequelize.query<EditRow>(
      'SELECT edits.* FROM edit_documents JOIN edits USING (collection, sequence) ' +
        'WHERE edit_documents.collection = ? AND edit_documents.document = ? AND edit_documents.sequence > ? ORDER BY edit_documents.sequence',
      { replacements: [collection, document, sequence], type: QueryTypes.SELECT },
    );
    return rows.map((row) => this.fromRow(row));
  }

  /** Edits that touch some small records or documents, newest first. @param ids of small records, and of documents */
  async touching(
    collection: string,
    ids: readonly string[],
    { below, after, limit }: HistoryRange,
  ): Promise<EditText[]> {
    const sql =
      'SELECT * FROM edits WHERE collection = $1 AND sequence IN (' +
      'SELECT sequence FROM edit_records WHERE collection = $1 AND record IN (SELECT value FROM json_each($2)) AND sequence < $3 AND sequence > $4 UNION ' +
      'SELECT sequence FROM edit_documents WHERE collection = $1 AND document IN (SELECT value FROM json_each($2)) AND sequence < $3 AND sequence > $4 ' +
      'ORDER BY sequence DESC LIMIT $5) ORDER BY sequence DESC';
    return this.textsOf(await this.read<EditRow>(sql, [collection, JSON.stringify(ids), below, after, limit]));
  }

  /** Ids of the strata that edits show to have been owned by a level at some time. */
  async strataOwned(collection: string, level: string): Promise<string[]> {
    const prefix = ownedPrefix(level);
    const sql = 'SELECT DISTINCT record FROM edit_records WHERE collection = $1 AND record > $2 AND record < $3';
    const rows = await this.read<{ record: string }>(sql, [collection, prefix, `${prefix}\u007f`]);
    return rows.map(({ record }) => record.slice(prefix.length));
  }

  /** The last edits of one person, oldest first, without what they changed. */
  async ofPerson(collection: string, person: string, limit: number): Promise<EditHead[]> {
    const sql =
      'SELECT id, label, undoes FROM edits WHERE collection = $1 AND person = $2 ORDER BY sequence DESC LIMIT $3';
    return (await this.read<EditHead>(sql, [collection, person, limit])).reverse();
  }

  /** What may take long is read beside everything else. @throws HttpError 503 'READ_TOO_LONG' */
  private read<Row>(sql: string, values: readonly SqlValue[]): Promise<Row[]> {
    return readAlone<Row>(this.database.storage, { sql, values });
  }

  /** Writes edits with the documents that they touch, as one transaction; from inside the write queue. */
  async append(
    edits: readonly { readonly collection: string; readonly edit: LoggedEdit; readonly operationsText: string }[],
  ): Promise<void> {
    if (edits.length === 0) return;
    await this.database.direct.atOnce(
      edits.flatMap(({ collection, edit, operationsText }) => [
        {
          sql: 'INSERT INTO edits (collection, sequence, id, person, label, undoes, at, operations, model) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)',
          values: [
            collection,
            edit.sequence,
            edit.id,
            edit.person,
            edit.label,
            edit.undoes,
            edit.at,
            operationsText,
            this.upgrades.version,
          ],
        },
        ...[...new Set(edit.operations.map((operation) => operation.document))].map((document) => ({
          sql: 'INSERT INTO edit_documents (collection, document, sequence) VALUES ($1, $2, $3)',
          values: [collection, document, edit.sequence],
        })),
        ...listed(collection, edit),
        // The list of collections has names of its own, so that it need not open them.
        ...namesIn(edit).map((name) => ({
          sql: 'UPDATE collections SET name = $1 WHERE id = $2',
          values: [name, collection],
        })),
      ]),
    );
  }

  private async textsOf(rows: readonly EditRow[]): Promise<EditText[]> {
    const texts: EditText[] = [];
    const stretches = new Stretches();
    for (const row of rows) {
      texts.push(await this.textOfRow(row));
      await stretches.rest();
    }
    return texts;
  }

  private async textOfRow(row: EditRow): Promise<EditText> {
    const { sequence, id, person, label, undoes, at } = row;
    const head = JSON.stringify({ sequence, id, person, label, undoes, at });
    return { sequence, id, text: `${head.slice(0, -1)},"operations":${await this.operationsText(row)}}` };
  }

  /** What the current version wrote goes out as it is kept, and so does what mentions nothing that has changed since. */
  private async operationsText({ operations, model }: EditRow): Promise<string> {
    if (!this.upgrades.mayChange(operations, model)) return operations;
    if (this.readers && operations.length > LONG_TEXT) {
      const input: KeptOperations = { operations, model };
      return this.readers.run('upgrade-operations', input);
    }
    return upgradedText({ operations, model }, this.upgrades);
  }

  private fromRow(row: EditRow): LoggedEdit {
    const { sequence, id, person, label, undoes, at } = row;
    return { sequence, id, person, label, undoes, at, operations: upgradedOperations(row, this.upgrades) };
  }
}

/** Lists an edit under what it touches, in one statement however much that is. */
function listed(collection: string, { sequence, operations }: LoggedEdit): Statement[] {
  const records = recordsTouched(operations);
  if (records.length === 0) return [];
  return [
    {
      sql: 'INSERT INTO edit_records (collection, record, sequence) SELECT $1, value, $2 FROM json_each($3)',
      values: [collection, sequence, JSON.stringify(records)],
    },
  ];
}

/** What an edit calls the collection. */
function namesIn({ operations }: LoggedEdit): string[] {
  return operations.flatMap(({ kind, field, after }) => {
    if (!recordSpecOf(kind)?.namesCollection) return [];
    const name =
      field === 'name' ? after : field === null ? (after as { readonly name?: unknown } | null)?.name : undefined;
    return typeof name === 'string' ? [name] : [];
  });
}
