import { selectedItems } from './selected-items';

const bounds = { min: [0, 0, 0], max: [1, 1, 1] } as const;

describe('selected items', () => {
  it('are looked up once, when they are first asked for, and leave out what stands nowhere', () => {
    const find = jest.fn(({ id }: { id: string }) =>
      id === 'gone' ? undefined : { stratum: 's', kind: 'block' as const, id, bounds },
    );
    const items = selectedItems([{ id: 'a' }, { id: 'gone' }, { id: 'b' }], find);
    expect([items.size, items.has('a'), items.has('z'), [...items.keys()]]).toEqual([
      3,
      true,
      false,
      ['a', 'gone', 'b'],
    ]);
    expect(find).not.toHaveBeenCalled();
    expect([...items.values()].map(({ id }) => id)).toEqual(['a', 'b']);
    expect([...items.values()]).toHaveLength(2);
    expect(find).toHaveBeenCalledTimes(3);
  });
});
