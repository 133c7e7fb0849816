import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { provideStore, Store } from '@ngrx/store';
import {
  CoreError,
  boxPlanes,
  emptyRecordTables,
  type BakeKind,
  type Block,
  type Device,
  type RecordTables,
} from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { ProblemError } from '../api/problem-error';
import { Compute, type RunOptions } from '../compute/compute';
import { DocumentRegistry } from '../document/document-registry';
import { recordsActions, recordsFeature } from '../document/records/records-store';
import { StratumDocument } from '../document/stratum-document';
import { EditLog } from '../edits/edit-log';
import { Session } from '../session';
import { Bakes } from './bakes';
import {
  bakesActions,
  bakesFeature,
  isToBeOpened,
  levelBakesOf,
  stateOfOpen,
  type BakeState,
  type LevelBakes,
} from './bakes-store';

const block = (i: number): Block => ({
  id: `b${i}`,
  name: '',
  position: [i * 3, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([1, 1, 1]),
  sight: 'hides',
  material: 'brick',
});
const tables: RecordTables = {
  ...emptyRecordTables(),
  level: {
    hall: {
      id: 'hall',
      name: 'Hall',
      set: 's',
      order: 'a0',
      purpose: 'play',
      key: 'level',
      code: '',
      values: { note: 'not of the bake' },
      strata: [{ stratum: 'own', switchedOff: false }],
      openSky: true,
      bounds: null,
      binned: null,
    },
  },
  stratum: { own: { id: 'own', name: 'Own', role: 'structure', owner: 'hall' } },
};
const device = {
  id: 'd',
  name: 'Handheld',
  budget: { triangles: 100, drawCalls: 10, memoryBytes: 1000, loadMs: 1000, diskBytes: 1000 },
  framesPerSecond: 30,
} as unknown as Device;
const figures = (triangles: number) => ({
  strata: [],
  worst: [{ triangles, middle: [0, 0, 0] }],
  worstDrawCalls: { drawCalls: 1, middle: [0, 0, 0] },
  memoryBytes: 10,
  diskBytes: 5,
  files: 1,
  findings: [],
});

describe('bakes of the page', () => {
  let document: StratumDocument;
  let runs: string[];
  let answers: Record<string, () => Promise<unknown>>;
  let sent: { url: string; key: string }[];
  let keyed: (url: string) => Promise<{ key: string; value: unknown }>;
  let bakes: Bakes;
  const settled = jest.fn(() => Promise.resolve());

  beforeEach(() => {
    runs = [];
    sent = [];
    keyed = () => Promise.reject(new ProblemError(404, 'BAKE_MISSING', 'none yet'));
    document = new StratumDocument('own');
    document.apply(
      [0, 1].map((i) => ({
        document: 'own',
        kind: 'block',
        id: `b${i}`,
        field: null,
        before: null,
        after: block(i) as never,
      })),
    );
    answers = {
      sight: () => Promise.resolve({ key: 'sight-key', result: { pockets: [] } }),
      figures: () => Promise.resolve({ key: 'figures-key', result: { pocketTriangles: [] } }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [recordsFeature.name]: recordsFeature.reducer, [bakesFeature.name]: bakesFeature.reducer }),
        {
          provide: ApiClient,
          useValue: {
            keyed: (url: string) => keyed(url),
            json: (url: string) =>
              url.includes('/bakes/')
                ? Promise.reject(new ProblemError(404, 'BAKE_MISSING', 'none yet'))
                : Promise.resolve({ levels: [] }),
            send: (url: string, options: { headers: Record<string, string> }) =>
              Promise.resolve(sent.push({ url, key: options.headers['Stravel-Key'] })),
          },
        },
        {
          provide: Compute,
          useValue: {
            run: (
              _task: string,
              { ref }: { readonly ref: { readonly kind: string } },
              { onProgress, onKey }: RunOptions,
            ) => {
              runs.push(ref.kind);
              onProgress?.(0.5, 'half');
              onKey?.({ kind: ref.kind, subject: 'hall' }, `${ref.kind}-key`);
              let cancel: () => void = () => undefined;
              const cancelled = new Promise((_resolve, reject) => {
                cancel = () => reject(new CoreError('CANCELLED', 'bake: cancelled on request'));
              });
              return { result: Promise.race([answers[ref.kind](), cancelled]), cancel };
            },
            release: () => undefined,
          },
        },
        { provide: DocumentRegistry, useValue: { stratum: () => Promise.resolve(document) } },
        { provide: EditLog, useValue: { bakesChanged: signal(0), saveState: signal({ state: 'saved' }), settled } },
        { provide: Session, useValue: { collection: signal({ id: 'c', name: 'C' }), device: signal(device) } },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
    bakes = TestBed.inject(Bakes);
  });

  it('run sight, then figures, and have the server make it by its key after all edits are saved', async () => {
    const opened = await bakes.bake('hall');
    expect(opened?.level).toBe('hall');
    expect(runs).toEqual(['sight', 'figures']);
    await new Promise((resolve) => setTimeout(resolve));
    expect(settled).toHaveBeenCalled();
    expect(sent).toEqual([{ url: '/api/collections/c/bakes/sight/hall', key: 'sight-key' }]);
    expect([bakes.progress(), bakes.failure()]).toEqual([undefined, '']);
  });

  describe('while the server makes the same', () => {
    /** The list as it comes once the server has a sight of the hall. */
    const told = async (key: string): Promise<void> => {
      await settle();
      const bake = { kind: 'sight', subject: 'hall', state: 'fresh', key, current: key, summary: null } as const;
      const level = levelBakesOf({ level: 'hall', count: null, bakes: [bake] });
      TestBed.inject(Store).dispatch(bakesActions.loaded({ levels: [level] }));
      TestBed.tick();
    };
    const settle = () => new Promise((resolve) => setTimeout(resolve));
    const never = () => new Promise<never>(() => undefined);

    it('stop when it has it by its key, and open that', async () => {
      answers['sight'] = never;
      keyed = (url) =>
        Promise.resolve(
          url.includes('/sight/')
            ? { key: 'sight-key', value: { pockets: [] } }
            : { key: 'figures-key', value: { pocketTriangles: [] } },
        );
      const baked = bakes.bake('hall');
      await told('another-key');
      expect(bakes.progress()).toBeDefined();
      await told('sight-key');
      expect(await baked).toMatchObject({ keys: { sight: 'sight-key', figures: 'figures-key' } });
      expect([runs, sent, bakes.progress(), bakes.failure()]).toEqual([['sight'], [], undefined, '']);
    });

    it('are made after all where its figures are not there yet', async () => {
      const answer = answers['sight'];
      answers['sight'] = never;
      const baked = bakes.bake('hall');
      await settle();
      answers['sight'] = answer;
      await told('sight-key');
      expect(await baked).toMatchObject({ keys: { sight: 'sight-key', figures: 'figures-key' } });
      expect(runs).toEqual(['sight', 'sight', 'figures']);
    });

    it('are cancelled by the person all the same', async () => {
      answers['sight'] = never;
      const baked = bakes.bake('hall');
      await settle();
      bakes.cancel();
      expect([await baked, runs, bakes.failure()]).toEqual([undefined, ['sight'], '']);
    });
  });

  it('say why they failed, and say nothing when they were cancelled', async () => {
    answers['sight'] = () => Promise.reject(new CoreError('SIGHT_NOTHING', 'sight: the level has no block'));
    expect(await bakes.bake('hall')).toBeUndefined();
    expect(bakes.failure()).toBe('sight: the level has no block');
    answers['sight'] = () => Promise.reject(new CoreError('CANCELLED', 'bake-sight: cancelled on request'));
    expect(await bakes.bake('hall')).toBeUndefined();
    expect([bakes.failure(), bakes.progress()]).toEqual(['', undefined]);
  });

  it('refuse more blocks than the bake takes before the worker is asked', async () => {
    const many = new StratumDocument('own');
    for (let i = 0; i <= 20000; i++) many.tables.block.set(`b${i}`, block(i));
    document = many;
    expect(await bakes.bake('hall')).toBeUndefined();
    expect(bakes.failure()).toMatch(/at most 20000 blocks that block view, the level has 20001/);
    expect(runs).toEqual([]);
  });

  it('leave out what no bake reads', async () => {
    expect((await bakes.stored('hall')).held.level.values).toEqual({});
  });

  it('are none while the server has none', async () => {
    expect(await bakes.open('hall')).toBeUndefined();
  });

  it('hold every level against the device and find what is over', () => {
    const none = { files: 0, memoryBytes: 0, diskBytes: 0 };
    const sections = [
      {
        id: 'S:r',
        code: 'S',
        desk: 'sections',
        severity: 'warning',
        subject: 'r',
        place: {},
        message: 's',
        why: '',
        fixes: [],
      },
    ];
    const of = (triangles: number, state: 'fresh' | 'stale' = 'stale'): LevelBakes =>
      ({
        level: 'hall',
        count: {
          bound: { triangles: 1e9, drawCalls: 1e9 },
          load: { files: 1, memoryBytes: 1, diskBytes: 1, isCut: false, kits: none, own: none, strata: [] },
          findings: sections,
        },
        sight: {
          state: 'fresh',
          summary: {
            closed: true,
            wayOut: null,
            findings: [
              {
                id: 'X:b',
                code: 'X',
                desk: 'sight',
                severity: 'error',
                subject: 'b',
                place: {},
                message: 'm',
                why: '',
                fixes: [],
              },
            ],
          },
        },
        figures: {
          state,
          summary: {
            ...figures(triangles),
            findings: sections,
          },
        },
        rehearsals: [
          {
            rehearsal: 'w',
            state: 'fresh',
            summary: {
              late: 1,
              findings: [
                {
                  id: 'L:w',
                  code: 'L',
                  desk: 'cells',
                  severity: 'warning',
                  subject: 'w',
                  place: {},
                  message: 'l',
                  why: '',
                  fixes: [],
                },
              ],
            },
          },
        ],
      }) as unknown as LevelBakes;
    const store = TestBed.inject(Store);
    store.dispatch(bakesActions.loaded({ levels: [of(99, 'fresh')] }));
    expect([bakes.overCount(), bakes.undecidedCount(), bakes.staleCount()]).toEqual([0, 0, 0]);
    store.dispatch(bakesActions.loaded({ levels: [of(150)] }));
    // Its figures rest on something older: that it is over is not known, and no finding.
    expect([bakes.overCount(), bakes.undecidedCount(), bakes.findings().length]).toEqual([0, 1, 3]);
    store.dispatch(bakesActions.loaded({ levels: [of(150, 'fresh')] }));
    expect([bakes.overCount(), bakes.undecidedCount()]).toEqual([1, 0]);
    expect(bakes.findings().map(({ id, place, message }) => [id, place.level, message])).toEqual([
      ['X:b@hall', 'hall', 'Hall: m'],
      ['S:r@hall', 'hall', 'Hall: s'],
      ['L:w@hall', 'hall', 'Hall: l'],
      ['OVER_TRIANGLES:hall.d', 'hall', 'Hall draws 150 triangles from its worst pocket, Handheld allows 100'],
    ]);
  });
});

describe('bakes as they come', () => {
  it('are told by their kinds, what has none yet as never baked', () => {
    const bake = (kind: BakeKind, subject: string) => {
      return { kind, subject, state: 'fresh', key: 'k', current: 'k', summary: null } as const;
    };
    const bakes = [bake('section', 'own~r'), bake('figures', 'hall'), bake('rehearsal', 'w')];
    expect(levelBakesOf({ level: 'hall', count: null, bakes })).toMatchObject({
      level: 'hall',
      sight: { state: 'none', current: null },
      figures: { state: 'fresh', key: 'k' },
      rehearsals: [{ rehearsal: 'w', state: 'fresh' }],
    });
  });
});

describe('what is open of a bake', () => {
  const listed = (state: BakeState, key: string | null, current: string | null) => ({
    state,
    key,
    current,
    summary: null,
  });

  it('is fresh by its key alone, whatever a job or another page has kept since', () => {
    expect(stateOfOpen(undefined, undefined)).toBe('none');
    expect(stateOfOpen(listed('stale', 'a', 'b'), undefined)).toBe('stale');
    // A job baked b; this page still shows a.
    expect(stateOfOpen(listed('fresh', 'b', 'b'), 'a')).toBe('stale');
    expect(stateOfOpen(listed('fresh', 'b', 'b'), 'b')).toBe('fresh');
    // This page has baked b, which is not kept yet.
    expect(stateOfOpen(listed('stale', 'a', 'b'), 'b')).toBe('fresh');
    expect(stateOfOpen(listed('none', null, null), 'b')).toBe('stale');
    // What it rests on is not made yet, so that its key is not known.
    expect(stateOfOpen(listed('unknown', 'a', null), 'a')).toBe('unknown');
  });

  it('gives way to what was baked of the level current, and to nothing else', () => {
    expect(isToBeOpened(undefined, undefined)).toBe(false);
    expect(isToBeOpened(listed('none', null, 'b'), undefined)).toBe(false);
    expect(isToBeOpened(listed('stale', 'a', 'b'), undefined)).toBe(true);
    expect(isToBeOpened(listed('fresh', 'b', 'b'), 'a')).toBe(true);
    expect(isToBeOpened(listed('fresh', 'b', 'b'), 'b')).toBe(false);
    expect(isToBeOpened(listed('stale', 'a', 'b'), 'b')).toBe(false);
  });
});
