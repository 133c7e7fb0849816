import { TestBed } from '@angular/core/testing';
import type { Edit, Operation } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { ProblemError } from '../api/problem-error';
import { DocumentRegistry } from '../document/document-registry';
import { EditLog } from './edit-log';
import { Outbox, type WaitingEdit } from './outbox';

type Listener = (event: { data: string }) => void;
/** Listeners of the event source that EditLog made last. */
let listeners: Map<string, Listener>;

class QuietEvents {
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

const operation = (before: string, after: string): Operation => ({ document: 'records', kind: 'level', id: 'a', field: 'name', before, after });

describe('EditLog', () => {
  let kept: WaitingEdit[];
  let sent: Edit[];
  let applied: Operation[];
  let answer: (edit: Edit) => Promise<{ sequence: number; at: string }>;
  let log: EditLog;

  beforeEach(async () => {
    kept = [];
    sent = [];
    applied = [];
    answer = (edit) => {
      sent.push(edit);
      return Promise.resolve({ sequence: sent.length, at: '' });
    };
    Object.assign(globalThis, { EventSource: QuietEvents });
    let place = 0;
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { appendEdit: (_c: string, edit: Edit) => answer(edit), editsOfPerson: () => Promise.resolve([]), eventsUrl: () => '' } },
        {
          provide: Outbox,
          useValue: {
            waiting: () => Promise.resolve([...kept]),
            entry: (collection: string, edit: Edit) => ({ place: ++place, collection, edit }),
            put: (entry: WaitingEdit) => Promise.resolve(void kept.push(entry)),
            remove: (entry: WaitingEdit) => Promise.resolve(void (kept = kept.filter((one) => one.place !== entry.place))),
          },
        },
        {
          provide: DocumentRegistry,
          useValue: {
            open: () => Promise.resolve(0),
            complete: (operations: Operation[]) => operations,
            applyLocal: (operations: Operation[]) => applied.push(...operations),
            applyLogged: () => undefined,
            pendingOperations: () => [],
          },
        },
      ],
    });
    log = TestBed.inject(EditLog);
    await log.open('c', 'me');
  });

  it('applies at once, keeps until acknowledged, then says saved', async () => {
    await log.commit('rename', [operation('x', 'y')]);
    expect(applied).toHaveLength(1);
    await log.settled();
    expect(kept).toEqual([]);
    expect(sent.map(({ label }) => label)).toEqual(['rename']);
    expect(log.saveState().state).toBe('saved');
    expect(log.nextUndo()).toBe('rename');
  });

  it('keeps edits while the server is away and sends them in order when it is back', async () => {
    const good = answer;
    answer = () => Promise.reject(new TypeError('no network'));
    await log.commit('first', [operation('x', 'y')]);
    await log.commit('second', [operation('y', 'z')]);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(log.saveState()).toMatchObject({ state: 'offline', text: 'No server: 2 changes kept here' });
    expect(kept).toHaveLength(2);
    answer = good;
    listeners.get('open')?.({ data: '' });
    await log.settled();
    expect(sent.map(({ label }) => label)).toEqual(['first', 'second']);
  });

  it('forgets jobs when the events begin anew, so that none stays running that ended meanwhile', () => {
    listeners.get('job')?.({ data: JSON.stringify({ id: 'j', kind: 'bake-stale', state: 'running' }) });
    expect(log.jobs().size).toBe(1);
    listeners.get('open')?.({ data: '' });
    expect(log.jobs().size).toBe(0);
  });

  it('asks at a conflict; “mine” writes over what stands, “theirs” takes it over', async () => {
    const good = answer;
    const conflicting = (current: string) => () => Promise.reject(new ProblemError(409, 'EDIT_CONFLICT', 'changed', [{ index: 0, operation: operation('x', 'mine'), current }]));
    answer = conflicting('theirs');
    await log.commit('rename', [operation('x', 'mine')]);
    await new Promise((resolve) => setTimeout(resolve, 10));
    expect(log.conflict()?.conflicts[0].current).toBe('theirs');
    answer = good;
    await log.settle('mine');
    await log.settled();
    expect(sent.at(-1)?.operations[0]).toEqual(operation('theirs', 'mine'));

    answer = conflicting('other');
    await log.commit('again', [operation('mine', 'late')]);
    await new Promise((resolve) => setTimeout(resolve, 10));
    answer = good;
    await log.settle('theirs');
    expect(applied.at(-1)?.after).toBe('other');
    expect(kept).toEqual([]);
  });

  it('takes back what the server refuses for good, and says why', async () => {
    answer = () => Promise.reject(new ProblemError(422, 'RECORD_INVALID', 'name is too long'));
    await log.commit('rename', [operation('x', 'y')]);
    await new Promise((resolve) => setTimeout(resolve, 10));
    expect(applied.at(-1)).toEqual(operation('y', 'x'));
    expect(log.refused()).toEqual({ label: 'rename', reason: 'name is too long' });
    expect(log.nextUndo()).toBeUndefined();
  });

  it('undoes and redoes its own edits', async () => {
    await log.commit('rename', [operation('x', 'y')]);
    await log.undo();
    expect(applied.at(-1)).toEqual(operation('y', 'x'));
    expect([log.nextUndo(), log.nextRedo()]).toEqual([undefined, 'rename']);
    await log.redo();
    expect(applied.at(-1)).toEqual(operation('x', 'y'));
    expect(log.nextUndo()).toBe('rename');
  });
});
