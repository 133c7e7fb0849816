import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { emptyRecordTables, type Field, type Level, type Operation, type RecordTables } from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { recordsActions, recordsFeature } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { LevelPicture } from '../../plate/level-picture';
import { PictureMaker } from './picture-maker';

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
  level: { a: level('a'), b: level('b'), c: level('c') },
};

describe('pictures of levels', () => {
  let commits: { label: string; operations: readonly Operation[] }[];
  let disposed: number;
  let drawn: (id: string) => Promise<Blob>;
  let maker: PictureMaker;

  beforeEach(() => {
    commits = [];
    disposed = 0;
    drawn = (id) => Promise.resolve(new Blob([id]));
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [recordsFeature.name]: recordsFeature.reducer }),
        { provide: ApiClient, useValue: { putPicture: (file: Blob) => Promise.resolve(`asset-${file.size}`) } },
        {
          provide: LevelPicture,
          useValue: {
            studio: () => ({ dispose: () => disposed++ }),
            make: (_studio: unknown, id: string) => drawn(id),
          },
        },
        {
          provide: EditLog,
          useValue: {
            commit: (label: string, operations: readonly Operation[]) =>
              Promise.resolve(commits.push({ label, operations })),
          },
        },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
    maker = TestBed.inject(PictureMaker);
  });
  const told = () =>
    commits.map(({ label, operations }) => [
      label,
      operations.map(({ kind, id, field }) => `${kind} ${kind === 'field' ? '' : id} ${field ?? 'new'}`),
    ]);

  it('are kept as one edit, with a field made for the first of them', async () => {
    await maker.make([tables.level['a'], tables.level['b']], 'plan');
    expect(told()).toEqual([
      ['picture of 2 levels from the plan', ['field  new', 'level a values.picture', 'level b values.picture']],
    ]);
    expect([disposed, maker.progress()]).toEqual([1, undefined]);
  });

  it('go into the field that is there', async () => {
    const field: Field = { id: 'p', key: 'shot', name: 'Shot', type: 'picture', choices: [], order: 'a' };
    TestBed.inject(Store).dispatch(
      recordsActions.loaded({
        tables: { ...tables, field: { list: { ...field, id: 'list', key: 'list', list: true, order: '0' }, p: field } },
      }),
    );
    await maker.make([tables.level['a']], 'model');
    expect(told()).toEqual([['picture of A from the model', ['level a values.shot']]]);
  });

  it('that cannot be made say why, and the others are kept', async () => {
    drawn = (id) =>
      id === 'b' ? Promise.reject(new Error('there is nothing in it to be seen')) : Promise.resolve(new Blob([id]));
    await maker.make(Object.values(tables.level), 'model');
    expect(maker.failures()).toEqual(['B: there is nothing in it to be seen']);
    expect(told()[0][1]).toEqual(['field  new', 'level a values.picture', 'level c values.picture']);
  });

  it('say so where nothing can be drawn at all', async () => {
    jest.spyOn(TestBed.inject(LevelPicture), 'studio').mockImplementation(() => {
      throw new Error('no WebGL');
    });
    await maker.make([tables.level['a']], 'plan');
    expect([maker.failures(), maker.progress(), commits]).toEqual([
      ['any level: this browser cannot draw it. no WebGL'],
      undefined,
      [],
    ]);
  });

  it('stop when cancelled; those that were made stay', async () => {
    drawn = (id) => {
      if (id === 'b') maker.cancel();
      return Promise.resolve(new Blob([id]));
    };
    await maker.make(Object.values(tables.level), 'plan');
    expect(told()[0]).toEqual([
      'picture of 2 levels from the plan',
      ['field  new', 'level a values.picture', 'level b values.picture'],
    ]);
    expect(disposed).toBe(1);
  });
});
