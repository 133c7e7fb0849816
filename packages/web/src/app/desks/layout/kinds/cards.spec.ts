import { boxPlanes } from '@stravel/core';
import { layoutActions } from '../store/layout-store';
import { selectionSide as side } from '../testing/selection-side-bed';
import { BLOCK, CRATE, PLACEMENT, pathThrough } from '../testing/placed';

const planes = boxPlanes([10, 8.5, 15]);

describe('the card of a block', () => {
  it('shows its exact numbers and changes the one that is typed', async () => {
    const card = await side('block', { block: [{ ...BLOCK, name: 'weighhouse', turn: [15, 0, 0], planes }] });
    expect([card.heading(), card.element.querySelector('header span')?.textContent]).toEqual([
      'Block “weighhouse”',
      '6 planes · Structure',
    ]);
    expect(['Position X', 'Rotation yaw', 'Size Y', 'Size Z'].map(card.value)).toEqual(['1', '15', '8.5', '15']);
    await card.type('Position Z', '7,25');
    await card.type('Rotation pitch', '30');
    await card.type('Size X', '12');
    expect(card.labels()).toEqual(['position of a block', 'rotation of a block', 'resize a block']);
    const { position, turn } = card.document.item('block', 'b') ?? BLOCK;
    expect([position, turn, card.value('Size X')]).toEqual([[1, 0, 7.25], [15, 30, 0], '12']);
  });

  it('refuses a size of nothing', async () => {
    const card = await side('block', { block: [BLOCK] });
    await card.type('Size Y', '0');
    expect(card.commits).toEqual([]);
    expect(card.element.querySelector('[aria-invalid=true]')).not.toBeNull();
  });

  it('changes name, sight and faces, never to no faces', async () => {
    const card = await side('block', { block: [BLOCK] });
    await card.change('input[aria-label="Name of the block"]', 'scale house');
    await card.change('.pair select', 'decor');
    await card.change('.pair label:last-child input', '   ');
    await card.change('.pair label:last-child input', ' slate ');
    expect(card.document.item('block', 'b')).toMatchObject({ name: 'scale house', sight: 'decor', material: 'slate' });
    expect(card.commits).toHaveLength(3);
  });

  it('can be read and not changed while its stratum is locked', async () => {
    const card = await side('block', { block: [BLOCK] });
    card.store.dispatch(layoutActions.stratumLocked({ id: 'st' }));
    card.desk.select([{ stratum: 'st', kind: 'block', id: 'b' }]);
    await card.shown();
    const boxes = [...card.element.querySelectorAll<HTMLInputElement>('sv-item-card :is(input, select)')];
    expect(boxes.length).toBeGreaterThan(8);
    expect(boxes.every(({ disabled }) => disabled)).toBe(true);
  });
});

