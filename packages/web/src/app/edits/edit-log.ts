import { Injectable, computed, inject, signal } from '@angular/core';
import { emptyUndoStacks, invertOperations, operationTarget, pushEdit, type Conflict, type Edit, type LoggedEdit, type Operation, type UndoStacks } from '@stravel/core';
import { ApiClient, type Job } from '../api/api-client';
import { ProblemError } from '../api/problem-error';
import { DocumentRegistry } from '../document/document-registry';
import { Outbox, type WaitingEdit } from './outbox';

const RETRY_MS = 2000;

/** An edit that was refused because something changed meanwhile. */
export interface OpenConflict {
  readonly waiting: WaitingEdit;
  readonly conflicts: readonly Conflict[];
}

/** An edit that the server will never take, with its reason. */
export interface RefusedEdit {
  readonly label: string;
  readonly reason: string;
}

/** Every change of the page goes through here: applied at once, kept in the outbox, sent in order, undone. */
@Injectable({ providedIn: 'root' })
export class EditLog {
  private readonly api = inject(ApiClient);
  private readonly outbox = inject(Outbox);
  private readonly documents = inject(DocumentRegistry);

  private collection = '';
  private asking: Promise<void> | undefined;
  /** Gives the id of the person whose edits these are; set by the page's frame. */
  askName: () => Promise<string> = () => Promise.reject(new Error('no one can be asked for a name'));
  private person = '';
  private events: EventSource | undefined;
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private waiting: WaitingEdit[] = [];
  private readonly own = new Set<string>();

  private readonly stacks = signal<UndoStacks<Edit>>(emptyUndoStacks());
  private readonly waitingCount = signal(0);
  private readonly reachable = signal(true);
  readonly conflict = signal<OpenConflict | undefined>(undefined);
  readonly refused = signal<RefusedEdit | undefined>(undefined);
  /** Grows whenever the server has kept a bake. */
  readonly bakesChanged = signal(0);
  /** The collection's unfinished and just finished jobs, by id. */
  readonly jobs = signal<ReadonlyMap<string, Job>>(new Map());

  readonly nextUndo = computed(() => this.stacks().undo.at(-1)?.label);
  readonly nextRedo = computed(() => this.stacks().redo.at(-1)?.label);
  /** What the page says of saving. */
  readonly saveState = computed(() => {
    const count = this.waitingCount();
    if (this.conflict()) return { state: 'conflict' as const, text: 'A change needs your choice' };
    if (!this.reachable()) return { state: 'offline' as const, text: count > 0 ? `No server: ${count} change${count === 1 ? '' : 's'} kept here` : 'No server' };
    return count > 0 ? { state: 'saving' as const, text: 'Saving…' } : { state: 'saved' as const, text: 'All changes saved' };
  });

  /** Opens a collection for a person: what waits is laid over it, then everything new is followed. */
  async open(collection: string, person: string): Promise<void> {
    this.events?.close();
    this.collection = collection;
    this.person = person;
    this.waiting = await this.outbox.waiting(collection);
    this.waitingCount.set(this.waiting.length);
    this.waiting.forEach(({ edit }) => this.own.add(edit.id));
    this.documents.pendingOperations = (document) => this.waiting.flatMap(({ edit }) => edit.operations.filter((operation) => operation.document === document));
    const sequence = await this.documents.open(collection);
    const past = person === '' ? [] : await this.api.editsOfPerson(collection, person);
    const waitingEdits = this.waiting.map(({ edit }) => edit).filter((edit) => !past.some(({ id }) => id === edit.id));
    this.stacks.set([...past, ...waitingEdits].reduce<UndoStacks<Edit>>((stacks, edit) => pushEdit(stacks, edit), emptyUndoStacks()));
    past.forEach(({ id }) => this.own.add(id));
    this.follow(sequence);
    void this.send();
  }

  /** Makes an edit. The page shows it at once; it is saved by itself. The first one asks for a name. */
  async commit(label: string, made: readonly Operation[], undoes: string | null = null): Promise<void> {
    if (made.length === 0) return;
    if (this.person === '') await this.nameAsked();
    const operations = this.documents.complete(made);
    const edit: Edit = { id: crypto.randomUUID(), person: this.person, label, operations, undoes };
    this.own.add(edit.id);
    this.documents.applyLocal(operations);
    this.stacks.update((stacks) => pushEdit(stacks, edit));
    const entry = this.outbox.entry(this.collection, edit);
    this.waiting.push(entry);
    this.waitingCount.set(this.waiting.length);
    await this.outbox.put(entry);
    void this.send();
  }

