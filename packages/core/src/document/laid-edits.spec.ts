import fc from 'fast-check';
import { applyOperation, valueAt, type JsonRecord } from './apply-operation';
import { tryOperations, type DocumentState } from './document-state';
import { LaidEdits, type LaidDocuments } from './laid-edits';
import { invertOperations, type Operation } from './operation';

/** Open documents as plain maps. */
class Shown implements LaidDocuments {
  readonly documents = new Map<string, Map<string, JsonRecord>>();
  isOpen(document: string): boolean {
    return this.documents.has(document);
  }
  read(document: string, _kind: string, id: string): JsonRecord | undefined {
    return this.documents.get(document)?.get(id);
  }
  /** Records that were written in all. */
  written = 0;
  write(records: Parameters<LaidDocuments['write']>[0]): void {
    this.written += records.length;
    for (const { document, id, record } of records) {
      if (record) this.documents.get(document)?.set(id, record);
      else this.documents.get(document)?.delete(id);
    }
  }
}

const op = (
  id: string,
  field: string | null,
  before: Operation['before'],
  after: Operation['after'],
  document = 'd',
): Operation => ({
  document,
  kind: 'marker',
  id,
  field,
  before,
  after,
});

/** A page that edits, goes offline, and follows one server. */
class Page {
  readonly shown = new Shown();
  readonly laid = new LaidEdits(this.shown);
  waiting: { id: string; operations: Operation[] }[] = [];
  seen = 0;

  edit(id: string, operations: Operation[]): void {
    this.laid.lay({ id, operations });
    this.waiting.push({ id, operations });
  }

  /** Begins to lay an edit, an operation a step, and leaves it after so many. */
  begin(id: string, operations: Operation[], steps: number): void {
    const laying = this.laid.layInSteps({ id, operations }, 1);
    for (let i = 0; i < steps; i++) laying.next();
    this.waiting.push({ id, operations });
  }
}

class Server {
  readonly state: DocumentState = new Map([['marker', new Map<string, JsonRecord>()]]);
  readonly log: { id: string; operations: readonly Operation[] }[] = [];

  /** False when it conflicts. */
  take(edit: { id: string; operations: readonly Operation[] }): boolean {
    if (this.log.some(({ id }) => id === edit.id)) return true;
    const trial = tryOperations(() => this.state, edit.operations);
    if (trial.conflicts.length > 0) return false;
    for (const { kind, id, record } of trial.touched) {
      if (record) this.state.get(kind)?.set(id, record);
      else this.state.get(kind)?.delete(id);
    }
    this.log.push(edit);
    return true;
  }
}

