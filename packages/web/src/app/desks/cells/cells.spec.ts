import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import {
  CoreError,
  emptyRecordTables,
  type Device,
  type Level,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { Bakes } from '../../bakes/bakes';
import { KitLoads } from '../../bakes/kit-loads';
import { Compute } from '../../compute/compute';
import { DocumentRegistry } from '../../document/document-registry';
import { LevelSections } from '../../document/level/level-sections';
import { OpenLevel } from '../../document/level/open-level';
import { recordsActions, recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { Session } from '../../session';
import { CellsDesk } from './cells-desk';
import { measureOf } from './cells-drawing';
import { cellsActions, cellsFeature } from './store/cells-store';
import { WaitingPath, readWaitingPath } from './waiting-path';

const level = {
  id: 'flat',
  name: 'Flat',
  set: 's',
  strata: [{ stratum: 'own', switchedOff: false }],
} as unknown as Level;
const device = { id: 'd', name: 'Handheld', budget: { memoryBytes: 1 } } as unknown as Device;
const tables: RecordTables = {
  ...emptyRecordTables(),
  level: { flat: level },
  device: { d: device },
  cellGrid: {
    flat: { id: 'flat', sizeMetres: 50, origin: [0, 0], loadMetres: 20, dropMetres: 40, readyMetres: 5, resident: [] },
  },
  rehearsal: {
    w: {
      id: 'w',
      level: 'flat',
      name: 'Along',
      knots: [
        [0, 0],
        [9, 0],
      ],
      floorMetres: 0,
      speedMetresPerSecond: 4,
      device: 'd',
    },
  },
};

describe('the Cells desk', () => {
  const chosenDevice = signal<Device | undefined>(device);
  let commits: { label: string; operations: readonly Operation[] }[];
  let answer: () => Promise<unknown>;
  let posted: string[];
  let desk: CellsDesk;
  let walked: unknown[];
  const kits = { works: { id: 'works', mesh: 'abc' }, flats: { id: 'flats', mesh: 'abcd' } };
  const deck = { id: 'deck', kit: 'works', collision: { shape: 'box' } };
  const pieces = { deck, post: { id: 'post', kit: 'flats' } };
  const changes = () => commits.at(-1)?.operations.map(({ field, after }) => [field, after]);

  beforeEach(() => {
    localStorage.clear();
    chosenDevice.set(device);
    commits = [];
    posted = [];
    walked = [];
    answer = () => Promise.resolve({ key: 'walked', result: { late: [], gaps: [] } });
    TestBed.configureTestingModule({
      providers: [
        CellsDesk,
        WaitingPath,
        provideStore({ [recordsFeature.name]: recordsFeature.reducer, [cellsFeature.name]: cellsFeature.reducer }),
        {
          provide: ApiClient,
          useValue: {
            json: (url: string) => Promise.resolve(posted.push(url)),
            asset: (name: string) => Promise.resolve(new ArrayBuffer(name.length)),
          },
        },
        {
          provide: Bakes,
          useValue: {
            byLevel: signal({}),
            scene: () => Promise.resolve({ scene: { pieces, kits } }),
            make: (scene: unknown) => {
              walked.push(scene);
              return { result: answer(), cancel: () => undefined };
            },
            refresh: () => Promise.resolve(),
          },
        },
        {
          provide: Compute,
          useValue: {
            run: (task: string, input: unknown) => ({
              result: Promise.resolve({ deck: { task, input } }),
              cancel: () => undefined,
            }),
          },
        },
        { provide: DocumentRegistry, useValue: { contentVersion: signal(0) } },
        { provide: LevelSections, useValue: {} },
        { provide: OpenLevel, useValue: { level: signal(level), isLoading: signal(true) } },
        { provide: KitLoads, useValue: { of: () => Promise.resolve({}) } },
        { provide: Session, useValue: { collection: signal({ id: 'c' }), device: chosenDevice } },
        {
          provide: EditLog,
          useValue: {
            settled: () => Promise.resolve(),
            commit: (label: string, operations: Operation[]) => Promise.resolve(commits.push({ label, operations })),
          },
        },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
    desk = TestBed.inject(CellsDesk);
  });

  it('keeps what volumes load where cells get another size, in one edit, and refuses a size that would make too many', async () => {
    const ruled = { ...tables.cellGrid['flat'], volumeRules: [{ volume: 'v', cells: ['1,0'] }] };
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables: { ...tables, cellGrid: { flat: ruled } } }));
    await desk.setGrid({ sizeMetres: 100 });
    expect(changes()).toEqual([
      ['sizeMetres', 100],
      ['volumeRules', [{ volume: 'v', cells: ['0,0'] }]],
    ]);
    await desk.setGrid({ sizeMetres: 0.5 });
    expect(commits).toHaveLength(1);
    expect(desk.failure()).toContain('would load more than 4096 cells');
    await desk.setGrid({ sizeMetres: 50 });
    expect([commits.length, desk.failure()]).toEqual([1, '']);
  });

  it('keeps the load rule whichever of its numbers is set: there by ≤ load ≤ drop', async () => {
    await desk.setGrid({ loadMetres: 60 });
    expect(changes()).toEqual([
      ['loadMetres', 60],
      ['dropMetres', 60],
    ]);
    await desk.setGrid({ dropMetres: 3 });
    expect(changes()).toEqual([
      ['loadMetres', 3],
      ['dropMetres', 3],
      ['readyMetres', 3],
    ]);
    await desk.setGrid({ readyMetres: 50 });
    expect(changes()).toEqual([
      ['loadMetres', 50],
      ['dropMetres', 50],
      ['readyMetres', 50],
    ]);
    const before = commits.length;
    await desk.setGrid({ loadMetres: 20 });
    expect(commits).toHaveLength(before);
    await desk.toggleResident('own');
    expect(changes()).toEqual([['resident', ['own']]]);
  });

  it('walks in the worker, shows what it found, and has the server keep it', async () => {
    await desk.rehearse();
    expect(desk.result()).toEqual({ late: [], gaps: [] });
    // The collisions of one kit are brought, the other has none.
    const asked = { task: 'kit-floors', input: { glb: new Uint8Array(3), pieces: [deck] } };
    expect(walked).toEqual([{ scene: { pieces, kits, floors: { deck: asked } } }]);
    await new Promise((resolve) => setTimeout(resolve));
    expect(posted).toEqual(['/api/collections/c/bakes/rehearsal/w']);
    answer = () => Promise.reject(new CoreError('REHEARSAL_PATH', 'rehearsal: the path has no length'));
    await desk.rehearse();
    expect(desk.failure()).toBe('rehearsal: the path has no length');
    answer = () => Promise.reject(new CoreError('CANCELLED', 'cancelled'));
    await desk.rehearse();
    expect([desk.failure(), desk.progress()]).toEqual(['', undefined]);
  });

  it('says when the device of a walk is gone', async () => {
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables: { ...tables, device: {} } }));
    await desk.rehearse();
    expect([desk.failure(), posted]).toEqual(['The device of Along was deleted. Choose another.', []]);
  });

  it('gives the walk in hand another path, or makes a first walk', async () => {
    await desk.keepPath(
      [
        [1, 1],
        [2, 2],
      ],
      0.5,
    );
    expect(changes()).toEqual([
      [
        'knots',
        [
          [1, 1],
          [2, 2],
        ],
      ],
      ['floorMetres', 0.5],
    ]);
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables: { ...tables, rehearsal: {} } }));
    await desk.keepPath(
      [
        [1, 1],
        [2, 2],
      ],
      0,
    );
    expect(commits.at(-1)).toMatchObject({
      label: 'add a walk',
      operations: [
        {
          kind: 'rehearsal',
          after: {
            level: 'flat',
            knots: [
              [1, 1],
              [2, 2],
            ],
            device: 'd',
          },
        },
      ],
    });
  });

  it('keeps a path that was drawn without a device, until there is one', async () => {
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables: { ...tables, rehearsal: {} } }));
    chosenDevice.set(undefined);
    const knots = [
      [1, 1],
      [2, 2],
    ] as const;
    await desk.keepPath(knots, 0.5);
    TestBed.tick();
    expect([commits, desk.failure()]).toEqual([[], expect.stringContaining('The path is kept')]);
    chosenDevice.set(device);
    TestBed.tick();
    await Promise.resolve();
    expect(commits).toMatchObject([
      { label: 'add a walk', operations: [{ after: { level: 'flat', knots, floorMetres: 0.5, device: 'd' } }] },
    ]);
    TestBed.tick();
    expect(commits).toHaveLength(1);
    for (const text of [null, '', '{', '{}', '{"level":"a","knots":[[1]],"floorMetres":0}', 'null'])
      expect(readWaitingPath(text)).toBeUndefined();
  });

  it('tells cells by bytes, triangles or things, and lets go of the old level’s', () => {
    const cell = { memoryBytes: 7, triangles: 5, blocks: 1, placements: 2 };
    expect([measureOf(cell, 'bytes'), measureOf(cell, 'triangles'), measureOf(cell, 'objects')]).toEqual([7, 5, 3]);
    const store = TestBed.inject(Store);
    store.dispatch(cellsActions.cellChosen({ cell: '1,2' }));
    store.dispatch(cellsActions.levelOpened());
    expect(desk.state().cell).toBeNull();
  });
});
