import { plainLevel } from '../../../core/src/testing/plain-level';
import { PackedLevels, type PackedLevel } from './packed-levels';

const level = { ...plainLevel({ name: 'Yard' }), id: 'yard', strata: [{ stratum: 'own', switchedOff: false }] };
const strata = {
  own: { id: 'own', name: 'Own', role: 'base', owner: 'yard', assemblies: ['gate'] } as const,
  gate: { id: 'gate', name: 'Gate', role: 'base', owner: null } as const,
  other: { id: 'other', name: 'Other', role: 'base', owner: 'hall' } as const,
};
const packed = (edit: number): PackedLevel => ({ edit, files: [], kits: [] });
const operation = { before: null, after: null };
const records = (kind: 'level' | 'set' | 'piece', id: string, field: string | null) =>
  ({ ...operation, document: 'records', kind, id, field }) as const;
const content = (document: string) => ({ ...operation, document, kind: 'block', id: 'b', field: null }) as const;

describe('the levels that were packed before', () => {
  it.each([
    ['an edit of its own stratum', content('own'), false],
    ['one of an assembly in it', content('gate'), false],
    ['one of another stratum', content('other'), true],
    ['its own name', records('level', 'yard', 'name'), false],
    ['the name of another level', records('level', 'hall', 'name'), true],
    ['the place of another level, as numbers follow from it', records('level', 'hall', 'order'), false],
    ['another level that is added or deleted', records('level', 'hall', null), false],
    ['the name of a set', records('set', 'works', 'name'), false],
    ['a piece', records('piece', 'post', 'bounds'), false],
  ] as const)('are the same after %s, or not', (_what, changed, isSame) => {
    const levels = new PackedLevels();
    levels.afterEdit('small', { sequence: 8, operations: [changed] });
    expect(levels.isSame('small', level, strata, packed(7))).toBe(isSame);
    // What was packed with the edit in it has it.
    expect(levels.isSame('small', level, strata, packed(8))).toBe(true);
    expect(levels.isSame('large', level, strata, packed(7))).toBe(true);
  });

  it('are told by folder, collection and target, and forgotten with the collection', () => {
    const levels = new PackedLevels();
    levels.into('/a', 'small', 'console').set('yard', packed(1));
    expect(levels.into('/a', 'small', 'console').size).toBe(1);
    expect(levels.into('/b', 'small', 'console').size).toBe(0);
    levels.forget('large');
    expect(levels.into('/a', 'small', 'console').size).toBe(1);
    levels.forget('small');
    expect(levels.into('/a', 'small', 'console').size).toBe(0);
    levels.into('/a', 'small', 'console').set('yard', packed(1));
    expect(levels.into('/a', 'small', 'tower').size).toBe(0);
    expect(levels.into('/a', 'small', 'console').size).toBe(0);
  });
});
