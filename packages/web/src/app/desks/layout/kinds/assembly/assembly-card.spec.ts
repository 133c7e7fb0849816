import type { AssemblyUse, Marker } from '@stravel/core';
import { layoutActions } from '../../store/layout-store';
import { documentOf } from '../../testing/placed';
import type { LayoutBedOptions } from '../../testing/layout-bed';
import { selectionSide, type SelectionSideBed } from '../../testing/selection-side-bed';

const USE: AssemblyUse = { id: 'u', assembly: 'rack', position: [10, 0, 0], turn: 90 };
const marker = (id: string, kind: Marker['kind']): Marker => ({ id, kind, position: [1, 0, 0], turn: 0 });

function card(markers: readonly Marker[], options: LayoutBedOptions = {}): Promise<SelectionSideBed> {
  return selectionSide(
    'assembly',
    { assembly: [USE] },
    {
      ...options,
      assemblies: [documentOf('rack', { marker: markers })],
      tables: {
        stratum: { rack: { id: 'rack', name: 'Rack', role: 'assembly', owner: null, kit: 'kit' } as never },
        level: { level: { id: 'level', name: 'Hall' } as never },
      },
    },
  );
}
const lines = ({ element }: SelectionSideBed) =>
  [...element.querySelectorAll('li')].map((one) => [one.querySelector('.name')?.textContent.trim(), one.className]);

describe('the card of an assembly', () => {
  it('shows whom it reaches, and moves and turns the use', async () => {
    const use = await card([marker('a', 'exit')]);
    expect([use.heading(), use.element.querySelector('header span')?.textContent]).toEqual([
      'Rack',
      'assembly in this level only',
    ]);
    await use.type('Position Y', '2');
    await use.type('Rotation, degrees', '45');
    expect(use.document.item('assembly', 'u')).toMatchObject({ position: [10, 2, 0], turn: 45 });
  });

  it('hides and moves what stands within in this use alone, and takes it back', async () => {
    const use = await card([marker('a', 'exit'), marker('b', 'spawn')], { answers: [{ x: 3, y: 0, z: 0 }] });
    expect(lines(use)).toEqual([
      ['exit', ''],
      ['spawn', ''],
    ]);
    await use.press('Hide exit here');
    await use.press('Move spawn here');
    expect(lines(use)).toEqual([
      ['exit hidden', 'off'],
      ['spawn moved', ''],
    ]);
    await use.press('Use the shared exit');
    expect(lines(use)[0]).toEqual(['exit', '']);
    expect(use.asked).toEqual(['Move spawn here only']);
  });

  it('says what to do while nothing stands within', async () => {
    const use = await card([]);
    expect(lines(use)).toEqual([[undefined, 'soft']]);
    await use.press('Edit for all');
    expect(use.gone).toEqual([['/layout', 'rack']]);
  });

  it('can be opened and not changed while its stratum is locked', async () => {
    const use = await card([marker('a', 'exit')]);
    use.store.dispatch(layoutActions.stratumLocked({ id: 'st' }));
    use.desk.select([{ stratum: 'st', kind: 'assembly', id: 'u' }]);
    await use.shown();
    const enabled = [...use.element.querySelectorAll('sv-assembly-card :is(input, button):enabled:not(sv-help *)')];
    expect(enabled.map(({ textContent }) => textContent.trim())).toEqual(['Edit for all']);
  });
});
