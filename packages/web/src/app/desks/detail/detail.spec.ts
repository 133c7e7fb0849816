import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import {
  CoreError,
  EMPTY_CONTENT,
  emptyRecordTables,
  type AddedToKit,
  type BuiltChains,
  type MadeCollision,
  type Operation,
  type Piece,
  type ReadPieces,
  type RecordTables,
  type StratumContent,
  takenPieces,
} from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { Compute } from '../../compute/compute';
import { recordsActions, recordsFeature } from '../../document/records/records-store';
import { DocumentRegistry } from '../../document/document-registry';
import { EditLog } from '../../edits/edit-log';
import { Ask } from '../../ui/ask';
import type { Answers, AskData } from '../../ui/ask-dialog';
import { kitFault, nameKit } from './kit-edits';
import { DetailDesk } from './detail-desk';
import { DeletePiece } from './delete-piece';
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
const stratum = (id: string): RecordTables['stratum'][string] => ({ id, name: id, role: 'dressing', owner: null });
const tables: RecordTables = {
  ...emptyRecordTables(),
  collection: { collection: { id: 'collection', name: 'C', ranks: ['Part'] } },
  kit: {
    works: { id: 'works', name: 'Works kit', key: 'works-kit', mesh: 'old' },
    flats: { id: 'flats', name: 'Flats kit', key: 'flats-kit', mesh: 'flat' },
  },
  stratum: { floor: stratum('floor'), dressing: stratum('dressing') },
  piece: {
    crate: piece('crate', { steps: [step, { ...step, triangles: 6, deviationMetres: 0.1 }] }),
    cart: piece('cart'),
  },
};
const placed = { id: 'p', piece: 'crate', position: [0, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] } as const;
/** Steps of a piece whose LODs were built anew. */
const anew = [step, { ...step, triangles: 4, deviationMetres: 0.3 }];
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
  let contents: Record<string, StratumContent>;
  let asked: AskData[];
  let reply: Answers | undefined;
  /** Takes what waits into a kit, the second piece as a new one where it has no like. */
  const takeIn = (kit: string | null, name: string, keepsOrigins = true): Promise<void> => {
    const known = Object.values(tables.piece).filter((one) => one.kit === kit);
    const taken = takenPieces(desk.work.waiting()?.read.pieces ?? [], known, new Map());
    return desk.takeIn({ kit, name, taken, keepsOrigins });
  };
  const changed = () => commits.at(-1)?.operations.map(({ kind, id, field, after }) => [kind, id, field, after]);

  beforeEach(() => {
    commits = [];
    asked = [];
    contents = { floor: EMPTY_CONTENT, dressing: { ...EMPTY_CONTENT, placement: [placed] } };
    runs = [];
    const rebuilt = { glb: new Uint8Array([4]), chains: [{ name: 'crate', steps: anew, missingSteps: 0, why: '' }] };
    answers = {
      'add-to-kit': () => Promise.resolve({ glb: new Uint8Array([2]), collisions: [] } satisfies AddedToKit),
      'remove-piece': () => Promise.resolve(new Uint8Array([3])),
      'build-chains': () => Promise.resolve(rebuilt satisfies BuiltChains),
    };
    TestBed.configureTestingModule({
      providers: [
        DeletePiece,
        DetailDesk,
        {
          provide: DocumentRegistry,
          useValue: { stratum: (id: string) => Promise.resolve({ content: () => contents[id] }) },
        },
        { provide: Ask, useValue: { for: (data: AskData) => Promise.resolve((asked.push(data), reply)) } },
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

  it('takes pieces into a kit in one edit: new ones are made, one of a known name takes its place, and gets as many LODs', async () => {
    answers['read-pieces'] = () => Promise.resolve(read('crate', 'lid'));
    await desk.work.read([{ name: 'a.obj', bytes: new Uint8Array(1) }], 0.01, true);
    expect(runs[0].input).toMatchObject({ unitMetres: 0.01, isZUp: true });
    await takeIn('works', '');
    expect(runs[1]).toMatchObject({
      task: 'add-to-kit',
      input: { kit: new Uint8Array(3), added: new Uint8Array([1]) },
    });
    expect(runs[2]).toMatchObject({
      task: 'build-chains',
      input: { glb: new Uint8Array([2]), names: ['crate'], optionsOf: new Map([['crate', { steps: 1, ratio: 0.5 }]]) },
    });
    expect(runs).toHaveLength(3);
    expect(commits).toHaveLength(1);
    expect(changed()).toEqual([
      ['kit', 'works', 'mesh', 'new'],
      ['piece', 'crate', 'bounds', bounds],
      ['piece', 'crate', 'steps', anew],
      [
        'piece',
        expect.any(String),
        null,
        { id: expect.any(String) as string, kit: 'works', name: 'lid', bounds, steps: [step] },
      ],
    ]);
    expect([desk.work.waiting(), desk.work.done()]).toEqual([undefined, '2 pieces were imported into Works kit.']);
  });

  it('moves a mesh back whose origin has moved, or keeps that it has', async () => {
    const there = { min: [2, 0, 0], max: [3, 1, 1] } as const;
    answers['read-pieces'] = () => Promise.resolve({ ...read(), pieces: [{ name: 'cart', bounds: there, step }] });
    await desk.work.read([{ name: 'a.obj', bytes: new Uint8Array(1) }], 1, false);
    await takeIn('works', '');
    expect(runs.at(-1)?.input['pieces']).toEqual([{ name: 'cart', as: 'cart', move: [-2, -0, -0] }]);
    expect(changed()).toContainEqual(['piece', 'cart', 'bounds', bounds]);
    await desk.work.read([{ name: 'a.obj', bytes: new Uint8Array(1) }], 1, false);
    await takeIn('works', '', false);
    expect(runs.at(-1)?.input['pieces']).toEqual([{ name: 'cart', as: 'cart' }]);
    expect(changed()).toContainEqual(['piece', 'cart', 'movedOrigin', [2, 0, 0]]);
  });

  it('gives pieces a collision in one edit, says where it is of another shape, and writes nothing where all is as it was', async () => {
    const collision = { shape: 'mesh', triangles: 2, vertices: 4, bytes: 72, digest: 'ab' } as const;
    const made = (why: string): MadeCollision[] => [
      { name: 'crate', collision: null, why: '' },
      { name: 'cart', collision, why },
    ];
    answers['set-collisions'] = () => Promise.resolve({ glb: new Uint8Array([5]), collisions: made('is flat') });
    await desk.setCollisions(desk.pieces(), 'hull');
    expect(runs.at(-1)).toEqual({
      task: 'set-collisions',
      input: {
        kit: new Uint8Array(3),
        pieces: [
          { name: 'cart', bounds, shape: 'hull' },
          { name: 'crate', bounds, shape: 'hull' },
        ],
      },
    });
    expect(changed()).toEqual([
      ['piece', 'cart', 'collision', collision],
      ['kit', 'works', 'mesh', 'new'],
    ]);
    expect(desk.work.done()).toBe('Collision of 2 pieces set; cart is flat, so it has Mesh.');
    answers['set-collisions'] = () => Promise.resolve({ glb: new Uint8Array([5]), collisions: made('').slice(0, 1) });
    TestBed.inject(ApiClient).send = () =>
      Promise.resolve({ json: () => Promise.resolve({ name: 'old' }) } as Response);
    await desk.setCollisions([piece('crate')], null);
    expect(commits).toHaveLength(1);
  });

  it('brings the collision along that came with a piece, or that the one had which it replaces', async () => {
    const collision = { shape: 'own', triangles: 2, vertices: 4, bytes: 72, digest: 'ab' } as const;
    const pieces = [{ name: 'lid', bounds, step, collisionTriangles: 2 }];
    answers['read-pieces'] = () => Promise.resolve({ ...read(), pieces });
    answers['add-to-kit'] = () =>
      Promise.resolve({
        glb: new Uint8Array([2]),
        collisions: [{ name: 'lid', collision, why: '' }],
      } satisfies AddedToKit);
    await desk.work.read([{ name: 'a.obj', bytes: new Uint8Array(1) }], 1, false);
    expect(runs.at(-1)?.input).toMatchObject({ collisionPattern: '{name}_collision*' });
    await takeIn('works', '');
    expect(runs.at(-1)?.input['pieces']).toEqual([{ name: 'lid', as: 'lid', collision: 'own' }]);
    expect(changed()?.at(-1)?.[3]).toMatchObject({ name: 'lid', collision });
  });

  it('deletes a kit that has no pieces, and no other', async () => {
    await desk.deleteKit();
    expect(commits).toEqual([]);
    TestBed.inject(Store).dispatch(detailActions.kitChosen({ id: 'flats' }));
    await desk.deleteKit();
    expect(changed()).toEqual([['kit', 'flats', null, null]]);
    expect(desk.state().kit).toBeNull();
  });

  it('asks how collision meshes are named, and keeps a pattern that is sound', async () => {
    reply = { pattern: '{name}-solid' };
    expect(await desk.nameCollisions()).toBe('{name}-solid');
    expect(changed()).toEqual([['collection', 'collection', 'collisionPattern', '{name}-solid']]);
    expect(asked[0].fault?.({ pattern: 'solid' })).toBe(
      'A pattern has {name} once, where the name of the piece stands.',
    );
    reply = { pattern: '{name}_collision*' };
    expect(await desk.nameCollisions()).toBeUndefined();
  });

  it('deletes a piece once it was said what uses it: with its placements, or with another in its place', async () => {
    TestBed.inject(Store).dispatch(detailActions.pieceChosen({ id: 'crate' }));
    reply = undefined;
    await desk.deletePiece();
    expect(commits).toEqual([]);
    expect(asked[0]).toMatchObject({ title: 'Delete crate?', notes: ['dressing: 1 placement'] });
    reply = { other: '' };
    await desk.deletePiece();
    expect(runs.at(-1)).toEqual({ task: 'remove-piece', input: { kit: new Uint8Array(3), name: 'crate' } });
    expect(changed()).toEqual([
      ['placement', 'p', null, null],
      ['piece', 'crate', null, null],
      ['kit', 'works', 'mesh', 'new'],
    ]);
    reply = { other: 'cart' };
    await desk.deletePiece();
    expect(changed()?.[0]).toEqual(['placement', 'p', 'piece', 'cart']);
    contents['dressing'] = EMPTY_CONTENT;
    reply = {};
    await desk.deletePiece();
    expect(asked.at(-1)?.questions).toEqual([]);
    expect(changed()).toHaveLength(2);
  });

  it('makes a new kit when asked, and keeps what waits when something fails', async () => {
    answers['read-pieces'] = () => Promise.resolve(read('lid'));
    await desk.work.read([{ name: 'a.obj', bytes: new Uint8Array(1) }], 1, false);
    answers['add-to-kit'] = () => Promise.reject(new CoreError('GLB_UNREADABLE', 'glb: does not start as a GLB does'));
    await takeIn(null, 'Clay kit');
    expect([desk.work.failure(), desk.work.waiting() !== undefined, commits]).toEqual([
      'glb: does not start as a GLB does',
      true,
      [],
    ]);
    answers['add-to-kit'] = () => Promise.resolve({ glb: new Uint8Array([2]), collisions: [] } satisfies AddedToKit);
    await takeIn(null, 'Clay kit');
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
