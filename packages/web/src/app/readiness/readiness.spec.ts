import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialog, MatDialogRef } from '@angular/material/dialog';
import { provideStore, Store } from '@ngrx/store';
import {
  DEFAULT_READINESS,
  emptyRecordTables,
  finding,
  type Device,
  type FiguresSummary,
  type Finding,
  type Level,
  type Operation,
  type ReadinessRules,
  type RecordTables,
} from '@stravel/core';
import { of } from 'rxjs';
import { bakesActions, bakesFeature, type LevelBakes } from '../bakes/bakes-store';
import { recordsActions, recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { FindingsHome } from '../findings/findings-home';
import { Readiness } from './readiness';
import { ReadinessDialog, type ReadinessData } from './readiness-dialog';

const level = (id: string, code: string): Level => ({
  id,
  key: id,
  name: id,
  set: 's',
  order: id,
  purpose: 'play',
  code,
  values: {},
  strata: [{ stratum: 'x', switchedOff: false }],
  openSky: false,
  bounds: null,
  binned: null,
});
const handheld = {
  id: 'handheld',
  name: 'Handheld',
  order: 'a',
  budget: { triangles: 10, drawCalls: 10, memoryBytes: 10, loadMs: 1000, diskBytes: 10 },
  seekMs: 0,
  diskBytesPerSecond: 1e9,
  unpackBytesPerSecond: 1e9,
  activationSliceMs: 1,
  activationBytesPerMs: 1e9,
  framesPerSecond: 60,
} satisfies Device;
const tables = (readiness: ReadinessRules | null): RecordTables => ({
  ...emptyRecordTables(),
  collection: { collection: { id: 'collection', name: 'C', ranks: ['Part'], readiness } },
  set: { s: { id: 's', name: 'S', parent: null, order: 'a', binned: null } },
  level: { a: level('a', 'AB'), b: level('b', 'ab'), c: level('c', '') },
  device: { handheld },
});
const none = { files: 0, memoryBytes: 0, diskBytes: 0 };
const figures = (): FiguresSummary =>
  ({
    sightFileBytes: 0,
    triangles: 0,
    worst: [],
    worstDrawCalls: null,
    strata: [],
    findings: [],
    tally: { markers: { spawn: 1, exit: 1 }, pieces: {}, blocks: {} },
  }) as unknown as FiguresSummary;
const bakes = (id: string, state: 'fresh' | 'stale', memoryBytes: number): LevelBakes => ({
  level: id,
  count: {
    ...figures(),
    bound: { triangles: 0, drawCalls: 0 },
    load: { files: 1, memoryBytes, diskBytes: 0, isCut: false, kits: none, own: none, strata: [] },
  },
  sight: { state: 'fresh', key: null, current: null, summary: null },
  figures: { state, key: null, current: null, summary: figures() },
  rehearsals: [],
});

describe('readiness', () => {
  let commits: readonly Operation[][];
  const open = signal<readonly Finding[]>([]);
  let chosen: ReadinessRules | undefined;
  let shown: ReadinessData[];

  function readiness(rules: ReadinessRules | null): Readiness {
    commits = [];
    shown = [];
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [recordsFeature.name]: recordsFeature.reducer, [bakesFeature.name]: bakesFeature.reducer }),
        { provide: FindingsHome, useValue: { open } },
        {
          provide: MatDialog,
          useValue: {
            open: (_dialog: unknown, { data }: { data: ReadinessData }) => (
              shown.push(data),
              { afterClosed: () => of(chosen) }
            ),
          },
        },
        {
          provide: EditLog,
          useValue: {
            commit: (_label: string, operations: Operation[]) => Promise.resolve((commits = [...commits, operations])),
          },
        },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables: tables(rules) }));
    TestBed.inject(Store).dispatch(bakesActions.loaded({ levels: [bakes('a', 'fresh', 5), bakes('b', 'stale', 50)] }));
    return TestBed.inject(Readiness);
  }

  it('goes by bakes, markers and open errors while nobody chose otherwise', () => {
    open.set([
      finding({
        code: 'X',
        desk: 'sets',
        severity: 'error',
        subject: 'a',
        place: { level: 'a' },
        message: '',
        why: '',
      }),
      finding({
        code: 'Y',
        desk: 'sets',
        severity: 'warning',
        subject: 'b',
        place: { level: 'b' },
        message: '',
        why: '',
      }),
    ]);
    const one = readiness(null);
    expect(['a', 'b', 'c', 'gone'].map((id) => one.faultsOf()(id))).toEqual([
      ['1 error'],
      ['bakes stale'],
      ['spawn not counted yet', 'exit not counted yet', 'bakes stale'],
      [],
    ]);
  });

  it('holds levels against devices and codes as the rules ask', () => {
    open.set([]);
    const one = readiness({
      ...DEFAULT_READINESS,
      bakes: false,
      spawn: false,
      exit: false,
      code: true,
      devices: ['handheld', 'gone'],
    });
    expect(['a', 'b', 'c'].map((id) => one.faultsOf()(id))).toEqual([
      ['its code is used twice'],
      ['its code is used twice', 'not within budget on Handheld'],
      ['no code', 'not within budget on Handheld'],
    ]);
  });

  const answered = () => new Promise((resolve) => setTimeout(resolve));

  it('shows what one level lacks, and keeps rules only when they were changed', async () => {
    open.set([]);
    chosen = undefined;
    const one = readiness(null);
    one.open('c');
    await answered();
    expect([shown[0].level?.name, shown[0].level?.faults().length, commits]).toEqual(['c', 3, []]);
    chosen = { ...DEFAULT_READINESS, code: true };
    one.open();
    await answered();
    expect([shown[1].level, commits.map(([{ kind, field, after }]) => [kind, field, after])]).toEqual([
      undefined,
      [['collection', 'readiness', chosen]],
    ]);
  });

  it('is chosen rule by rule', () => {
    const kept: unknown[] = [];
    TestBed.configureTestingModule({
      providers: [
        {
          provide: MAT_DIALOG_DATA,
          useValue: {
            rules: DEFAULT_READINESS,
            fields: [],
            devices: [handheld],
            level: undefined,
          } satisfies ReadinessData,
        },
        { provide: MatDialogRef, useValue: { close: (rules: unknown) => kept.push(rules) } },
      ],
    });
    const dialog = TestBed.createComponent(ReadinessDialog).componentInstance;
    expect(dialog.rules()).toBe(DEFAULT_READINESS);
    dialog.flip('code');
    dialog.toggle('devices', 'handheld');
    dialog.toggle('fields', 'f');
    dialog.toggle('fields', 'f');
    expect(dialog.rules()).toEqual({ ...DEFAULT_READINESS, code: true, devices: ['handheld'] });
  });
});
