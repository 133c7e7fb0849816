import fc from 'fast-check';
import { FINDING_DESKS, finding, type Finding, type FindingDesk, type FindingPlace } from '@stravel/core';
import { ALL_DESKS } from '../desks';
import { placeOf } from './desk';

const of = (desk: FindingDesk, place: FindingPlace, code = 'X'): Finding =>
  finding({ code, desk, severity: 'error', subject: 's', place, message: '', why: '' });

describe('where findings lead', () => {
  it.each([
    [of('sections', { level: 'l', item: 'r' }), ['/sections', 'l'], { item: 'r' }],
    [of('cells', { level: 'l', position: [1, 2, 3] }), ['/cells', 'l'], { at: '1,2,3' }],
    [of('pack', { piece: 'p' }), ['/detail'], { piece: 'p' }],
    [of('pack', { kit: 'k' }), ['/detail'], { kit: 'k' }],
    [of('pack', { level: 'l', item: 'i' }), ['/layout', 'l'], { item: 'i' }],
    [of('pack', { level: 'l' }, 'PACK_COUNT'), ['/layout', 'l'], {}],
    [of('pack', { level: 'l' }, 'PACK_NAME_TWICE'), ['/sets'], {}],
    [of('sets', { level: 'l' }), ['/sets'], { at: 'l' }],
    [of('sets', { level: 'l', field: 'f' }), ['/sets'], { at: 'l', column: 'f' }],
    [of('sets', { register: 'r', entry: 'e', field: 'f' }), ['/sets/register', 'r'], { entry: 'e', column: 'f' }],
    [of('sets', { level: 'l' }, 'LEVEL_SHUT'), ['/sets/order'], { level: 'l' }],
    [of('budget', { level: 'l' }), ['/budget'], {}],
    [of('budget', { level: 'l', position: [4, 5, 6] }), ['/sight', 'l'], { at: '4,5,6' }],
    [of('sight', { level: 'l', position: [1, 2, 3] }), ['/sight', 'l'], { at: '1,2,3' }],
    [of('layout', { level: 'l' }), ['/layout', 'l'], {}],
    [of('sight', {}), ['/sets'], {}],
  ])('%#: goes to its place', (one, path, query) => {
    expect(placeOf(ALL_DESKS, one)).toEqual({ path, query });
  });

  it('leads every finding to one desk and no second', () => {
    const id = fc.option(fc.constantFrom('a', 'b'), { nil: undefined });
    fc.assert(
      fc.property(
        fc.constantFrom(...FINDING_DESKS.filter((desk) => desk !== 'detail')),
        fc.record({
          level: id,
          item: id,
          piece: id,
          kit: id,
          register: id,
          entry: id,
          field: id,
          position: fc.option(fc.constant([1, 2, 3] as const), { nil: undefined }),
        }),
        fc.constantFrom('X', 'PACK_COUNT'),
        (desk, place, code) => {
          const claims = ALL_DESKS.filter((one) => one.place(of(desk, place, code)) !== undefined);
          expect(claims).toHaveLength(1);
        },
      ),
    );
  });
});
