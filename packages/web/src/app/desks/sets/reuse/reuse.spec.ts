import {
  EMPTY_CONTENT,
  emptyRecordTables,
  levelsInOrder,
  type Level,
  type RecordTables,
  type StratumContent,
} from '@stravel/core';
import { applyToTables } from '../../../document/records/records-store';
import { reuseLevels, sharingText, strataOf, usualChoices, type StratumChoice } from './reuse-levels';

const level = (id: string, order: string, strata: readonly string[]): Level => ({
  id,
  name: id,
  key: id,
  set: 's',
  order,
  purpose: 'play',
  code: id,
  values: { mood: 'ember' },
  strata: strata.map((stratum) => ({ stratum, switchedOff: stratum === 'lamps' })),
  openSky: true,
  bounds: null,
  binned: null,
});
const tables: RecordTables = {
  ...emptyRecordTables(),
  set: {
    s: { id: 's', name: 'S', parent: null, order: 'a0', binned: null },
    t: { id: 't', name: 'T', parent: null, order: 'a1', binned: null },
  },
  level: { yard: level('yard', 'a0', ['base', 'own', 'lamps']), hall: level('hall', 'a1', ['base']) },
  stratum: {
    base: { id: 'base', name: 'Base', role: 'base', owner: null },
    own: { id: 'own', name: 'Own', role: 'structure', owner: 'yard' },
    lamps: { id: 'lamps', name: 'Lamps', role: 'light', owner: 'yard' },
  },
};
const content: StratumContent = {
  ...EMPTY_CONTENT,
  marker: [{ id: 'm', kind: 'exit', position: [1, 2, 3], turn: 0 }],
  recipe: [{ id: 'r' } as never],
  pin: [{ id: 'p', recipe: 'r' } as never],
};
const reuse = (choices: Record<string, StratumChoice>, set?: string) =>
  reuseLevels(
    tables,
    [tables.level['yard']],
    { choices: new Map(Object.entries(choices)), nameOf: ({ name }) => `${name} again`, set },
    () => content,
  );

describe('using a level again', () => {
  it('shares what is shared and copies what is owned, unless one chooses otherwise', () => {
    expect([...usualChoices(strataOf(tables, [tables.level['yard']]))]).toEqual([
      ['base', 'share'],
      ['own', 'copy'],
      ['lamps', 'copy'],
    ]);
  });

  it('copies with content under ids of its own, keeps switches, and has no code', () => {
    const { copies, operations } = reuse({ base: 'share', own: 'copy', lamps: 'leave out' });
    const [copy] = copies;
    expect([copy.name, copy.code, copy.strata.length, copy.strata[0].stratum]).toEqual(['yard again', '', 2, 'base']);
    const made = copy.strata[1].stratum;
    const items = operations.filter(({ document }) => document === made);
    expect(items.map(({ kind }) => kind)).toEqual(['marker', 'recipe', 'pin']);
    // A pin holds on to the copy of its recipe.
    expect((items[2].after as { recipe: string }).recipe).toBe(items[1].id);
    expect(items.some(({ id }) => ['m', 'r', 'p'].includes(id))).toBe(false);
    const after = applyToTables(tables, operations);
    expect(levelsInOrder(after).map(({ name }) => name)).toEqual(['yard', 'yard again', 'hall']);
    expect([after.stratum[made].owner, after.stratum['own'].owner]).toEqual([copy.id, 'yard']);
  });

  it('lets go of the owner of what two levels share from now on, and says who shares it', () => {
    const choices = { base: 'leave out', own: 'share', lamps: 'share' } as const;
    const { copies, operations } = reuse(choices, 't');
    const after = applyToTables(tables, operations);
    expect([after.stratum['own'].owner, after.level[copies[0].id].set]).toEqual([null, 't']);
    expect(copies[0].strata.map(({ stratum, switchedOff }) => [stratum, switchedOff])).toEqual([
      ['own', false],
      ['lamps', true],
    ]);
    expect(
      sharingText(
        strataOf(tables, [tables.level['yard']]),
        new Map(Object.entries(choices)),
        (name) => `${name} again`,
      ),
    ).toEqual([
      'Own: yard, yard again; no level owns it alone any more',
      'Lamps: yard, yard again; no level owns it alone any more',
    ]);
  });
});
