import { finding, type Finding, type FindingDesk, type FindingPlace } from '@stravel/core';
import { findingRoute } from './finding-route';

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
    [of('sight', { level: 'l', position: [1, 2, 3] }), ['/sight', 'l'], { at: '1,2,3' }],
  ])('%#: goes to its place', (one, path, query) => {
    expect(findingRoute(one)).toEqual({ path, query });
  });
});
