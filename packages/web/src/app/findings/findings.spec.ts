import { TestBed } from '@angular/core/testing';
import { computed, signal } from '@angular/core';
import { Notices } from '../ui/notices';
import { provideRouter, Router } from '@angular/router';
import { provideStore, Store } from '@ngrx/store';
import {
  emptyRecordTables,
  finding,
  setFindings,
  type Block,
  type Finding,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { Bakes } from '../bakes/bakes';
import { OpenLevel } from '../document/level/open-level';
import { DESKS } from '../desk/desk';
import { ALL_DESKS } from '../desks';
import { recordsActions, recordsFeature } from '../document/records/records-store';
import { StratumDocument } from '../document/stratum-document';
import { EditLog } from '../edits/edit-log';
import { SharedEdits } from '../reach/shared-edits';
import { Session } from '../session';
import { findingsCsvRows } from './findings-csv';
import { FindingsHome } from './findings-home';
import { FindingsPage } from './findings-page';
import { SetCheck } from './set-check';

const level = (id: string, set: string, code: string): RecordTables['level'][string] => ({
  id,
  key: id,
  name: id,
  set,
  order: 'a0',
  purpose: 'play',
  code,
  values: {},
  strata: [],
  openSky: false,
  bounds: null,
  binned: null,
});
const tables: RecordTables = {
  ...emptyRecordTables(),
  set: {
    works: { id: 'works', name: 'Works', parent: null, order: 'a0', binned: null },
    tally: { id: 'tally', name: 'Tally', parent: 'works', order: 'a0', binned: null },
    flats: { id: 'flats', name: 'Flats', parent: null, order: 'a1', binned: null },
  },
  level: { yard: level('yard', 'tally', 'ABC'), road: level('road', 'flats', 'abc') },
};
const leak = (id: string): Finding => ({
  ...finding({
    code: 'LEAK',
    desk: 'sight',
    severity: 'error',
    subject: 'level',
    place: { level: id, position: [1, 2, 3] },
    message: `${id} leaks`,
    why: '',
  }),
  id: `LEAK:level@${id}`,
});
describe('findings as a file', () => {
  it('name level and place, and leave empty what they have not', () => {
    const lost = { ...leak('yard'), place: { level: 'gone' } };
    expect(findingsCsvRows([leak('road'), lost], tables).map((row) => row.slice(2, 4).concat(row.slice(6)))).toEqual([
      ['Level', 'Code', 'X', 'Y', 'Z'],
      ['road', 'LEAK', '1', '2', '3'],
      ['gone', 'LEAK', '', '', ''],
    ]);
  });
});

const note: Finding = finding({
  code: 'SIGHT_STEP_LIMIT',
  desk: 'sight',
  severity: 'note',
  subject: 'x',
  place: { level: 'yard', item: 'b1' },
  message: 'limited',
  why: '',
});

describe('findings', () => {
  let commits: { label: string; operations: readonly Operation[] }[];
  /** What was given to be asked about. */
  let shared: { label: string; operations: readonly Operation[] }[];
  let strata: StratumDocument[];
  const openLevel = { open: () => undefined, isLoading: signal(false), strata: () => strata };
  const bakeFindings = signal<readonly Finding[]>([]);

  beforeEach(() => {
    commits = [];
    shared = [];
    strata = [new StratumDocument('own')];
    bakeFindings.set([note, leak('yard'), leak('road')]);
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: DESKS, useValue: ALL_DESKS },
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: Bakes, useValue: { findings: bakeFindings } },
        {
          provide: SetCheck,
          useFactory: () => {
            const now = TestBed.inject(Store).selectSignal(recordsFeature.selectTables);
            return { findings: computed(() => setFindings(now())) };
          },
        },
        {
          provide: EditLog,
          useValue: {
            commit: (label: string, operations: readonly Operation[]) => {
              commits.push({ label, operations });
              TestBed.inject(Store).dispatch(recordsActions.operationsApplied({ operations }));
              return Promise.resolve();
            },
          },
        },
        { provide: OpenLevel, useValue: openLevel },
        {
          provide: SharedEdits,
          useValue: {
            commit: (label: string, operations: readonly Operation[]) =>
              Promise.resolve(shared.push({ label, operations }) > 0),
          },
        },
        {
          provide: Session,
          useValue: { person: signal({ id: 'p', name: 'Odile' }), collection: signal({ id: 'works', name: 'Works' }) },
        },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
  });

  const page = async () => {
    const fixture = TestBed.createComponent(FindingsPage);
    await fixture.whenStable();
    return fixture.componentInstance;
  };
  const ids = (one: FindingsPage) => one.shown().map(({ id }) => id);
  const accept = (id: string, until: string) =>
    TestBed.inject(Store).dispatch(
      recordsActions.operationsApplied({
        operations: [
          {
            document: 'records',
            kind: 'acceptance',
            id,
            field: null,
            before: null,
            after: { id, reason: 'later', until, person: 'Odile' },
          },
        ],
      }),
    );

  it('stand by cause, errors first, with their counts', async () => {
    const lines = (await page()).lines();
    expect(lines.flatMap((line) => (line.kind === 'cause' ? [`${line.code} ${line.count}`] : []))).toEqual([
      'LEAK 2',
      'CODE_USED_TWICE 1',
      'SIGHT_STEP_LIMIT 1',
    ]);
  });

  it('are filtered by desk, by set with all below it, and by level', async () => {
    const one = await page();
    one.desk.set('sets');
    expect(ids(one)).toHaveLength(1);
    one.desk.set('sight');
    one.set.set('works');
    expect(ids(one)).toEqual([note.id, 'LEAK:level@yard']);
    one.set.set('');
    one.level.set('road');
    expect(ids(one)).toEqual(['LEAK:level@road']);
  });

  it('are gone while accepted, and ask again after the date', async () => {
    const home = TestBed.inject(FindingsHome);
    const one = await page();
    const before = home.errorCount();
    accept('LEAK:level@yard', '2999-01-01');
    expect(home.errorCount()).toBe(before - 1);
    expect(ids(one)).not.toContain('LEAK:level@yard');
    one.showsAccepted.set(true);
    expect(ids(one)).toContain('LEAK:level@yard');
    one.showsAccepted.set(false);
    accept('LEAK:level@road', '2020-01-01');
    expect(ids(one)).toContain('LEAK:level@road');
  });

  it('keep their choice over a new bake, by identity', async () => {
    const one = await page();
    one.toggle(new MouseEvent('click'), 'LEAK:level@road');
    bakeFindings.set([leak('road'), leak('yard'), note]);
    expect(one.chosenFindings().map(({ id }) => id)).toEqual(['LEAK:level@road']);
    one.toggleCause('LEAK');
    expect(one.chosenFindings()).toHaveLength(2);
    one.toggleCause('LEAK');
    expect(one.chosenFindings()).toHaveLength(0);
  });

  it('are fixed with an edit that can be undone', async () => {
    const one = await page();
    const clash = one.shown().find(({ code }) => code === 'CODE_USED_TWICE') as Finding;
    await one.fix([clash]);
    const [operation] = commits[0].operations;
    expect([operation.kind, operation.field, operation.before]).toEqual([
      'level',
      'code',
      tables.level[operation.id].code,
    ]);
    expect((operation.after as string).toLowerCase()).not.toBe('abc');
    expect(one.shown().some(({ code }) => code === 'CODE_USED_TWICE')).toBe(false);
  });

  it('take a block away as any other edit would, or say why it can’t be', async () => {
    const unusable = (subject: string): Finding =>
      finding({
        code: 'BLOCK_UNUSABLE',
        desk: 'sight',
        severity: 'error',
        subject,
        place: { level: 'yard', item: subject },
        message: `${subject} is flat`,
        why: '',
        fixes: [{ id: 'remove-item', label: 'Delete the block' }],
      });
    const block = {
      id: 'b',
      name: 'b',
      position: [0, 0, 0],
      turn: [0, 0, 0],
      planes: [],
      sight: 'hides',
      material: 'm',
    } as unknown as Block;
    strata[0].tables.block.set('b', block);
    strata[0].tables.assembly.set('use', { id: 'use', assembly: 'bay', position: [0, 0, 0], turn: 0 } as never);
    strata[0].tables.recipe.set('cave', { id: 'cave', name: 'Grotto' } as never);
    const told: string[] = [];
    jest.spyOn(TestBed.inject(Notices), 'show').mockImplementation((message) => void told.push(message));
    const one = await page();
    await one.fix([unusable('b')]);
    expect(shared).toEqual([
      {
        label: 'fix a finding',
        operations: [{ document: 'own', kind: 'block', id: 'b', field: null, before: block, after: null }],
      },
    ]);
    expect([told, commits]).toEqual([[], []]);
    await one.fix([unusable('use.b'), unusable('cave.c1r1w1d1')]);
    await one.fix([unusable('cave.c1r1w1d1')]);
    await one.fix([unusable('gone')]);
    expect(told).toEqual([
      'use.b is flat: The block is part of the assembly bay, shared by all its uses. Choose Edit for all in Layout to delete it there. And 1 more.',
      'cave.c1r1w1d1 is flat: The block is made by the recipe Grotto. Change the recipe on the Sections desk.',
      'gone is flat: The block was deleted. Bake the level again.',
    ]);
    expect(shared).toHaveLength(1);
  });

  it('lead to the item, to the place, or to the desk', async () => {
    const one = await page();
    const urls: string[] = [];
    jest.spyOn(TestBed.inject(Router), 'navigate').mockImplementation((commands, extras) => {
      urls.push(`${commands.join('/')} ${JSON.stringify(extras?.queryParams ?? {})}`);
      return Promise.resolve(true);
    });
    await one.places.go(note);
    await one.places.go(leak('road'));
    await one.places.go(one.shown().find(({ code }) => code === 'CODE_USED_TWICE') as Finding);
    expect(urls).toEqual([
      '/c/works/layout/yard {"item":"b1"}',
      '/c/works/sight/road {"at":"1,2,3"}',
      '/c/works/sets {"at":"road"}',
    ]);
  });
});
