import { EventEmitter } from 'node:events';
import {
  CoreError,
  RECORDS_DOCUMENT,
  checkCollectionRecord,
  checkEditReferences,
  checkKeys,
  checkPieceRemovals,
  checkRemovals,
  completeKeys,
  recordFaults,
  recordIn,
  recordSpecOf,
  removedPieces,
  TrialRun,
  type DocumentState,
  type EditableKind,
  type JsonRecord,
  type Edit,
  type EditTrial,
  type LoggedEdit,
  type RecordTables,
  tablesWith,
} from '@stravel/core';
import type { Database } from '../db/database';
import type { ChunkedDocument } from '../documents/chunked-document';
import { tablesOf } from '../documents/record-tables';
import { Stretches } from '../loop/stretches';
import type { KitInspections } from '../pack/kit-inspections';
import type { DocumentStore } from '../documents/document-store';
import { EditConflict } from './edit-conflict';
import type { EditRepository } from './edit-repository';

/** What became of an edit: as it stands in the log, and whether it came there just now. */
export interface AppendOutcome {
  readonly logged: LoggedEdit;
  readonly isNew: boolean;
}

/** An edit that holds, laid in memory. */
interface PreparedAppend extends AppendOutcome {
  /** As the log is to keep them; '' of one that it has. */
  readonly operationsText: string;
}

interface WaitingAppend {
  readonly collection: string;
  readonly edit: Edit;
  /** Whole records of it that were found sound already. */
  readonly sound: ReadonlySet<unknown>;
  readonly resolve: (outcome: AppendOutcome) => void;
  readonly reject: (error: unknown) => void;
}

const MAX_IN_ONE_TRANSACTION = 64;

/** Decides whether an edit holds, writes it, and tells everyone. */
export class EditService {
  /** Emits 'edit' with (collection, LoggedEdit) after the log has it, and 'forgotten' with a collection that is deleted. */
  readonly events = new EventEmitter().setMaxListeners(0);
  private readonly sequences = new Map<string, number>();
  private waiting: WaitingAppend[] = [];

  constructor(
    private readonly database: Database,
    private readonly edits: EditRepository,
    private readonly documents: DocumentStore,
    private readonly kits: Pick<KitInspections, 'of'>,
    private readonly now: () => Date,
  ) {}

