import { selectionSide as side } from '../testing/selection-side-bed';

const volume = {
  id: 'v',
  name: 'bell',
  kind: '',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  shape: { form: 'box', size: [1, 1, 1] },
} as const;
const marker = { id: 'm', kind: 'exit', position: [3, 0, 0], turn: 0 } as const;

describe('the sentence of a link', () => {
  it('is filled blank by blank, keeps its action, and refuses what is no argument', async () => {
    const card = await side('volume', { volume: [volume], marker: [marker] });
    const find = <T extends Element>(selector: string): T =>
      card.element.querySelector<T>(`sv-link-sentences ${selector}`) as T;
    find<HTMLButtonElement>('[aria-label="Add link"]').click();
    await card.shown();
    expect(find('[role=status]').textContent).toContain('Not saved yet');
    await card.change('sv-link-sentences [aria-label=Who]', ' the player ');
    await card.change('sv-link-sentences [aria-label=Event]', 'last leaves');
    await card.change('sv-link-sentences [aria-label=Action]', ' start ');
    await card.change('sv-link-sentences [aria-label=Target]', 'm');
    expect([...card.document.itemsOf('link')]).toMatchObject([
      { emitter: 'v', who: 'the player', event: 'last leaves', action: 'start', target: 'm', once: false },
    ]);
    await card.change('sv-link-sentences [aria-label="How often"]', 'once');
    await card.change('sv-link-sentences [aria-label=Arguments]', 'speed=2');
    await card.change('sv-link-sentences [aria-label=Arguments]', 'speed');
    expect(find('[role=alert]').textContent).toContain('“speed” is not a value');
    await card.change('sv-link-sentences [aria-label=Action]', '   ');
    expect(find('[role=alert]').textContent).toContain('A link needs an action');
    expect([...card.document.itemsOf('link')]).toMatchObject([
      { action: 'start', once: true, arguments: { speed: 2 } },
    ]);
    find<HTMLButtonElement>('[aria-label="Delete link 1"]').click();
    await card.shown();
    expect([...card.document.itemsOf('link')]).toEqual([]);
  });
});
