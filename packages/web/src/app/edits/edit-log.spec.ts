import { TestBed } from '@angular/core/testing';
import { MODEL_VERSION, type Edit, type EditHead, type JsonRecord, type Operation } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { ProblemError } from '../api/problem-error';
import { DocumentRegistry } from '../document/document-registry';
import { EditLog } from './edit-log';
import { Outbox, type WaitingEdit } from './outbox';

type Listener = (event: { data: string }) => void;
/** Listeners of the event source that EditLog made last. */
let listeners: Map<string, Listener>;

class QuietEvents {
  static readonly CLOSED = 2;
  static state = 1;
  get readyState() {
    return QuietEvents.state;
  }
  constructor() {
    listeners = new Map();
  }
  addEventListener(name: string, listener: Listener) {
    listeners.set(name, listener);
  }
  close() {
    listeners.clear();
  }
}

const operation = (before: string, after: string): Operation => ({
  document: 'records',
  kind: 'level',
  id: 'a',
  field: 'name',
  before,
  after,
});

const logged = (edit: Edit, sequence: number): { data: string } => ({
  data: JSON.stringify({ ...edit, sequence, at: '' }),
});

describe('EditLog', () => {
  let kept: WaitingEdit[];
  let sent: Edit[];
  /** Edits that are laid over the log, by id, and what the log brought. */
  let laid: Map<string, readonly Operation[]>;
  let fromLog: string[];
  let fate: { stands: boolean; last: JsonRecord | undefined };
  let past: EditHead[];
  let whole: (id: string) => Promise<Edit>;
  let answer: (edit: Edit) => Promise<{ sequence: number; at: string }>;
  let log: EditLog;
  /** Lays the rest of a long edit. */
  let rest: () => void;
  const layInSteps = ({ id, operations }: Edit, each: number): (() => boolean) => {
    const step = (): boolean => {
      const done = laid.get(id)?.length ?? 0;
      if (done < operations.length) laid.set(id, operations.slice(0, done + each));
      return done < operations.length;
    };
    rest = () => {
      while (step());
    };
    return step;
  };
  const longEdit = Array.from({ length: 2000 }, (_unused, i): Operation => ({
    document: 'stratum',
    kind: 'marker',
    id: `m${i}`,
    field: 'name',
    before: 'x',
    after: 'y',
  }));

  beforeEach(async () => {
    kept = [];
    sent = [];
    past = [];
    whole = (id) => Promise.resolve({ id, person: 'me', label: id, undoes: null, operations: [operation('x', id)] });
    laid = new Map();
    fromLog = [];
    fate = { stands: true, last: undefined };
    answer = (edit) => {
      sent.push(edit);
      return Promise.resolve({ sequence: sent.length, at: '' });
    };
    Object.assign(globalThis, { EventSource: QuietEvents });
    let place = 0;
    TestBed.configureTestingModule({
      providers: [
        {
          provide: ApiClient,
          useValue: {
            appendEdit: (_c: string, edit: Edit) => answer(edit),
            editsOfPerson: () => Promise.resolve(past),
            edit: (_c: string, id: string) => whole(id),
            eventsUrl: () => '',
          },
        },
        {
          provide: Outbox,
          useValue: {
            waiting: () => Promise.resolve([...kept]),
            entry: (collection: string, edit: Edit) => ({ place: ++place, collection, edit }),
            put: (entry: WaitingEdit) => Promise.resolve(void kept.push(entry)),
            remove: (entry: WaitingEdit) =>
              Promise.resolve(void (kept = kept.filter((one) => one.place !== entry.place))),
          },
        },
        {
          provide: DocumentRegistry,
          useValue: {
            open: () => Promise.resolve(0),
            complete: (operations: Operation[]) => operations,
            lay: ({ id, operations }: Edit) => laid.set(id, operations),
            layInSteps: (edit: Edit, each: number) => layInSteps(edit, each),
            finishLaying: () => rest(),
            contentChanged: () => undefined,
            drop: (id: string) => laid.delete(id),
            fate: () => fate,
            applyLogged: ({ id }: Edit) => (fromLog.push(id), laid.delete(id)),
          },
        },
      ],
    });
    log = TestBed.inject(EditLog);
    await log.open('c', 'me');
  });

  const refuse =
    (status: number, code: string, conflicts: ProblemError['conflicts'] = []) =>
    () =>
      Promise.reject(new ProblemError(status, code, 'no', conflicts));
  const tick = () => new Promise((resolve) => setTimeout(resolve, 20));

  it('lays an edit at once, keeps it until acknowledged, and laid until the log brings it', async () => {
    await log.commit('rename', [operation('x', 'y')]);
    expect(laid.size).toBe(1);
    await log.settled();
    expect([kept, sent.map(({ label }) => label), log.saveState().state, log.nextUndo()]).toEqual([
      [],
      ['rename'],
      'saved',
      'rename',
    ]);
    expect(laid.size).toBe(1);
    listeners.get('edit')?.(logged(sent[0], 1));
    expect([laid.size, fromLog, log.nextUndo()]).toEqual([0, [sent[0].id], 'rename']);
  });

  it('lays a long edit in slices, and sends it, and what comes after it, once it is laid', async () => {
    const first = log.commit('long', longEdit);
    expect([laid.size, log.nextUndo(), log.saveState().state]).toEqual([0, 'long', 'saving']);
    const second = log.commit('short', [operation('x', 'y')]);
    expect(sent).toEqual([]);
    await Promise.all([first, second, log.settled()]);
    expect(sent.map(({ label, operations }) => [label, operations.length, laid.get(longEdit[0].id)])).toEqual([
      ['long', 2000, undefined],
      ['short', 1, undefined],
    ]);
    expect([...laid.values()].map(({ length }) => length).sort()).toEqual([1, 2000]);
  });

  it('lays the rest of a long edit before a person begins something else, and keeps back keys that repeat', async () => {
    const isHeard = jest.fn();
    document.body.addEventListener('keydown', isHeard);
    const committed = log.commit('long', longEdit);
    const key = (repeat: boolean): boolean =>
      document.body.dispatchEvent(
        new KeyboardEvent('keydown', { key: 'ArrowRight', repeat, bubbles: true, cancelable: true }),
      );
    expect([key(true), isHeard.mock.calls.length, laid.size]).toEqual([false, 0, 0]);
    expect([key(false), isHeard.mock.calls.length]).toEqual([true, 1]);
    expect([...laid.values()].map(({ length }) => length)).toEqual([2000]);
    await committed;
    expect([key(true), isHeard.mock.calls.length]).toEqual([true, 2]);
    document.body.removeEventListener('keydown', isHeard);
  });

  it('takes a long edit away that is cancelled while it is laid: nothing of it is sent, kept or undone', async () => {
    await log.commit('before', [operation('x', 'y')]);
    await log.settled();
    laid.clear();
    const committed = log.commit('long', longEdit);
    log.laying.cancel();
    await Promise.all([committed, log.settled()]);
    expect([laid.size, kept, sent.map(({ label }) => label), log.nextUndo(), log.saveState().state]).toEqual([
      0,
      [],
      ['before'],
      'before',
      'saved',
    ]);
  });

  it('keeps a long edit that was laid whole before it was cancelled: others may be on top of it', async () => {
    const committed = log.commit('long', longEdit);
    rest();
    log.laying.cancel();
    await Promise.all([committed, log.settled()]);
    expect([laid.size, sent.map(({ label }) => label), log.nextUndo()]).toEqual([1, ['long'], 'long']);
  });

  it('asks for a name at the first edit, once however many wait for it, and loses none', async () => {
    await log.open('c', '');
    let give: (person: string) => void = () => undefined;
    let asked = 0;
    log.askName = () => {
      asked++;
      return new Promise((resolve) => (give = resolve));
    };
    const first = log.commit('first', [operation('x', 'y')]);
    const second = log.commit('second', [operation('y', 'z')]);
    expect(laid.size).toBe(0);
    give('ines');
    await Promise.all([first, second]);
    await log.settled();
    expect([asked, sent.map(({ label, person }) => [label, person])]).toEqual([
      1,
      [
        ['first', 'ines'],
        ['second', 'ines'],
      ],
    ]);
  });

  it('takes back what was done before the page was opened, one after another, asking for each edit as it is needed', async () => {
    past = ['one', 'two', 'three'].map((id) => ({ id, label: id, undoes: null }));
    await log.open('c', 'me');
    expect([log.nextUndo(), sent]).toEqual(['three', []]);
    await Promise.all([log.undo(), log.undo()]);
    await log.settled();
    expect(sent.map(({ undoes, operations }) => [undoes, operations[0].before, operations[0].after])).toEqual([
      ['three', 'three', 'x'],
      ['two', 'two', 'x'],
    ]);
    expect([log.nextUndo(), log.nextRedo()]).toEqual(['one', 'two']);
    // What can't be asked for stays to be taken back, and is told.
    whole = () => Promise.reject(new Error('no server'));
    await log.undo();
    expect([log.refused()?.reason, log.nextUndo()]).toEqual(['It can’t be undone now. no server', 'one']);
    // This page has what it did itself.
    await log.redo();
    await log.settled();
    expect(sent.at(-1)?.label).toBe('two');
  });

  it('keeps edits while the server is away and sends them in order when it is back', async () => {
    const good = answer;
    answer = () => Promise.reject(new TypeError('no network'));
    await log.commit('first', [operation('x', 'y')]);
    await log.commit('second', [operation('y', 'z')]);
    await tick();
    expect(log.saveState()).toMatchObject({ state: 'offline', text: 'No server: 2 changes kept here' });
    expect(kept).toHaveLength(2);
    answer = good;
    listeners.get('open')?.({ data: '' });
    await log.settled();
    expect(sent.map(({ label }) => label)).toEqual(['first', 'second']);
  });

  it('fetches a long edit that it is told of, before what comes behind it, until it comes', async () => {
    jest.useFakeTimers();
    const by = (id: string): Edit => ({ id, person: 'other', label: '', operations: [], undoes: null });
    let tries = 0;
    whole = (id) =>
      tries++ === 0 ? Promise.reject(new TypeError('no server')) : Promise.resolve({ ...by(id), sequence: 4, at: '' });
    listeners.get('edit')?.(logged(by('three'), 3));
    listeners.get('long-edit')?.({ data: '{"sequence":4,"id":"four"}' });
    listeners.get('edit')?.(logged(by('five'), 5));
    expect(fromLog).toEqual(['three']);
    await jest.advanceTimersByTimeAsync(1000);
    // What comes again by a stream that was opened anew is taken once.
    listeners.get('long-edit')?.({ data: '{"sequence":4,"id":"four"}' });
    listeners.get('edit')?.(logged(by('five'), 5));
    await jest.advanceTimersByTimeAsync(5000);
    expect([fromLog, tries]).toEqual([['three', 'four', 'five'], 2]);
    listeners.get('edit')?.(logged(by('six'), 6));
    expect(fromLog.at(-1)).toBe('six');
    whole = () => Promise.reject(new ProblemError(404, 'EDIT_MISSING', 'gone'));
    listeners.get('long-edit')?.({ data: '{"sequence":7,"id":"seven"}' });
    await jest.advanceTimersByTimeAsync(10);
    jest.useRealTimers();
    expect([fromLog.at(-1), log.logWentBack()]).toEqual(['six', true]);
  });

  it('forgets jobs when the events begin anew, so that none stays running that ended meanwhile', () => {
    listeners.get('job')?.({ data: JSON.stringify({ id: 'j', kind: 'bake-stale', state: 'running' }) });
    expect(log.jobs().size).toBe(1);
    listeners.get('open')?.({ data: '' });
    expect(log.jobs().size).toBe(0);
  });

  it('opens the events anew after an error answer, and tells of a log that went back', async () => {
    jest.useFakeTimers();
    const before = listeners;
    QuietEvents.state = 2;
    listeners.get('edit')?.(logged({ id: 'e', person: 'other', label: '', operations: [], undoes: null }, 7));
    listeners.get('error')?.({ data: '' });
    QuietEvents.state = 1;
    await jest.advanceTimersByTimeAsync(5000);
    jest.useRealTimers();
    expect(listeners).not.toBe(before);
    listeners.get('log')?.({ data: '{"last":7}' });
    expect(log.logWentBack()).toBe(false);
    listeners.get('log')?.({ data: '{"last":6}' });
    expect(log.logWentBack()).toBe(true);
  });

  it('stops sending once it hears of a newer server, and keeps what it has', async () => {
    const version = (model: number): string => JSON.stringify({ last: 0, model });
    listeners.get('log')?.({ data: version(MODEL_VERSION) });
    await log.commit('first', [operation('x', 'y')]);
    await tick();
    expect([sent.length, log.saveState().state]).toEqual([1, 'saved']);
    listeners.get('log')?.({ data: version(MODEL_VERSION + 1) });
    expect(listeners.size).toBe(0);
    await log.commit('second', [operation('y', 'z')]);
    await tick();
    expect([sent.length, kept.map(({ edit }) => edit.label), laid.size > 0]).toEqual([1, ['second'], true]);
    expect(log.saveState()).toEqual({ state: 'offline', text: '1 change kept here' });
  });

  it('asks at a conflict; “mine” writes over what stands, “theirs” takes it over', async () => {
    const good = answer;
    const conflicting = (current: string) =>
      refuse(409, 'EDIT_CONFLICT', [{ index: 0, operation: operation('x', 'mine'), current }]);
    answer = conflicting('theirs');
    await log.commit('rename', [operation('x', 'mine')]);
    await tick();
    expect(log.conflict()?.conflicts[0].current).toBe('theirs');
    answer = good;
    expect(await log.settle('mine')).toBe('');
    await log.settled();
    expect(sent.at(-1)?.operations[0]).toEqual(operation('theirs', 'mine'));

    answer = conflicting('other');
    await log.commit('again', [operation('mine', 'late')]);
    await tick();
    answer = good;
    await log.settle('theirs');
    expect([kept, [...laid.values()].flat().some(({ after }) => after === 'late')]).toEqual([[], false]);
  });

  it('brings back with “mine” what was deleted meanwhile, or says why not', async () => {
    const good = answer;
    answer = refuse(409, 'EDIT_CONFLICT', [{ index: 0, operation: operation('x', 'mine'), current: null }]);
    fate = { stands: false, last: undefined };
    await log.commit('rename', [operation('x', 'mine')]);
    await tick();
    expect(await log.settle('mine')).toMatch(
      /^The level was deleted, and its earlier state is not known here any more\./,
    );
    expect([log.conflict()?.waiting.edit.label, kept.length]).toEqual(['rename', 1]);
    fate = { stands: false, last: { id: 'a', name: 'x', code: 'C' } };
    answer = good;
    expect(await log.settle('mine')).toBe('');
    await log.settled();
    expect(sent.at(-1)?.operations).toEqual([
      {
        document: 'records',
        kind: 'level',
        id: 'a',
        field: null,
        before: null,
        after: { id: 'a', name: 'mine', code: 'C' },
      },
    ]);
  });

  it('keeps what the server refuses, says why, sends the others, and retries or discards as one chooses', async () => {
    const good = answer;
    answer = (edit) => (edit.label === 'stroke' ? refuse(422, 'RECORD_INVALID')() : good(edit));
    await log.commit('stroke', [operation('x', 'y')]);
    await log.commit('later', [operation('a', 'b')]);
    await tick();
    expect(log.refused()).toMatchObject({ label: 'stroke', reason: 'no' });
    expect([sent.map(({ label }) => label), kept.map(({ edit }) => edit.label), log.saveState().text]).toEqual([
      ['later'],
      ['stroke'],
      'A change was not saved',
    ]);
    // Bakes, packs and histories wait for what is on its way, not for what was refused.
    await log.settled();
    const waiting = log.refused()?.waiting as WaitingEdit;
    log.retry(waiting);
    await tick();
    expect(log.refused()?.label).toBe('stroke');
    answer = good;
    log.retry(waiting);
    await log.settled();
    expect([sent.map(({ label }) => label), log.refused()]).toEqual([['later', 'stroke'], undefined]);

    answer = refuse(422, 'RECORD_INVALID');
    await log.commit('stroke', [operation('y', 'z')]);
    await tick();
    await log.discard(log.refused()?.waiting as WaitingEdit);
    expect([kept, log.refused(), [...laid.values()].flat().some(({ after }) => after === 'z')]).toEqual([
      [],
      undefined,
      false,
    ]);
  });

  it('asks about each of several refused edits, one after the other', async () => {
    answer = refuse(422, 'RECORD_INVALID');
    for (const label of ['first', 'second']) await log.commit(label, [operation('x', label)]);
    await tick();
    await tick();
    expect(log.refused()?.label).toBe('first');
    await log.discard(log.refused()?.waiting as WaitingEdit);
    expect([log.refused()?.label, kept.map(({ edit }) => edit.label)]).toEqual(['second', ['second']]);
    await log.discard(log.refused()?.waiting as WaitingEdit);
    expect([log.refused(), kept, log.saveState().state]).toEqual([undefined, [], 'saved']);
  });

  it('undoes and redoes its own edits', async () => {
    const last = (): readonly Operation[] => [...laid.values()].at(-1) ?? [];
    await log.commit('rename', [operation('x', 'y')]);
    await log.undo();
    expect(last()).toEqual([operation('y', 'x')]);
    expect([log.nextUndo(), log.nextRedo()]).toEqual([undefined, 'rename']);
    await log.redo();
    expect(last()).toEqual([operation('x', 'y')]);
    expect(log.nextUndo()).toBe('rename');
  });
});