  /**
   * Appends an edit, all of it or nothing. The same id again answers with what the log has. Edits that wait at the same
   * time are written in one transaction and acknowledged together once it is on disk.
   * @param sound whole records of it that were found sound already
   * @throws EditConflict, CoreError 'RECORD_INVALID', 'EDIT_REFERENCE'
   */
  append(collection: string, edit: Edit, sound: ReadonlySet<unknown> = new Set()): Promise<AppendOutcome> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ collection, edit, sound, resolve, reject });
      if (this.waiting.length === 1) void this.database.queue.exclusive(() => this.appendWaiting());
    });
  }

  /** Number of the last edit of a collection. */
  async lastSequence(collection: string): Promise<number> {
    let last = this.sequences.get(collection);
    if (last === undefined) {
      last = await this.edits.lastSequence(collection);
      this.sequences.set(collection, last);
    }
    return last;
  }

  /** Forgets a collection that is deleted. */
  forget(collection: string): void {
    this.sequences.delete(collection);
    this.events.emit('forgotten', collection);
  }

  private async appendWaiting(): Promise<void> {
    const batch = this.waiting.splice(0, MAX_IN_ONE_TRANSACTION);
    if (this.waiting.length > 0) void this.database.queue.exclusive(() => this.appendWaiting());
    const prepared: { readonly of: WaitingAppend; readonly outcome: PreparedAppend }[] = [];
    for (const of of batch) {
      try {
        const earlier = prepared.find(
          ({ of: { collection, edit } }) => collection === of.collection && edit.id === of.edit.id,
        );
        prepared.push({
          of,
          outcome: earlier
            ? { logged: earlier.outcome.logged, isNew: false, operationsText: '' }
            : await this.prepare(of),
        });
      } catch (error) {
        of.reject(error);
      }
    }
    try {
      await this.edits.append(
        prepared
          .filter(({ outcome }) => outcome.isNew)
          .map(({ of, outcome: { logged, operationsText } }) => ({
            collection: of.collection,
            edit: logged,
            operationsText,
          })),
      );
    } catch (error) {
      // What was laid in memory is not on disk: all of it is read anew.
      for (const { of } of prepared) {
        this.documents.forget(of.collection);
        this.sequences.delete(of.collection);
        of.reject(error);
      }
      return;
    }
    for (const { of, outcome } of prepared) {
      of.resolve(outcome);
      if (!outcome.isNew) continue;
      this.events.emit('edit', of.collection, outcome.logged);
      this.snapshotLater(of.collection, of.edit);
    }
  }

  /**
   * What stands in a kit's mesh must be there before a kit or a piece says so, or its archive could not be read back.
   * @throws CoreError 'EDIT_REFERENCE' naming the kit or piece
   */
  private async checkMeshes({ operations }: Edit, trial: EditTrial, state: DocumentState): Promise<void> {
    const touched = new Set(
      operations.flatMap(({ kind, id, field }) => {
        const fields: readonly string[] | undefined = recordSpecOf(kind)?.meshFields;
        return fields && (field === null || fields.includes(field)) ? [id] : [];
      }),
    );
    if (touched.size === 0) return;
    const { kit: kits, piece: pieces } = tablesAfter(state, trial);
    const changed = Object.values(pieces).filter(({ id, kit }) => touched.has(id) || touched.has(kit));
    for (const kit of new Set([...touched, ...changed.map((piece) => piece.kit)])) {
      if (!Object.hasOwn(kits, kit)) continue;
      const { mesh } = kits[kit];
      const inspection = await this.kits.of(mesh);
      if (!inspection)
        throw new CoreError('EDIT_REFERENCE', `edit: kit ${kit} points at the mesh ${mesh}, which does not exist`, {
          kind: 'kit',
          id: kit,
        });
      const nodes = new Set(inspection.nodes);
      const lost = changed.find((piece) => piece.kit === kit && !nodes.has(piece.name));
      if (lost)
        throw new CoreError(
          'EDIT_REFERENCE',
          `edit: piece ${lost.id} is named ${lost.name}, the mesh of the kit ${kit} has nothing of that name`,
          { kind: 'piece', id: lost.id },
        );
    }
  }

  /** Decides on one edit and lays it over the documents in memory; the log must be written right after. */
  private async prepare({ collection, edit, sound }: WaitingAppend): Promise<PreparedAppend> {
    const known = await this.edits.byId(collection, edit.id);
    if (known) return { logged: known, isNew: false, operationsText: '' };
    const names = new Set(edit.operations.map((operation) => operation.document));
    const records = await this.documents.load(collection, RECORDS_DOCUMENT);
    const loaded = new Map<string, ChunkedDocument>([[RECORDS_DOCUMENT, records]]);
    for (const name of names) {
      if (!loaded.has(name)) loaded.set(name, await this.documents.load(collection, name));
    }
    const completed = withKeys(edit, records.state);
    const trial = await this.trial(completed, loaded, sound);
    await this.checkPieces(collection, trial, records.state);
    await this.checkMeshes(completed, trial, records.state);
    const sequence = (await this.lastSequence(collection)) + 1;
    this.sequences.set(collection, sequence);
    const stretches = new Stretches();
    for (const name of names) {
      const document = loaded.get(name);
      if (!document) continue;
      await this.documents.lay(document, trial, name, stretches);
      document.editsSinceSnapshot += 1;
    }
    const texts: string[] = [];
    await stretches.each(completed.operations, (operation) => texts.push(JSON.stringify(operation)));
    await stretches.rest();
    const logged = { ...completed, sequence, at: this.now().toISOString() };
    return { logged, isNew: true, operationsText: `[${texts.join(',')}]` };
  }

  /** Placements are looked through only where an edit takes pieces away. @throws CoreError 'EDIT_REFERENCE' */
  private async checkPieces(collection: string, trial: EditTrial, records: DocumentState): Promise<void> {
    if (removedPieces(trial).size === 0) return;
    const strata = [];
    const before = records.get('stratum');
    for (const { id, name } of Object.values(tablesAfter(records, trial).stratum))
      if (before?.has(id)) strata.push({ id, name, state: (await this.documents.load(collection, id)).state });
    checkPieceRemovals(trial, strata);
  }

  private async trial(
    edit: Edit,
    loaded: ReadonlyMap<string, ChunkedDocument>,
    sound: ReadonlySet<unknown>,
  ): Promise<EditTrial> {
    const stateOf = (name: string): DocumentState => (loaded.get(name) as ChunkedDocument).state;
    const stretches = new Stretches();
    const run = new TrialRun(stateOf);
    await stretches.each(edit.operations, (operation) => run.take(operation));
    const trial = run.trial();
    if (trial.conflicts.length > 0) throw new EditConflict(trial.conflicts);
    await stretches.each(trial.touched, ({ kind, id, record }) => {
      if (!record || sound.has(record)) return;
      const faults = record['id'] === id ? recordFaults(kind, record) : [{ path: 'id', message: `id must be ${id}` }];
      if (faults.length > 0) {
        throw new CoreError('RECORD_INVALID', `${kind} ${id}: ${faults.map((f) => f.message).join('; ')}`, {
          kind,
          id,
          faults,
        });
      }
    });
    const touchedRecords = new Map(
      trial.touched.filter((t) => t.document === RECORDS_DOCUMENT).map((t) => [`${t.kind}\u0000${t.id}`, t.record]),
    );
    const find = (kind: EditableKind, id: string): JsonRecord | undefined =>
      touchedRecords.has(`${kind}\u0000${id}`)
        ? touchedRecords.get(`${kind}\u0000${id}`)
        : recordIn(stateOf(RECORDS_DOCUMENT), kind, id);
    await stretches.each(trial.touched, (touched) => checkEditReferences([touched], find));
    checkKeys(trial.touched, (kind) => stateOf(RECORDS_DOCUMENT).get(kind)?.entries() ?? []);
    const after = (): RecordTables => tablesAfter(stateOf(RECORDS_DOCUMENT), trial);
    checkCollectionRecord(trial.touched, after);
    checkRemovals(trial.touched, after);
    return trial;
  }

  private snapshotLater(collection: string, edit: Edit): void {
    for (const name of new Set(edit.operations.map((operation) => operation.document))) {
      if (!this.documents.isSnapshotDue(collection, name)) continue;
      void this.writeSnapshot(collection, name, false).catch(() => this.documents.forget(collection));
    }
  }

  /** Brings a document's snapshot up to the end of the log. */
  async writeSnapshot(collection: string, document: string, force = true): Promise<void> {
    await this.database.queue.write(async (transaction) => {
      const sequence = await this.lastSequence(collection);
      await this.documents.snapshotIfDue(transaction, collection, document, sequence, force);
    });
  }
}

/** An edit whose new levels and kits all have keys of their own. */
function withKeys(edit: Edit, state: DocumentState): Edit {
  const { level, kit } = { level: state.get('level'), kit: state.get('kit') };
  const taken = (): Set<string> =>
    new Set(
      [...(level?.values() ?? []), ...(kit?.values() ?? [])].flatMap(({ key }) =>
        typeof key === 'string' ? [key] : [],
      ),
    );
  const operations = completeKeys(edit.operations, taken, (kind) => state.get(kind)?.size ?? 0);
  return operations === edit.operations ? edit : { ...edit, operations };
}

/** The small records as they would stand after an edit. */
function tablesAfter(state: DocumentState, trial: EditTrial): RecordTables {
  return tablesWith(
    tablesOf(state),
    trial.touched.filter(({ document }) => document === RECORDS_DOCUMENT),
  );
}
