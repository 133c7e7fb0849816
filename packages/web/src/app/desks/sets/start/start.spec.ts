import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { provideStore, Store } from '@ngrx/store';
import { emptyRecordTables, type Level, type RecordTables } from '@stravel/core';
import { recordsActions, recordsFeature } from '../../../document/records/records-store';
import { Session } from '../../../session';
import { StartHere } from '../../../start-here';
import { Workspace } from '../../../workspace';
import { StartDialog } from './start-dialog';

const level = (id: string): Level => ({
  id,
  name: id.toUpperCase(),
  set: 's',
  order: id,
  purpose: 'play',
  key: 'level',
  code: '',
  values: {},
  strata: [],
  openSky: false,
  bounds: null,
  binned: null,
});
const tables: RecordTables = {
  ...emptyRecordTables(),
  set: { s: { id: 's', name: 'S', parent: null, order: 'a', binned: null } },
  level: { a: level('a'), b: level('b') },
  carriedValue: { shards: { id: 'shards', name: 'Shards', start: 2, counts: 'once', order: 'a' } },
  register: { tools: { id: 'tools', name: 'Tools', help: '', order: 'a' } },
  entry: { rake: { id: 'rake', register: 'tools', name: 'Rake', order: 'a', values: {} } },
};

describe('starting here', () => {
  const person = signal({ id: 'odile', name: 'Odile' });

  beforeEach(() => {
    localStorage.clear();
    person.set({ id: 'odile', name: 'Odile' });
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: Session, useValue: { collection: signal({ id: 'c', name: 'C' }), person } },
        { provide: MatDialogRef, useValue: { close: () => undefined } },
        { provide: MAT_DIALOG_DATA, useValue: 'b' },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
  });

  it('is one person’s alone, kept over a reload, and lets go of what was deleted', () => {
    const start = TestBed.inject(StartHere);
    TestBed.tick();
    start.set({ level: 'b', values: { shards: 7, gone: 1 }, entries: { tools: ['rake', 'gone'], gone: ['x'] } });
    expect(start.beginning()).toEqual({ level: 'b', values: { shards: 7 }, entries: { tools: ['rake'] } });
    expect(start.levelName()).toBe('B');
    person.set({ id: 'arno', name: 'Arno' });
    TestBed.tick();
    expect(start.beginning()).toBeUndefined();
    person.set({ id: 'odile', name: 'Odile' });
    TestBed.tick();
    expect(start.beginning()?.level).toBe('b');
    TestBed.inject(Store).dispatch(
      recordsActions.loaded({
        tables: { ...tables, level: { ...tables.level, b: { ...tables.level['b'], binned: '2026-01-01T00:00:00Z' } } },
      }),
    );
    expect(start.beginning()).toBeUndefined();
    start.set(undefined);
    expect(localStorage).toHaveLength(0);
  });

  it('is set with values and entries, and the desks stand on its level then', () => {
    const dialog = TestBed.createComponent(StartDialog).componentInstance;
    const [shards] = dialog.values();
    expect([dialog.draft().level, dialog.amountOf(shards)]).toEqual(['b', 2]);
    dialog.setValue('shards', '');
    dialog.setValue('shards', 'many');
    expect(dialog.amountOf(shards)).toBe(2);
    dialog.setValue('shards', '-3');
    dialog.toggle('tools', 'rake');
    expect(dialog.has('tools', 'rake')).toBe(true);
    dialog.toggle('tools', 'rake');
    dialog.toggle('tools', 'rake');
    dialog.keep();
    expect(TestBed.inject(StartHere).beginning()).toEqual({
      level: 'b',
      values: { shards: -3 },
      entries: { tools: ['rake'] },
    });
    expect(TestBed.inject(Workspace).level()?.id).toBe('b');
  });
});