describe('the cards of other things', () => {
  it('a placement has the size of its piece by its scale, and own values as pairs', async () => {
    const tables = { piece: { crate: CRATE } };
    const card = await side('placement', { placement: [{ ...PLACEMENT, scale: [2, 1, 1] }] }, { tables });
    expect(['Size X', 'Size Y', 'Size Z'].map(card.value)).toEqual(['2', '2', '1']);
    await card.type('Size Y', '1');
    await card.change('sv-kind-card input', 'note=hot; weight=3');
    expect(card.document.item('placement', 'p')).toMatchObject({
      scale: [2, 0.5, 1],
      values: { note: 'hot', weight: 3 },
    });
    await card.change('sv-kind-card input', 'no pair');
    expect(card.element.querySelector('[role=alert]')?.textContent).toContain('“no pair” is not a value');
  });

  it('a placement of a piece that was deleted has no size', async () => {
    const card = await side('placement', { placement: [PLACEMENT] });
    expect([card.heading(), card.value('Size X')]).toEqual(['Unknown piece', undefined]);
  });

  it('a marker has a direction and no size, and takes a kind from a register', async () => {
    const tables = {
      register: { spawns: { id: 'spawns', name: 'Spawns', help: '', order: 'a0', kindsOf: 'marker' as const } },
      entry: { boss: { id: 'boss', register: 'spawns', name: 'Boss', order: 'a0', values: {} } },
    };
    const marker = { id: 'm', kind: 'exit', position: [0, 0, 0], turn: 90 } as const;
    const card = await side('marker', { marker: [marker] }, { tables });
    expect([card.heading(), card.value('Size X')]).toEqual(['Marker · exit', undefined]);
    await card.type('Direction in degrees', '45');
    await card.change('sv-kind-card select', 'boss');
    expect(card.document.item('marker', 'm')).toMatchObject({ turn: 45, entry: 'boss' });
    await card.change('sv-kind-card select', '');
    expect(card.document.item('marker', 'm')?.entry).toBeUndefined();
  });

  it('a sphere takes the size that was changed for all three', async () => {
    const volume = {
      id: 'v',
      name: 'hum',
      kind: '',
      position: [0, 0, 0],
      turn: [0, 0, 0],
      shape: { form: 'sphere', radiusMetres: 2 },
    } as const;
    const card = await side('volume', { volume: [volume] });
    await card.type('Size Z', '6');
    expect(card.document.item('volume', 'v')?.shape).toEqual({ form: 'sphere', radiusMetres: 3 });
    expect([card.heading(), card.labels()]).toEqual(['Volume “hum”', ['resize a volume']]);
  });

  it('a path has its knots by number', async () => {
    const card = await side('path', { path: [pathThrough('polyline', 0, 8)] });
    expect(card.heading()).toBe('Open straight path');
    await card.type('Knot 2 y', '3');
    expect(card.document.item('path', 'way')?.knots[1].position).toEqual([8, 3, 0]);
  });

  it('a divider has its name alone', async () => {
    const divider = { id: 'd', from: [0, 0], to: [4, 0], bottom: 0, top: 3 } as const;
    const card = await side('divider', { divider: [divider] });
    expect([card.heading(), card.element.querySelectorAll('sv-item-card input').length]).toEqual(['Divider', 0]);
  });
});

describe('what can be done with what is selected', () => {
  it('has the menu of a kind when everything is of it', async () => {
    const card = await side('block', { block: [BLOCK], path: [pathThrough('polyline', 0, 8)] });
    expect(card.buttons()).toEqual(['Duplicate', 'Arrange ▾', 'Block ▾', '⋯', 'Delete']);
    card.desk.select([
      { stratum: 'st', kind: 'block', id: 'b' },
      { stratum: 'st', kind: 'path', id: 'way' },
    ]);
    await card.shown();
    expect(card.buttons()).not.toContain('Block ▾');
    card.desk.select([]);
    await card.shown();
    expect(card.buttons()).toEqual(['Select ▾']);
  });

  it('changes what many have in common in one edit, and says where they differ', async () => {
    const other = { ...BLOCK, id: 'other', name: BLOCK.name, material: 'slate' };
    const card = await side('block', { block: [BLOCK, other] });
    card.desk.select([
      { stratum: 'st', kind: 'block', id: BLOCK.id },
      { stratum: 'st', kind: 'block', id: 'other' },
    ]);
    await card.shown();
    const material = card.element.querySelector<HTMLInputElement>('input[aria-label="Material"]');
    expect([material?.value, material?.placeholder, card.value('Name')]).toEqual(['', 'mixed', BLOCK.name]);
    await card.change('input[aria-label="Material"]', '  ');
    expect(card.labels()).toEqual([]);
    await card.change('input[aria-label="Material"]', 'slate');
    expect(card.labels()).toEqual(['material of 2 objects']);
    // What had it already was not written again.
    expect(card.commits[0].operations.map(({ id }) => id)).toEqual([BLOCK.id]);
    await card.change('select[aria-label="Blocks view"]', 'decor');
    expect(['b', 'other'].map((id) => card.document.item('block', id)?.sight)).toEqual(['decor', 'decor']);
  });

  it('does what a button says, and links one marker', async () => {
    const marker = { id: 'm', kind: 'exit', position: [0, 0, 0], turn: 90 } as const;
    const card = await side('marker', { marker: [marker] });
    await card.choose('Add link');
    await card.choose('Rotate 15°');
    expect(card.element.querySelectorAll('sv-link-sentences .draft')).toHaveLength(1);
    expect(card.document.item('marker', 'm')?.turn).toBe(105);
  });
});
