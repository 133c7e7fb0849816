import { Injectable, computed, inject, signal } from '@angular/core';
import {
  counted,
  emptyUndoStacks,
  errorText,
  invertOperations,
  plainZeros,
  pushEdit,
  type Conflict,
  type Edit,
  type EditHead,
  type LoggedEdit,
  type Operation,
  type UndoStacks,
} from '@stravel/core';
import { ApiClient, type Job } from '../api/api-client';
import { PageAge } from '../api/page-age';
import { ProblemError } from '../api/problem-error';
import { DocumentRegistry } from '../document/document-registry';
import { keepMine } from './keep-mine';
import { LogEvents } from './log-events';
import { LongLaying } from './long-laying';
import { Outbox, type WaitingEdit } from './outbox';

const RETRY_MS = 2000;

/** An edit that was refused because something changed meanwhile. */
export interface OpenConflict {
  readonly waiting: WaitingEdit;
  readonly conflicts: readonly Conflict[];
}

/** An edit that the server did not take, with its reason. */
export interface RefusedEdit {
  readonly label: string;
  readonly reason: string;
  /** The edit, when it is kept until the person decides; absent while it is tried again by itself. */
  readonly waiting?: WaitingEdit;
}

/**
 * Every change of the page goes through here: laid over what the log has, kept in the outbox, sent in order, undone. An edit stays
 * laid until the log's own events bring it, so that what is shown is always the log with what waits on top.
 */
@Injectable({ providedIn: 'root' })
export class EditLog {
  private readonly age = inject(PageAge);
  private readonly api = inject(ApiClient);
  private readonly outbox = inject(Outbox);
  private readonly documents = inject(DocumentRegistry);
  readonly laying = inject(LongLaying);

  private collection = '';
  private person = '';
  private asking: Promise<void> | undefined;
  /** Gives the id of the person whose edits these are; set by the page's frame. */
  askName: () => Promise<string> = () => Promise.reject(new Error('there is nobody to ask for a name'));
  private events: LogEvents | undefined;
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private waiting: WaitingEdit[] = [];
  /** Places of waiting edits that the server refused: they wait for the person, and hold up no other. */
  private readonly refusedPlaces = new Set<number>();
  /** Places of waiting edits that are not laid to their end: they and all behind them are sent afterwards. */
  private readonly unfinishedPlaces = new Set<number>();
  private readonly own = new Set<string>();

  private readonly stacks = signal<UndoStacks<EditHead>>(emptyUndoStacks());
  /** Edits of this person that the page has whole; those from before it was opened are asked for when they are taken back. */
  private readonly whole = new Map<string, Pick<Edit, 'id' | 'operations'>>();
  private undoing: Promise<void> = Promise.resolve();
  private readonly waitingCount = signal(0);
  private readonly reachable = signal(true);
  readonly conflict = signal<OpenConflict | undefined>(undefined);
  /** What was refused, oldest first; each waits for the person's choice. */
  private readonly refusals = signal<readonly RefusedEdit[]>([]);
  /** What the person is asked about, or told, now. */
  readonly refused = computed(() => this.refusals().at(0));
  /** Whether the server's log is shorter than what this page has seen: it was put back to an earlier state. */
  readonly logWentBack = signal(false);
  /** Grows whenever the server has kept a bake. */
  readonly bakesChanged = signal(0);
  /** The collection's unfinished and just finished jobs, by id. */
  readonly jobs = signal<ReadonlyMap<string, Job>>(new Map());

  readonly nextUndo = computed(() => this.stacks().undo.at(-1)?.label);
  readonly nextRedo = computed(() => this.stacks().redo.at(-1)?.label);
  /** What the page says of saving. */
  readonly saveState = computed(() => {
    const count = this.waitingCount();
    if (this.age.isOld())
      return {
        state: 'offline' as const,
        text: count > 0 ? `${counted(count, 'change')} kept here` : 'Reload to go on',
      };
    if (this.conflict()) return { state: 'conflict' as const, text: 'A change needs your choice' };
    if (!this.reachable())
      return {
        state: 'offline' as const,
        text: count > 0 ? `No server: ${counted(count, 'change')} kept here` : 'No server',
      };
    if (this.refusals().some(({ waiting }) => waiting))
      return { state: 'conflict' as const, text: 'A change was not saved' };
    return count > 0
      ? { state: 'saving' as const, text: 'Saving…' }
      : { state: 'saved' as const, text: 'All changes saved' };
  });

  /** Begins what the first collection to be opened will wait for. */
  prepare(): void {
    this.outbox.prepare();
  }