  /** Asks for a name once, however many edits wait for it; none of them is lost. */
  private nameAsked(): Promise<void> {
    this.asking ??= this.askName()
      .then((person) => void (this.person = person))
      .finally(() => (this.asking = undefined));
    return this.asking;
  }

  /** Waits until everything is acknowledged. */
  async settled(): Promise<void> {
    while (this.waiting.length > 0) await new Promise((resolve) => setTimeout(resolve, 50));
  }

  async undo(): Promise<void> {
    const edit = this.stacks().undo.at(-1);
    if (edit) await this.commit(edit.label, invertOperations(edit.operations), edit.id);
  }

  async redo(): Promise<void> {
    const edit = this.stacks().redo.at(-1);
    if (edit) await this.commit(edit.label, invertOperations(edit.operations), edit.id);
  }

  /** Settles a conflict: 'mine' writes the edit over what stands, 'theirs' keeps what stands and the rest of the edit. */
  async settle(choice: 'mine' | 'theirs'): Promise<void> {
    const open = this.conflict();
    if (!open) return;
    const { waiting, conflicts } = open;
    const at = new Map(conflicts.map((conflict) => [conflict.index, conflict.current]));
    const operations =
      choice === 'mine'
        ? waiting.edit.operations.map((operation, i) => (at.has(i) ? { ...operation, before: at.get(i) ?? null } : operation))
        : waiting.edit.operations.filter((_operation, i) => !at.has(i));
    if (choice === 'theirs') {
      this.documents.applyLocal(conflicts.map(({ operation, current }) => ({ ...operation, before: operation.after, after: current })));
    }
    await this.drop(waiting);
    this.stacks.update(({ undo, redo }) => ({ undo: undo.filter(({ id }) => id !== waiting.edit.id), redo }));
    this.conflict.set(undefined);
    if (operations.length > 0) await this.commit(waiting.edit.label, operations);
    else void this.send();
  }

  private follow(after: number): void {
    const events = new EventSource(this.api.eventsUrl(this.collection, after));
    this.events = events;
    events.addEventListener('open', () => {
      this.reachable.set(true);
      // The server tells of every unfinished job again; what ended meanwhile must not stay 'running'.
      this.jobs.set(new Map());
      void this.send();
    });
    events.addEventListener('error', () => this.reachable.set(false));
    events.addEventListener('edit', (event) => this.take(JSON.parse(event.data as string) as LoggedEdit));
    events.addEventListener('bake', () => this.bakesChanged.update((count) => count + 1));
    events.addEventListener('job', (event) => {
      const job = JSON.parse(event.data as string) as Job;
      this.jobs.update((jobs) => new Map(jobs).set(job.id, job));
    });
  }

  private take(edit: LoggedEdit): void {
    if (this.own.has(edit.id)) return;
    const mine = new Set(this.waiting.flatMap((entry) => entry.edit.operations.map(operationTarget)));
    this.documents.applyLogged(edit, (operation) => mine.has(operationTarget(operation)));
    if (edit.person === this.person) {
      this.own.add(edit.id);
      this.stacks.update((stacks) => pushEdit(stacks, edit));
    }
  }

  /** Sends what waits, one by one, in order. */
  private async send(): Promise<void> {
    if (this.sending || this.conflict()) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      while (this.waiting.length > 0 && !this.conflict()) {
        const entry = this.waiting[0];
        await this.api.appendEdit(this.collection, entry.edit);
        this.reachable.set(true);
        await this.drop(entry);
      }
    } catch (error) {
      await this.sendFailed(error, this.waiting[0]);
    } finally {
      this.sending = false;
    }
  }

  private async sendFailed(error: unknown, entry: WaitingEdit): Promise<void> {
    if (error instanceof ProblemError && error.status === 409) {
      this.conflict.set({ waiting: entry, conflicts: error.conflicts });
      return;
    }
    if (error instanceof ProblemError && error.status < 500) {
      this.documents.applyLocal(invertOperations(entry.edit.operations));
      await this.drop(entry);
      this.stacks.update(({ undo, redo }) => ({ undo: undo.filter(({ id }) => id !== entry.edit.id), redo }));
      this.refused.set({ label: entry.edit.label, reason: error.message });
    } else {
      this.reachable.set(false);
      if (error instanceof ProblemError) this.refused.set({ label: entry.edit.label, reason: error.message });
    }
    this.timer = setTimeout(() => void this.send(), RETRY_MS);
  }

  private async drop(entry: WaitingEdit): Promise<void> {
    await this.outbox.remove(entry);
    this.waiting = this.waiting.filter((other) => other.place !== entry.place);
    this.waitingCount.set(this.waiting.length);
  }
}