describe('waiting edits', () => {
  it('are laid over what the log has, and laid anew when it changes under them', () => {
    const page = new Page();
    page.shown.documents.set('d', new Map([['a', { id: 'a', x: 1, y: 1 }]]));
    page.edit('mine', [op('a', 'x', 1, 5)]);
    page.laid.log('theirs', [op('a', 'x', 1, 2), op('a', 'y', 1, 9)]);
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 5, y: 9 });
    page.laid.drop('mine');
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 2, y: 9 });
  });

  it('lay nothing on what was deleted meanwhile, which is still known', () => {
    const page = new Page();
    page.shown.documents.set('d', new Map([['a', { id: 'a', x: 1 }]]));
    page.edit('mine', [op('a', 'x', 1, 5)]);
    page.laid.log('theirs', [op('a', null, { id: 'a', x: 1 }, null)]);
    expect(page.shown.read('d', 'marker', 'a')).toBeUndefined();
    expect(page.laid.lastKnown('d', 'marker', 'a')).toEqual({ id: 'a', x: 1 });
  });

  it('are laid in steps, and whatever comes between finds them laid whole', () => {
    const page = new Page();
    page.shown.documents.set('d', new Map([['a', { id: 'a', x: 1, y: 1 }]]));
    const laying = page.laid.layInSteps({ id: 'mine', operations: [op('a', 'x', 1, 5), op('a', 'y', 1, 6)] }, 1);
    laying.next();
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 5, y: 1 });
    page.laid.log('theirs', [op('a', 'y', 1, 9)]);
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 5, y: 6 });
    expect(laying.next().done).toBe(true);
    page.laid.drop('mine');
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 1, y: 9 });
  });

  it('wait for a document that is opened later', () => {
    const page = new Page();
    page.edit('mine', [op('a', 'x', 1, 5)]);
    page.shown.documents.set('d', new Map([['a', { id: 'a', x: 1 }]]));
    page.laid.opened('d');
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 5 });
    page.laid.log('mine', [op('a', 'x', 1, 5)]);
    page.laid.drop('mine');
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 5 });
  });

  it('show nothing anew when the log has the first of them as it was laid, and what is under the others follows', () => {
    const page = new Page();
    page.shown.documents.set('d', new Map([['a', { id: 'a', x: 1, y: 1 }]]));
    const first = [op('a', 'x', 1, 5), op('a', 'y', 1, 6), op('b', null, null, { id: 'b', x: 0 })];
    page.edit('first', first);
    page.edit('second', [op('a', 'x', 5, 7)]);
    const before = page.shown.written;
    page.laid.log(
      'first',
      first.map((one) => ({ ...one })),
    );
    expect([page.shown.written - before, page.shown.read('d', 'marker', 'a')]).toEqual([0, { id: 'a', x: 7, y: 6 }]);
    page.laid.drop('second');
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 5, y: 6 });
    page.laid.log('theirs', [op('b', 'x', 0, 3)]);
    expect(page.shown.read('d', 'marker', 'b')).toEqual({ id: 'b', x: 3 });
  });

  it('are laid anew when the log has one of them otherwise than it was laid', () => {
    const page = new Page();
    page.shown.documents.set('d', new Map([['a', { id: 'a', x: 1, y: 1 }]]));
    page.edit('mine', [op('a', 'x', 1, 5)]);
    page.laid.log('mine', [op('a', 'x', 1, 6)]);
    expect(page.shown.read('d', 'marker', 'a')).toEqual({ id: 'a', x: 6, y: 1 });
  });

  // Three pages go offline at random; conflicts are settled at random, undo included. At the end all show what the server has.
  const steps = fc.array(
    fc.tuple(
      fc.nat(2),
      fc.constantFrom('edit', 'edit', 'many', 'many', 'make', 'drop', 'undo', 'send', 'follow'),
      fc.constantFrom('a', 'b', 'c'),
      fc.constantFrom('x', 'y'),
      fc.integer({ min: 0, max: 9 }),
    ),
    { minLength: 40, maxLength: 120 },
  );
  it('show nothing differently from the log at the end, whatever three pages did', () => {
    fc.assert(
      fc.property(steps, fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }), (all, choices) => {
        const server = new Server();
        const pages = [new Page(), new Page(), new Page()];
        for (const page of pages) page.shown.documents.set('d', new Map());
        let [count, asked] = [0, 0];
        const sendOne = (page: Page): void => {
          const entry = page.waiting.shift();
          if (!entry || server.take(entry)) return;
          // A conflict: mine over what stands now, or theirs.
          const mine = choices[asked++ % choices.length];
          page.laid.drop(entry.id);
          if (!mine) return;
          const now = (id: string): JsonRecord | undefined => server.state.get('marker')?.get(id);
          const operations = entry.operations.flatMap((one): Operation[] => {
            const current = valueAt(now(one.id), one.field);
            if (one.field !== null && !now(one.id)) return [];
            return [{ ...one, before: current }];
          });
          if (operations.every(({ field, before, after }) => field === null && before === null && after === null))
            return;
          page.edit(`e${count++}`, operations);
        };
        const follow = (page: Page): void => {
          for (; page.seen < server.log.length; page.seen++)
            page.laid.log(server.log[page.seen].id, server.log[page.seen].operations);
        };
        for (const [which, what, id, field, value] of all) {
          const page = pages[which];
          // What is made of what is shown is made of all of it.
          if (what !== 'send' && what !== 'follow') page.laid.finish();
          if (what === 'many') {
            const operations = ['a', 'b', 'c'].flatMap((one): Operation[] => {
              const now = page.shown.read('d', 'marker', one);
              return now ? [op(one, field, valueAt(now, field), value), op(one, 'z', valueAt(now, 'z'), value)] : [];
            });
            if (operations.length > 0) page.begin(`e${count++}`, operations, value);
          }
          const record = page.shown.read('d', 'marker', id);
          if (what === 'edit' && record) page.edit(`e${count++}`, [op(id, field, valueAt(record, field), value)]);
          if (what === 'make' && !record) page.edit(`e${count++}`, [op(id, null, null, { id, x: value, y: 0 })]);
          if (what === 'drop' && record) page.edit(`e${count++}`, [op(id, null, record, null)]);
          if (what === 'undo' && page.waiting.length > 0)
            page.edit(`e${count++}`, invertOperations(page.waiting[page.waiting.length - 1].operations));
          if (what === 'send') sendOne(page);
          if (what === 'follow') follow(page);
          if (page.laid['underWay']) continue;
          // What is shown is always the acknowledged state with what waits laid over it, computed plainly.
          const plain = new Map<string, JsonRecord>();
          const lay = (operation: Operation): void => {
            const now = plain.get(operation.id);
            if (operation.field !== null && !now) return;
            const next = applyOperation(now, operation);
            if (next) plain.set(operation.id, next);
            else plain.delete(operation.id);
          };
          const acknowledged = server.log.slice(0, page.seen);
          for (const { operations } of acknowledged) operations.forEach(lay);
          for (const { operations } of page.laid['waiting']) operations.forEach(lay);
          expect(Object.fromEntries([...(page.shown.documents.get('d') ?? [])].sort())).toEqual(
            Object.fromEntries([...plain].sort()),
          );
        }
        for (let round = 0; round < 200 && pages.some(({ waiting }) => waiting.length > 0); round++)
          for (const page of pages) sendOne(page);
        for (const page of pages) follow(page);
        for (const page of pages) {
          page.laid.finish();
          expect(page.waiting).toEqual([]);
          expect(Object.fromEntries([...(page.shown.documents.get('d') ?? [])].sort())).toEqual(
            Object.fromEntries([...(server.state.get('marker') ?? [])].sort()),
          );
        }
      }),
      { numRuns: 150 },
    );
  });
});