  /** Opens a collection for a person: what waits is laid over it, then everything new is followed. */
  async open(collection: string, person: string): Promise<void> {
    this.events?.close();
    this.collection = collection;
    this.person = person;
    this.refusedPlaces.clear();
    this.refusals.set([]);
    this.waiting = await this.outbox.waiting(collection);
    this.waitingCount.set(this.waiting.length);
    this.waiting.forEach(({ edit }) => this.own.add(edit.id));
    const sequence = await this.documents.open(
      collection,
      this.waiting.map(({ edit }) => edit),
    );
    const past = person === '' ? [] : await this.api.editsOfPerson(collection, person);
    const waitingEdits = this.waiting.map(({ edit }) => edit).filter((edit) => !past.some(({ id }) => id === edit.id));
    this.whole.clear();
    waitingEdits.forEach((edit) => this.whole.set(edit.id, edit));
    this.stacks.set(
      [...past, ...waitingEdits].reduce<UndoStacks<EditHead>>(
        (stacks, edit) => pushEdit(stacks, edit),
        emptyUndoStacks(),
      ),
    );
    past.forEach(({ id }) => this.own.add(id));
    this.follow(sequence);
    void this.send();
  }

  /** Makes an edit. The page shows it at once; it is saved by itself. The first one asks for a name. */
  async commit(label: string, made: readonly Operation[], undoes: string | null = null): Promise<void> {
    if (made.length === 0) return;
    if (this.person === '') await this.nameAsked();
    const operations = plainZeros<readonly Operation[]>(this.documents.complete(made));
    const edit: Edit = { id: crypto.randomUUID(), person: this.person, label, operations, undoes };
    this.own.add(edit.id);
    const isLong = this.laying.isFor(edit);
    if (!isLong) this.documents.lay(edit);
    const before = this.stacks();
    this.whole.set(edit.id, edit);
    this.stacks.update((stacks) => pushEdit(stacks, edit));
    const entry = this.outbox.entry(this.collection, edit);
    this.waiting.push(entry);
    this.waitingCount.set(this.waiting.length);
    if (isLong && !(await this.laidInSlices(entry))) {
      await this.discard(entry);
      this.stacks.set(before);
      return;
    }
    await this.outbox.put(entry);
    void this.send();
  }

  /** @returns false when the person cancelled it */
  private async laidInSlices({ place, edit }: WaitingEdit): Promise<boolean> {
    this.unfinishedPlaces.add(place);
    try {
      return await this.laying.lay(edit);
    } finally {
      this.unfinishedPlaces.delete(place);
    }
  }

  /** Id of the person whose edits these are, asked for where nobody has said a name yet. */
  async personAsked(): Promise<string> {
    if (this.person === '') await this.nameAsked();
    return this.person;
  }

  /** Asks for a name once, however many edits wait for it; none of them is lost. */
  private nameAsked(): Promise<void> {
    this.asking ??= this.askName()
      .then((person) => void (this.person = person))
      .finally(() => (this.asking = undefined));
    return this.asking;
  }

  /** Waits until everything is acknowledged but what was refused, which waits for the person. */
  async settled(): Promise<void> {
    while (this.unfinishedPlaces.size > 0 || this.nextToSend()) await new Promise((resolve) => setTimeout(resolve, 50));
  }

  undo(): Promise<void> {
    return this.takeBack(() => this.stacks().undo.at(-1));
  }

  redo(): Promise<void> {
    return this.takeBack(() => this.stacks().redo.at(-1));
  }

  /** Takes one edit back after another: which is the next is known only once the one before is done. */
  private takeBack(next: () => EditHead | undefined): Promise<void> {
    const turn = this.undoing.then(async () => {
      const head = next();
      if (!head) return;
      let edit = this.whole.get(head.id);
      try {
        edit ??= await this.api.edit(this.collection, head.id);
      } catch (error) {
        this.tell(head.label, `It can’t be undone now. ${errorText(error)}`);
        return;
      }
      await this.commit(head.label, invertOperations(edit.operations), head.id);
    });
    this.undoing = turn.catch(() => undefined);
    return turn;
  }

  /**
   * Settles a conflict: 'mine' writes the edit over what stands now, and brings back what was deleted under it; 'theirs' keeps what
   * stands and the rest of the edit.
   * @returns why 'mine' cannot be kept, '' when it is
   */
  async settle(choice: 'mine' | 'theirs'): Promise<string> {
    const open = this.conflict();
    if (!open) return '';
    const { waiting, conflicts } = open;
    const at = new Map(conflicts.map((conflict) => [conflict.index, conflict.current]));
    let operations = waiting.edit.operations.filter((_operation, i) => !at.has(i));
    if (choice === 'mine') {
      const kept = keepMine(waiting.edit.operations, at, (operation) => this.documents.fate(operation));
      if ('fault' in kept) return kept.fault;
      ({ operations } = kept);
    }
    this.conflict.set(undefined);
    await this.discard(waiting);
    if (operations.length > 0) await this.commit(waiting.edit.label, operations);
    else void this.send();
    return '';
  }

