import { DEFAULT_COLLISION_PATTERN, collisionOwners, collisionPatternFault } from './collision-pattern';

describe('the pattern of collision meshes', () => {
  it('finds the piece that a mesh is named after, the longest name first', () => {
    expect(collisionOwners(DEFAULT_COLLISION_PATTERN, 'crate_collision')).toEqual(['crate']);
    expect(collisionOwners(DEFAULT_COLLISION_PATTERN, 'crate_collision.002')).toEqual(['crate']);
    expect(collisionOwners(DEFAULT_COLLISION_PATTERN, 'a_collision_collision2')).toEqual(['a_collision', 'a']);
    for (const name of ['crate', '_collision', 'crate_col', ''])
      expect(collisionOwners(DEFAULT_COLLISION_PATTERN, name)).toEqual([]);
  });

  it('may have something before the name, and no ending', () => {
    expect(collisionOwners('solid-{name}', 'solid-crate')).toEqual(['crate']);
    expect(collisionOwners('solid-{name}', 'solid-')).toEqual([]);
    expect(collisionOwners('{name}~', 'crate~')).toEqual(['crate']);
    expect(collisionOwners('{name}~', 'crate~1')).toEqual([]);
    // Signs that mean something elsewhere mean nothing here.
    expect(collisionOwners('{name}.(c)+', 'crate.(c)+')).toEqual(['crate']);
    expect(collisionOwners('{name}.(c)+', 'cratexccc')).toEqual([]);
  });

  it('gives up on a name that is its fixed part over and over', () => {
    expect(collisionOwners('{name}aaa*', 'a'.repeat(5000)).map(({ length }) => length)).toEqual([
      4997, 4996, 4995, 4994, 4993, 4992, 4991, 4990,
    ]);
  });

  it.each([
    ['{name}_c*', ''],
    ['{name}', 'A pattern needs something beside {name}'],
    ['{name}*', '* stands for any ending'],
    ['*{name}_c', '* stands for any ending'],
    ['{name}**', '* stands for any ending'],
    ['collision', 'A pattern has {name} once'],
    ['{name}_{name}', 'A pattern has {name} once'],
    ['', 'A pattern has {name} once'],
    [`{name}${'x'.repeat(60)}`, 'A pattern has at most 60 characters'],
  ])('%s: %s', (pattern, fault) => {
    const found = collisionPatternFault(pattern);
    expect(fault === '' ? found : found.slice(0, fault.length)).toBe(fault);
  });
});
