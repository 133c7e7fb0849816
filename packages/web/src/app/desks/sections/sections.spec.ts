import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Notices } from '../../ui/notices';
import { provideStore, Store } from '@ngrx/store';
import { emptyRecordTables, type Level, type Operation, type Recipe, type RecordTables } from '@stravel/core';
import { DocumentRegistry } from '../../document/document-registry';
import { LevelSections } from '../../document/level/level-sections';
import { OpenLevel } from '../../document/level/open-level';
import { recordsActions, recordsFeature } from '../../document/records/records-store';
import { StratumDocument } from '../../document/stratum-document';
import { EditLog } from '../../edits/edit-log';
import { SectionsDesk } from './sections-desk';
import { sectionsFeature } from './store/sections-store';

const level = { id: 'cave', name: 'Cave', strata: [{ stratum: 'own', switchedOff: false }] } as unknown as Level;
const tables: RecordTables = {
  ...emptyRecordTables(),
  level: { cave: level },
  stratum: { own: { id: 'own', name: 'Own', role: 'structure', owner: 'cave' } },
};
const recipe = { id: 'r', name: 'Burrow', kind: 'burrow', seed: 'one' } as unknown as Recipe;

describe('the Sections desk', () => {
  let stratum: StratumDocument;
  let commits: { label: string; operations: readonly Operation[] }[];
  let told: string[];
  let previews: unknown[];
  let desk: SectionsDesk;

  beforeEach(() => {
    commits = [];
    told = [];
    previews = [];
    stratum = new StratumDocument('own');
    stratum.tables.recipe.set('r', recipe);
    const version = signal(0);
    TestBed.configureTestingModule({
      providers: [
        SectionsDesk,
        provideStore({
          [recordsFeature.name]: recordsFeature.reducer,
          [sectionsFeature.name]: sectionsFeature.reducer,
        }),
        { provide: OpenLevel, useValue: { level: signal(level), strata: signal([stratum]), isShown: signal(true) } },
        {
          provide: LevelSections,
          useValue: { states: signal(new Map()), preview: (draft: unknown) => previews.push(draft) },
        },
        { provide: DocumentRegistry, useValue: { contentVersion: version } },
        { provide: Notices, useValue: { show: (text: string) => told.push(text) } },
        {
          provide: EditLog,
          useValue: {
            commit: (label: string, operations: Operation[]) => {
              commits.push({ label, operations });
              stratum.apply(operations.filter(({ document }) => document === 'own'));
              version.update((n) => n + 1);
              return Promise.resolve();
            },
          },
        },
      ],
    });
    TestBed.inject(Store).dispatch(recordsActions.loaded({ tables }));
    desk = TestBed.inject(SectionsDesk);
  });
  const pins = () => desk.held()?.pins.map(({ column, row, hidden, offset }) => ({ column, row, hidden, offset }));

  it('pins a wall once, however fast it is moved, and moves it on from where it stands', async () => {
    await Promise.all([desk.moveWall('r.c3r4w2d1', [1, 0, 0]), desk.moveWall('r.c3r4w2d1', [0, 0, 2])]);
    expect(pins()).toEqual([{ column: 3, row: 4, hidden: false, offset: [1, 0, 2] }]);
    const pin = desk.held()?.pins[0];
    expect(desk.state().wall).toBe(pin?.id);
    await desk.hideWall(pin?.id ?? '');
    expect([pins(), desk.state().wall]).toEqual([[{ column: 3, row: 4, hidden: true, offset: [1, 0, 2] }], null]);
  });

  it('pins walls alone, and says so of floor and ceiling', async () => {
    expect(['r.c3r4w2d1', 'r.floor', 'other.c1r1w1d1'].map((id) => desk.canPin(id))).toEqual([true, false, false]);
    await desk.hideWall('r.floor');
    expect([pins(), told]).toEqual([
      [],
      ['Only walls can be pinned, not the floor, the ceiling or the rim behind a pinned wall.'],
    ]);
  });

  it('takes new seed each time, and takes pins along when a burrow is deleted', async () => {
    await desk.reseed();
    expect(desk.held()?.recipe.seed).not.toBe('one');
    await desk.hideWall('r.c1r1w1d1');
    await desk.removeRecipe();
    expect(commits.at(-1)?.operations.map(({ kind, after }) => [kind, after])).toEqual([
      ['pin', null],
      ['recipe', null],
    ]);
    expect(desk.held()).toBeUndefined();
  });

  it('makes a stratum for sections when the level has none, in one edit with the burrow', async () => {
    await desk.add('burrow');
    expect(
      commits
        .at(-1)
        ?.operations.map(({ document, kind, field }) => [document === 'records' ? 'records' : 'stratum', kind, field]),
    ).toEqual([
      ['records', 'stratum', null],
      ['records', 'level', 'strata'],
      ['stratum', 'recipe', null],
    ]);
  });

  it('shows what a number would make without an edit, until it is kept, taken back or the desk is left', async () => {
    desk.try({ field: 'openShare' as keyof Recipe, value: 0.5 });
    expect([commits, previews]).toEqual([[], [{ recipe: 'r', field: 'openShare', value: 0.5 }]]);
    await desk.set('openShare' as keyof Recipe, 0.5);
    expect([commits.length, previews.at(-1)]).toEqual([1, undefined]);
    desk.try({ field: 'openShare' as keyof Recipe, value: 0.6 });
    TestBed.resetTestingModule();
    expect([previews.length, previews.at(-1)]).toEqual([4, undefined]);
  });
});
