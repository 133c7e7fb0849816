import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { provideRouter } from '@angular/router';
import { provideStore, Store } from '@ngrx/store';
import { emptyRecordTables, type Level, type Operation } from '@stravel/core';
import { DESKS } from '../desk/desk';
import { ALL_DESKS } from '../desks';
import { recordsActions, recordsFeature } from '../document/records/records-store';
import { EditLog, type OpenConflict } from '../edits/edit-log';
import { Session } from '../session';
import { ConflictDialog } from './conflict-dialog';
import { FindDialog } from './find-dialog';
import { PersonDialog } from './person-dialog';
import { Seam } from './seam';

const level = (id: string, name: string, order: string, code = ''): Level => ({
  id,
  name,
  key: id,
  set: 's',
  order,
  purpose: 'play',
  code,
  values: {},
  strata: [],
  openSky: false,
  bounds: null,
  binned: null,
});

describe('the shell', () => {
  let closed: unknown[];
  let settled: string[];
  let introduce: (name: string) => Promise<void>;
  const conflict = signal<OpenConflict | undefined>(undefined);

  beforeEach(() => {
    closed = [];
    settled = [];
    introduce = () => Promise.resolve();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: DESKS, useValue: ALL_DESKS },
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: MatDialogRef, useValue: { close: (value: unknown) => closed.push(value) } },
        { provide: MAT_DIALOG_DATA, useValue: 'first' },
        {
          provide: EditLog,
          useValue: {
            conflict,
            settle: (choice: string) => (settled.push(choice), Promise.resolve('')),
            stands: () => true,
          },
        },
        {
          provide: Session,
          useValue: {
            introduce: (name: string) => introduce(name),
            person: () => undefined,
            collection: () => ({ id: 'works', name: 'Works' }),
          },
        },
      ],
    });
    TestBed.inject(Store).dispatch(
      recordsActions.loaded({
        tables: {
          ...emptyRecordTables(),
          set: { s: { id: 's', name: 'Tally', parent: null, order: 'a0', binned: null } },
          level: {
            a: level('a', 'Ash Gallery', 'a0', 'QSTGU'),
            b: level('b', 'Glass Heart', 'a1'),
            c: level('c', 'Old Ash Road', 'a2'),
          },
        },
      }),
    );
  });

  const find = async () => {
    const fixture = TestBed.createComponent(FindDialog);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const box = element.querySelector('input') as HTMLInputElement;
    return {
      element,
      names: () =>
        [...element.querySelectorAll('[role=option] span:nth-child(2)')].map(({ textContent }) => textContent),
      type: async (text: string) => {
        box.value = text;
        box.dispatchEvent(new Event('input'));
        await fixture.whenStable();
      },
      press: async (key: string) => {
        box.dispatchEvent(new KeyboardEvent('keydown', { key }));
        await fixture.whenStable();
      },
    };
  };

  it('finds levels by part of a name, the best first, and opens one by keys', async () => {
    const { names, type, press, element } = await find();
    expect(names().slice(0, 6)).toEqual([
      'Ash Gallery',
      'Glass Heart',
      'Old Ash Road',
      'Tally',
      'Go to Devices',
      'Go to Sets',
    ]);
    await type('ash');
    // The letters of the last stand in it in order, but apart.
    expect(names().slice(0, 3)).toEqual(['Ash Gallery', 'Old Ash Road', 'Glass Heart']);
    await press('ArrowDown');
    await press('ArrowDown');
    expect(element.querySelector('[aria-selected=true]')?.textContent).toContain('Glass Heart');
    await press('ArrowUp');
    expect(element.querySelector('[aria-selected=true]')?.textContent).toContain('Old Ash Road');
    await press('Enter');
    expect(closed).toMatchObject([{ kind: 'level', id: 'c' }]);
  });

  it('finds sets and desks too, and where they lead', async () => {
    const { names, type, press } = await find();
    await type('tal');
    expect(names()[0]).toBe('Tally');
    await press('Enter');
    await type('codes');
    expect(names()[0]).toBe('Codes…');
    await type('budg');
    await press('Enter');
    expect(closed).toMatchObject([
      { kind: 'set', path: ['/sets'], query: { at: 's' } },
      { kind: 'desk', path: ['/budget'] },
    ]);
  });

  it('finds a level by its code, whatever its case, and says when there is none', async () => {
    const { names, type, press, element } = await find();
    await type('qstgu');
    expect(names()).toEqual(['Ash Gallery']);
    await type('zzz');
    expect(element.textContent).toContain('Nothing has “zzz” in its name or code.');
    await press('Enter');
    expect(closed).toEqual([]);
  });

  it('shows both values of a conflict and settles as one chooses', async () => {
    const operation: Operation = {
      document: 'records',
      kind: 'level',
      id: 'a',
      field: 'values.shards',
      before: 31,
      after: 50,
    };
    conflict.set({
      waiting: {
        place: 1,
        collection: 'c',
        edit: { id: 'e', person: 'p', label: 'shards of Ash Gallery', operations: [operation], undoes: null },
      },
      conflicts: [{ index: 0, operation, current: 40 }],
    });
    const fixture = TestBed.createComponent(ConflictDialog);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    expect([...element.querySelectorAll('td')].map(({ textContent }) => textContent)).toEqual([
      'level shards',
      '50',
      '40',
    ]);
    expect(element.textContent).toContain(
      '“shards of Ash Gallery” conflicts with a newer change. Choose which to keep.',
    );
    const button = (name: string) =>
      [...element.querySelectorAll('button')].find(({ textContent }) => textContent === name);
    button('Keep newer')?.click();
    await fixture.whenStable();
    button('Keep mine')?.click();
    await fixture.whenStable();
    expect(settled).toEqual(['theirs', 'mine']);
    expect(closed).toHaveLength(2);
  });

  it('asks for a name, not for blanks, and keeps it typed when the server is away', async () => {
    const fixture = TestBed.createComponent(PersonDialog);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const box = element.querySelector('input') as HTMLInputElement;
    const start = element.querySelector('button') as HTMLButtonElement;
    const type = async (text: string) => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    await type('   ');
    expect(start.disabled).toBe(true);
    await type(' Odile ');
    expect(start.disabled).toBe(false);
    introduce = () => Promise.reject(new Error('no network'));
    await fixture.componentInstance.save(new Event('submit'), box.value);
    await fixture.whenStable();
    expect(element.querySelector('[role=alert]')?.textContent).toBe('no network');
    expect([box.value, closed]).toEqual([' Odile ', []]);
    const names: string[] = [];
    introduce = (name) => Promise.resolve(void names.push(name));
    await fixture.componentInstance.save(new Event('submit'), box.value);
    expect([names, closed.length]).toEqual([['Odile'], 1]);
  });

  it('shows on the seam what each desk has to say, in its tone', async () => {
    const fixture = TestBed.createComponent(Seam);
    fixture.componentRef.setInput('pathOf', (path: string) => ['/c', 'works', path.slice(1)]);
    fixture.componentRef.setInput('desks', [
      { name: 'Sets', path: '/sets', key: '1', text: '2 findings', tone: 'soft' },
      { name: 'Layout', path: '/layout', key: '2', text: '', tone: 'soft' },
      { name: 'Sight', path: '/sight', key: '3', text: 'stale', tone: 'near' },
      { name: 'Budget', path: '/budget', key: '4', text: '1 over', tone: 'over' },
    ]);
    await fixture.whenStable();
    const links = [...(fixture.nativeElement as HTMLElement).querySelectorAll('a')];
    expect(
      links.map((link) => [
        link.getAttribute('href'),
        link.getAttribute('aria-keyshortcuts'),
        link.querySelector('.status')?.className ?? '',
      ]),
    ).toEqual([
      ['/c/works/sets', 'Alt+1', 'status mono'],
      ['/c/works/layout', 'Alt+2', ''],
      ['/c/works/sight', 'Alt+3', 'status mono near'],
      ['/c/works/budget', 'Alt+4', 'status mono over'],
    ]);
  });
});
