import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { provideStore, Store } from '@ngrx/store';
import {
  emptyRecordTables,
  linkLookup,
  type Level,
  type LoggedEdit,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { ApiClient } from '../../../api/api-client';
import { DocumentRegistry } from '../../../document/document-registry';
import { recordsActions, recordsFeature } from '../../../document/records/records-store';
import { StratumDocument } from '../../../document/stratum-document';
import { EditLog } from '../../../edits/edit-log';
import { Session } from '../../../session';
import { FieldContext } from '../fields/field-context';
import { SHEET_CLOSE, SHEET_DATA } from '../../../level-desk/sheets';
import { HistorySheet } from './history-sheet';

const level: Level = {
  id: 'yard',
  name: 'Now',
  set: 's',
  order: 'a',
  purpose: 'play',
  key: 'level',
  code: '',
  values: {},
  strata: [
    { stratum: 'own', switchedOff: false },
    { stratum: 'base', switchedOff: false },
  ],
  openSky: false,
  bounds: null,
  binned: null,
};
const tables: RecordTables = {
  ...emptyRecordTables(),
  level: { yard: level },
  stratum: {
    own: { id: 'own', name: 'Own', role: 'base', owner: 'yard' },
    base: { id: 'base', name: 'Base', role: 'base', owner: null },
  },
};
const rename = (before: string, after: string): Operation => ({
  document: 'records',
  kind: 'level',
  id: 'yard',
  field: 'name',
  before,
  after,
});
const turn = (document: string, before: number, after: number): Operation => ({
  document,
  kind: 'marker',
  id: 'm',
  field: 'turn',
  before,
  after,
});
const logged = (sequence: number, ...operations: Operation[]): LoggedEdit => ({
  id: `e${sequence}`,
  sequence,
  at: '2026-11-25T12:00:00.000Z',
  person: 'p',
  label: `edit ${sequence}`,
  undoes: null,
  operations,
});

describe('the history of a level', () => {
  let commits: { label: string; operations: readonly Operation[] }[];
  let asked: string[];
  let closed: number;
  let answer: { edits: LoggedEdit[]; strata: string[]; hasMore: boolean };

  async function sheet(): Promise<HistorySheet> {
    commits = [];
    asked = [];
    closed = 0;
    const own = new StratumDocument('own');
    own.tables.marker.set('m', { id: 'm', kind: 'exit', position: [0, 0, 0], turn: 90 });
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: SHEET_DATA, useValue: 'yard' },
        { provide: SHEET_CLOSE, useValue: () => closed++ },
        {
          provide: ApiClient,
          useValue: {
            json: (url: string) => (asked.push(url), Promise.resolve(answer)),
            people: () => Promise.resolve([{ id: 'p', name: 'Odile' }]),
          },
        },
        { provide: Session, useValue: { collection: signal({ id: 'c', name: 'C' }) } },
        {
          provide: EditLog,
          useValue: {
            settled: () => Promise.resolve(),
            commit: (label: string, operations: readonly Operation[]) =>
              Promise.resolve(commits.push({ label, operations })),
          },
        },
        { provide: DocumentRegistry, useValue: { stratum: () => Promise.resolve(own) } },
        { provide: FieldContext, useValue: { links: signal(linkLookup(tables)) } },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
    const fixture = TestBed.createComponent(HistorySheet);
    await fixture.whenStable();
    return fixture.componentInstance;
  }

  beforeEach(() => {
    answer = {
      edits: [
        logged(9, rename('Old', 'Now'), turn('own', 45, 90)),
        logged(7, turn('own', 0, 45), turn('elsewhere', 0, 5)),
        logged(4, rename('First', 'Old')),
      ],
      strata: ['own'],
      hasMore: false,
    };
  });

  it('shows the newest first, says what it did, and what it leaves alone', async () => {
    const one = await sheet();
    expect([
      one.shown()?.id,
      one.changes().map(({ what, after }) => `${what}: ${after}`),
      one.beyond(),
      one.shared(),
    ]).toEqual(['e9', ['Name: Now', 'Markers of Own: 1 changed'], 0, ['Base']]);
    one.key(new KeyboardEvent('keydown', { key: 'ArrowDown' }));
    expect([one.shown()?.id, one.beyond()]).toEqual(['e7', 1]);
    one.key(new KeyboardEvent('keydown', { key: 'ArrowUp' }));
    one.key(new KeyboardEvent('keydown', { key: 'ArrowUp' }));
    expect(one.shown()?.id).toBe('e9');
    expect(one.people().get('p')).toBe('Odile');
  });

  it('goes back to after an edit, or to before it, by one edit of what stands now', async () => {
    const one = await sheet();
    one.selected.set('e7');
    await one.back(false);
    expect(commits[0]).toEqual({ label: 'Now back to “edit 7”', operations: expect.any(Array) as never });
    expect(commits[0].operations.map(({ id, field, before, after }) => [id, field, before, after])).toEqual(
      expect.arrayContaining([
        ['yard', 'name', 'Now', 'Old'],
        ['m', 'turn', 90, 45],
      ]),
    );
    one.selected.set('e4');
    await one.back(true);
    expect(commits[1].label).toBe('Now back to before “edit 4”');
    expect(commits[1].operations.map(({ before, after }) => [before, after])).toEqual(
      expect.arrayContaining([
        ['Now', 'First'],
        [90, 0],
      ]),
    );
    expect(closed).toBe(2);
  });

  it('leaves a stratum alone that others stand on by now', async () => {
    const one = await sheet();
    TestBed.inject(Store).dispatch(
      recordsActions.loaded({
        tables: { ...tables, stratum: { ...tables.stratum, own: { ...tables.stratum['own'], owner: null } } },
      }),
    );
    one.selected.set('e4');
    await one.back(false);
    expect(commits[0].operations.map(({ id }) => id)).toEqual(['yard']);
  });

  it('reads older edits on, and says so when nothing could be read or the way back is broken', async () => {
    answer = { ...answer, hasMore: true };
    const one = await sheet();
    expect(one.hasMore()).toBe(true);
    answer = { edits: [logged(2, rename('Zero', 'First'))], strata: ['gone'], hasMore: false };
    await one.more();
    expect([asked.at(-1), one.edits().map(({ id }) => id), one.hasMore()]).toEqual([
      '/api/collections/c/levels/yard/history?below=4',
      ['e9', 'e7', 'e4', 'e2'],
      false,
    ]);
    answer = { edits: [logged(1, { ...turn('own', 1, 2), id: 'nobody' })], strata: ['own'], hasMore: false };
    await one.more();
    one.selected.set('e1');
    await one.back(true);
    expect([one.failure(), commits]).toEqual([
      expect.stringMatching(/Nothing was changed\. history: marker nobody does not exist/),
      [],
    ]);
  });
});