  /** Whether what an operation is about still stands, as far as this page knows. */
  stands(operation: Operation): boolean {
    return this.documents.fate(operation).stands;
  }

  /** Tells the person why something was not done. @param waiting the edit, when it is kept until they decide */
  tell(label: string, reason: string, waiting?: WaitingEdit): void {
    // What is tried again by itself is told once.
    this.refusals.update((refusals) => [
      ...refusals.filter((one) => one.waiting),
      { label, reason, ...(waiting ? { waiting } : {}) },
    ]);
  }

  /** Sends a refused edit once more. */
  retry(waiting: WaitingEdit): void {
    this.settleRefusal(waiting);
    void this.send();
  }

  /** Takes an edit that is not saved away for good: what stands without it is shown. */
  async discard(waiting: WaitingEdit): Promise<void> {
    this.settleRefusal(waiting);
    this.documents.drop(waiting.edit.id);
    await this.forget(waiting);
    this.stacks.update(({ undo, redo }) => ({ undo: undo.filter(({ id }) => id !== waiting.edit.id), redo }));
  }

  private settleRefusal(waiting: WaitingEdit): void {
    this.refusedPlaces.delete(waiting.place);
    this.refusals.update((refusals) => refusals.filter((one) => one.waiting?.place !== waiting.place));
  }

  private follow(after: number): void {
    this.events = new LogEvents((seen) => this.api.eventsUrl(this.collection, seen), after, {
      opened: () => {
        this.reachable.set(true);
        // The server tells of every unfinished job again; what ended meanwhile must not stay 'running'.
        this.jobs.set(new Map());
        void this.send();
      },
      lost: () => this.reachable.set(false),
      model: (version) => {
        this.age.hear(version);
        // What a newer server says of the log may not be what this page knows.
        if (this.age.isOld()) this.events?.close();
      },
      wentBack: () => this.logWentBack.set(true),
      edit: (edit) => this.take(edit),
      fetch: (id) => this.api.edit(this.collection, id),
      bake: () => this.bakesChanged.update((count) => count + 1),
      job: (job) => this.jobs.update((jobs) => new Map(jobs).set(job.id, job)),
    });
  }

  private take(edit: LoggedEdit): void {
    this.documents.applyLogged(edit);
    if (this.own.has(edit.id) || edit.person !== this.person) return;
    this.own.add(edit.id);
    this.whole.set(edit.id, edit);
    this.stacks.update((stacks) => pushEdit(stacks, edit));
  }

  /** The first edit that waits for the server and not for the person. */
  private nextToSend(): WaitingEdit | undefined {
    const next = this.waiting.find(({ place }) => !this.refusedPlaces.has(place));
    return next && this.unfinishedPlaces.has(next.place) ? undefined : next;
  }

  /** Sends what waits, one by one, in order; what was refused is passed over. */
  private async send(): Promise<void> {
    if (this.sending || this.conflict() || this.age.isOld()) return;
    this.sending = true;
    clearTimeout(this.timer);
    let entry = this.nextToSend();
    try {
      for (; entry && !this.conflict() && !this.age.isOld(); entry = this.nextToSend()) {
        const { sequence } = await this.api.appendEdit(this.collection, entry.edit);
        this.reachable.set(true);
        this.refusals.update((refusals) => refusals.filter(({ waiting }) => waiting));
        await this.forget(entry);
        // An edit that the log had before this page followed it comes by no event any more.
        if (sequence <= (this.events?.seen ?? 0)) this.documents.drop(entry.edit.id);
      }
    } catch (error) {
      if (entry) this.sendFailed(error, entry);
    } finally {
      this.sending = false;
    }
  }

  private sendFailed(error: unknown, entry: WaitingEdit): void {
    if (error instanceof ProblemError && error.status === 409) {
      this.conflict.set({ waiting: entry, conflicts: error.conflicts });
      return;
    }
    const isRefused = error instanceof ProblemError && error.status < 500;
    if (isRefused) this.refusedPlaces.add(entry.place);
    else this.reachable.set(false);
    if (error instanceof ProblemError) this.tell(entry.edit.label, error.message, isRefused ? entry : undefined);
    this.timer = setTimeout(() => void this.send(), isRefused ? 0 : RETRY_MS);
  }

  /** An edit is the log's, or is no longer wanted. */
  private async forget(entry: WaitingEdit): Promise<void> {
    await this.outbox.remove(entry);
    this.waiting = this.waiting.filter((other) => other.place !== entry.place);
    this.waitingCount.set(this.waiting.length);
  }
}
