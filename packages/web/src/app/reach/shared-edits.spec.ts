import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { provideStore, Store } from '@ngrx/store';
import {
  emptyRecordTables,
  type AssemblyUse,
  type Level,
  type Operation,
  type RecordTables,
  type Stratum,
} from '@stravel/core';
import { of } from 'rxjs';
import { OpenLevel } from '../document/level/open-level';
import { recordsActions, recordsFeature } from '../document/records/records-store';
import { StratumDocument } from '../document/stratum-document';
import { EditLog } from '../edits/edit-log';
import type { Belongs, ReachDialogData } from './reach-dialog';
import { SharedEdits } from './shared-edits';

const level = (id: string, ...strata: string[]): Level =>
  ({ id, name: id, strata: strata.map((stratum) => ({ stratum, switchedOff: false })) }) as unknown as Level;
const stratum = (id: string, over: Partial<Stratum> = {}): Stratum => ({
  id,
  name: id,
  role: 'base',
  owner: null,
  ...over,
});
const tables: RecordTables = {
  ...emptyRecordTables(),
  level: { one: level('one', 'base', 'own'), two: level('two', 'base'), three: level('three', 'other') },
  stratum: {
    base: stratum('base'),
    own: stratum('own', { owner: 'one' }),
    other: stratum('other', { assemblies: ['row'] }),
    row: stratum('row', { kit: 'kit', assemblies: ['bay'] }),
    bay: stratum('bay', { kit: 'kit' }),
  },
};
const marker = { id: 'm', kind: 'exit', position: [0, 0, 0], turn: 0 } as const;

describe('changes of what levels share', () => {
  let commits: { label: string; operations: readonly Operation[] }[];
  let asked: ReachDialogData[];
  let answer: Belongs | undefined;
  let base: StratumDocument;
  let shared: SharedEdits;
  const move = (document: string): Operation => ({
    document,
    kind: 'marker',
    id: 'm',
    field: 'turn',
    before: 0,
    after: 90,
  });

  beforeEach(() => {
    commits = [];
    asked = [];
    answer = 'all';
    base = new StratumDocument('base');
    base.tables.marker.set('m', marker);
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: OpenLevel, useValue: { level: signal(tables.level['one']), shared: signal([base]) } },
        {
          provide: EditLog,
          useValue: {
            commit: (label: string, operations: Operation[]) => Promise.resolve(commits.push({ label, operations })),
          },
        },
        {
          provide: MatDialog,
          useValue: {
            open: (_dialog: unknown, { data }: { data: ReachDialogData }) => ({
              afterClosed: () => of(asked.push(data) > 0 ? answer : undefined),
            }),
          },
        },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
    shared = TestBed.inject(SharedEdits);
  });

  it('ask once where they belong, naming all levels, and say so in what they are called', async () => {
    expect(await shared.commit('turn', [move('base')])).toBe(true);
    expect(await shared.commit('turn', [move('base')])).toBe(true);
    expect(asked.map(({ levels, isWhole }) => [levels, isWhole])).toEqual([[['one', 'two'], false]]);
    expect(commits.map(({ label }) => label)).toEqual(['turn in 2 levels', 'turn in 2 levels']);
    answer = 'one';
    shared.choose('base', 'one');
    await shared.commit('turn', [move('base')]);
    expect(commits[2]).toMatchObject({
      label: 'turn',
      operations: [{ kind: 'patch', after: { level: 'one', target: 'm', change: 'changed' } }],
    });
  });

  it('are left when the person leaves the question', async () => {
    answer = undefined;
    expect(await shared.commit('turn', [move('base')])).toBe(false);
    expect(await shared.commitWhole('reseed', [move('base')])).toBe(false);
    expect(commits).toEqual([]);
  });

  it('of what is the same in all of them are told of once, and never asked where they belong', async () => {
    expect(await shared.commitWhole('reseed', [move('base')])).toBe(true);
    expect(await shared.commitWhole('reseed', [move('base'), move('own')])).toBe(true);
    expect(asked.map(({ isWhole }) => isWhole)).toEqual([true]);
    expect(commits).toHaveLength(2);
  });

  it('bring assemblies, whose levels are known through what holds them', async () => {
    const use: AssemblyUse = { id: 'u', assembly: 'row', position: [0, 0, 0], turn: 0 };
    await shared.commit('place', [
      { document: 'own', kind: 'assembly', id: 'u', field: null, before: null, after: use as never },
    ]);
    expect(
      commits[0].operations.map(({ document, id, field, after }) => [
        document,
        id,
        field,
        field === null ? null : after,
      ]),
    ).toEqual([
      ['own', 'u', null, null],
      ['records', 'own', 'assemblies', ['row']],
    ]);
    expect([shared.levelsOf('bay'), shared.levelsOf('row')]).toEqual([['three'], ['three']]);
  });
});
