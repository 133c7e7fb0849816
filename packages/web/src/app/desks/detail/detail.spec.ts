import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import {
  CoreError,
  emptyRecordTables,
  type BuiltChains,
  type Operation,
  type Piece,
  type ReadPieces,
  type RecordTables,
} from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { Compute } from '../../compute/compute';
import { recordsActions, recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { kitFault, nameKit } from './kit-edits';
import { DetailDesk } from './detail-desk';
import { lodsCsvRows } from './lods-csv';
import { detailActions, detailFeature } from './store/detail-store';

const bounds = { min: [0, 0, 0], max: [1, 1, 1] } as const;
const step = { triangles: 12, vertices: 24, materials: 1, bytes: 900 };
const piece = (id: string, over: Partial<Piece> = {}): Piece => ({
  id,
  kit: 'works',
  name: id,
  bounds,
  steps: [step],
  ...over,
});
const tables: RecordTables = {
  ...emptyRecordTables(),
  collection: { collection: { id: 'collection', name: 'C', ranks: ['Part'] } },
  kit: {
    works: { id: 'works', name: 'Works kit', key: 'works-kit', mesh: 'old' },
    flats: { id: 'flats', name: 'Flats kit', key: 'flats-kit', mesh: 'flat' },
  },
  piece: {
    crate: piece('crate', { steps: [step, { ...step, triangles: 6, deviationMetres: 0.1 }] }),
    cart: piece('cart'),
  },
};
const read = (...names: string[]): ReadPieces => ({
  report: { pieces: [], materials: [], textures: [], faults: [] },
  pieces: names.map((name) => ({ name, bounds, step })),
  glb: new Uint8Array([1]),
});

describe('the Detail desk', () => {
  let commits: { label: string; operations: readonly Operation[] }[];
  let runs: { task: string; input: Record<string, unknown> }[];
  let answers: Record<string, () => Promise<unknown>>;
  let desk: DetailDesk;
  const changed = () => commits.at(-1)?.operations.map(({ kind, id, field, after }) => [kind, id, field, after]);

  beforeEach(() => {
    commits = [];
    runs = [];
    answers = { 'add-to-kit': () => Promise.resolve(new Uint8Array([2])) };
    TestBed.configureTestingModule({
      providers: [
        DetailDesk,
        provideStore({ [recordsFeature.name]: recordsFeature.reducer, [detailFeature.name]: detailFeature.reducer }),
        {
          provide: ApiClient,
          useValue: {
            asset: () => Promise.resolve(new ArrayBuffer(3)),
            send: () => Promise.resolve({ json: () => Promise.resolve({ name: 'new' }) }),
          },
        },
        {
          provide: Compute,
          useValue: {
            run: (task: string, input: Record<string, unknown>) => {
              runs.push({ task, input });
              return { result: answers[task](), cancel: () => undefined };
            },
          },
        },
        {
          provide: EditLog,
          useValue: {
            commit: (label: string, operations: Operation[]) => Promise.resolve(commits.push({ label, operations })),
          },
        },
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(recordsActions.loaded({ tables }));
    store.dispatch(detailActions.kitChosen({ id: 'works' }));
    desk = TestBed.inject(DetailDesk);
  });

  it('takes pieces into a kit in one edit: new ones are made, one of a known name takes its place without its chain', async () => {
    answers['read-pieces'] = () => Promise.resolve(read('crate', 'lid'));
    await desk.work.read([{ name: 'a.obj', bytes: new Uint8Array(1) }], 0.01, true);
    expect(runs[0].input).toMatchObject({ unitMetres: 0.01, isZUp: true });
    await desk.takeIn('works', '');
    expect(runs[1]).toMatchObject({
      task: 'add-to-kit',
      input: { kit: new Uint8Array(3), added: new Uint8Array([1]) },
    });
    expect(commits).toHaveLength(1);
    expect(changed()).toEqual([
      ['kit', 'works', 'mesh', 'new'],
      ['piece', 'crate', 'bounds', bounds],
      ['piece', 'crate', 'steps', [step]],
      [
        'piece',
        expect.any(String),
        null,
        { id: expect.any(String) as string, kit: 'works', name: 'lid', bounds, steps: [step] },
      ],
    ]);
    expect([desk.work.waiting(), desk.work.done()]).toEqual([undefined, '2 pieces were imported into Works kit.']);
  });

  it('makes a new kit when asked, and keeps what waits when something fails', async () => {
    answers['read-pieces'] = () => Promise.resolve(read('lid'));
    await desk.work.read([{ name: 'a.obj', bytes: new Uint8Array(1) }], 1, false);
    answers['add-to-kit'] = () => Promise.reject(new CoreError('GLB_UNREADABLE', 'glb: does not start as a GLB does'));
    await desk.takeIn(null, 'Clay kit');
    expect([desk.work.failure(), desk.work.waiting() !== undefined, commits]).toEqual([
      'glb: does not start as a GLB does',
      true,
      [],
    ]);
    answers['add-to-kit'] = () => Promise.resolve(new Uint8Array([2]));
    await desk.takeIn(null, 'Clay kit');
    expect(changed()?.[0]).toEqual([
      'kit',
      expect.any(String),
      null,
      { id: expect.any(String) as string, name: 'Clay kit', key: 'clay-kit', mesh: 'new' },
    ]);
    expect(runs.at(-1)?.input).toMatchObject({ kit: null });
  });

  it('builds chains in one edit, says which fell short, and commits nothing when it was cancelled', async () => {
    const steps = [step, { ...step, triangles: 5, deviationMetres: 0.2 }];
    answers['build-chains'] = () =>
      Promise.resolve({
        glb: new Uint8Array(),
        chains: [
          { name: 'cart', steps, missingSteps: 4, why: 'its coarsest LOD has 5 triangles, too few to reduce further' },
        ],
      } satisfies BuiltChains);
    await desk.buildChains([piece('cart')], { steps: 5, ratio: 0.5 });
    expect(changed()).toEqual([
      ['kit', 'works', 'mesh', 'new'],
      ['piece', 'cart', 'steps', steps],
    ]);
    expect(desk.work.done()).toBe(
      'LODs of 1 piece built; cart can’t get all 5 LODs: its coarsest LOD has 5 triangles, too few to reduce further.',
    );
    answers['build-chains'] = () => Promise.reject(new CoreError('CANCELLED', 'cancelled'));
    await desk.buildChains([piece('cart')], { steps: 5, ratio: 0.5 });
    expect([commits.length, desk.work.failure(), desk.work.progress()]).toEqual([1, '', undefined]);
  });

  it('knows a piece’s kit, and keeps the picture with the collection', async () => {
    expect([desk.kitOf('cart'), desk.kitOf('gone')]).toEqual(['works', undefined]);
    expect(desk.pieces().map(({ name }) => name)).toEqual(['cart', 'crate']);
    await desk.setView('errorPixels', 2);
    expect(changed()).toEqual([
      ['collection', 'collection', 'view', { fieldOfViewDegrees: 60, pictureHeightPixels: 1080, errorPixels: 2 }],
    ]);
  });

  it('refuses a key for a kit that is unsound or taken, and writes only what changed', () => {
    const tables = {
      level: {},
      kit: {
        works: { id: 'works', name: 'Works kit', key: 'works-kit', mesh: 'm' },
        flats: { id: 'flats', name: 'Flats kit', key: 'flats-kit', mesh: 'n' },
      },
    };
    const fault = (name: string, key: string) => kitFault(tables, tables.kit.works, name, key);
    expect(fault('', 'works-kit')).toBe('A kit needs a name.');
    expect(fault('x'.repeat(201), 'works-kit')).toMatch(/at most 200 characters; this one has 201/);
    expect(fault('Works', 'Works')).toMatch(/^The key must be small letters/);
    expect(fault('Works', 'flats-kit')).toBe('The key flats-kit is taken by another level or kit.');
    expect(fault('Works', 'works-kit')).toBe('');
    expect(nameKit(tables.kit.works, 'Works', 'works').map(({ field, after }) => [field, after])).toEqual([
      ['name', 'Works'],
      ['key', 'works'],
    ]);
    expect(nameKit(tables.kit.works, 'Works kit', 'works-kit')).toEqual([]);
  });
});

describe('LODs as a file', () => {
  it('are a row each, with the distance that the table shows; an error that nobody measured stays empty', () => {
    const coarse = { triangles: 6, vertices: 12, materials: 1, bytes: 450 };
    const view = { fieldOfViewDegrees: 90, pictureHeightPixels: 1000, errorPixels: 1 };
    const [head, ...rows] = lodsCsvRows(
      [piece('a', { steps: [step, { ...coarse, deviationMetres: 0.02 }] }), piece('b', { steps: [step, coarse] })],
      view,
    );
    expect(head).toHaveLength(8);
    expect(rows[0]).toEqual(['a', 'full', '12', '24', '1', '900', '0', '0']);
    // At 90 degrees one metre at one metre is 500 pixels high: 2 cm are one pixel at 10 m.
    expect(rows[1].slice(0, 7)).toEqual(['a', '1', '6', '12', '1', '450', '0.02']);
    expect(Number(rows[1][7])).toBeCloseTo(10, 9);
    expect(rows[3].slice(0, 7)).toEqual(['b', '1', '6', '12', '1', '450', '']);
  });
});
