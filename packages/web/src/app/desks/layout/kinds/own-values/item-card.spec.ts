import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { boxPlanes, type Block, type Marker, type Piece, type Placement } from '@stravel/core';
import { ScrollMemory } from '../../../../document/level/keep-scroll';
import { OpenLevel } from '../../../../document/level/open-level';
import type { PlacedItem } from '../../editing/item-edits';
import { ItemCard, type CardChange } from './item-card';
import { ItemList } from '../../parts/item-list';
import { PieceStrip } from '../../parts/piece-strip';

const block: Block = {
  id: 'b',
  name: 'weighhouse',
  position: [1, 0, 2],
  turn: [15, 0, 0],
  planes: boxPlanes([10, 8.5, 15]),
  sight: 'hides',
  material: 'brick',
};
const piece: Piece = {
  id: 'crate',
  kit: 'k',
  name: 'crate',
  bounds: { min: [-0.5, 0, -0.5], max: [0.5, 2, 0.5] },
  steps: [{ triangles: 12, vertices: 24, materials: 1, bytes: 900 }],
};
const placement: Placement = { id: 'p', piece: 'crate', position: [0, 0, 0], turn: [0, 0, 0], scale: [2, 1, 1] };
const marker: Marker = { id: 'm', kind: 'exit', position: [0, 0, 0], turn: 90 };

async function card(kind: PlacedItem['kind'], item: PlacedItem['item'], inputs: Record<string, unknown> = {}) {
  const fixture = TestBed.createComponent(ItemCard);
  for (const [name, value] of Object.entries({
    item: { stratum: 'st', kind, item },
    stratumName: 'Structure',
    ...inputs,
  }))
    fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  const element = fixture.nativeElement as HTMLElement;
  const changes: CardChange[] = [];
  const sizes: unknown[] = [];
  fixture.componentInstance.changed.subscribe((change) => changes.push(change));
  fixture.componentInstance.resized.subscribe((size) => sizes.push(size));
  const field = (label: string) => element.querySelector<HTMLInputElement>(`input[aria-label="${label}"]`);
  const type = (label: string, value: string) => {
    const input = field(label);
    if (!input) throw new Error(`there is no field ${label}`);
    input.value = value;
    input.dispatchEvent(new Event('input'));
    input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
  };
  return { element, changes, sizes, field, type, settled: () => fixture.whenStable() };
}

describe('the card of one item', () => {
  it('shows the exact numbers of a block and names the one that changes', async () => {
    const { element, changes, sizes, field, type } = await card('block', block);
    expect(element.querySelector('h2')?.textContent).toBe('Block “weighhouse”');
    expect(element.textContent).toContain('6 planes · Structure');
    expect(['Place x', 'Turn yaw', 'Size y', 'Size z'].map((label) => field(label)?.value)).toEqual([
      '1',
      '15',
      '8.5',
      '15',
    ]);
    type('Place z', '7,25');
    type('Turn pitch', '30');
    type('Size x', '12');
    expect(changes).toEqual([
      { field: 'position', value: 7.25, axis: 2 },
      { field: 'turn', value: 30, axis: 1 },
    ]);
    expect(sizes).toEqual([{ axis: 0, metres: 12 }]);
  });

  it('refuses a size of nothing and says from where to where', async () => {
    const { element, sizes, type, settled } = await card('block', block);
    type('Size y', '0');
    await settled();
    expect(sizes).toEqual([]);
    expect(element.querySelector('[aria-invalid=true]')).not.toBeNull();
  });

  it('changes name, sight and faces of a block, never to no faces', async () => {
    const { element, changes } = await card('block', block);
    const set = (input: HTMLInputElement | HTMLSelectElement, value: string) => {
      input.value = value;
      input.dispatchEvent(new Event('change'));
    };
    const [name, material] = [...element.querySelectorAll<HTMLInputElement>('.pair input')];
    set(name, 'scale house');
    set(element.querySelector('select') as HTMLSelectElement, 'decor');
    set(material, '   ');
    set(material, ' slate ');
    expect(changes).toEqual([
      { field: 'name', value: 'scale house' },
      { field: 'sight', value: 'decor' },
      { field: 'material', value: 'slate' },
    ]);
  });

  it('gives a placement the size of its piece by its scale, and a marker its direction', async () => {
    const placed = await card('placement', placement, { piece });
    expect([0, 1, 2].map((k) => placed.field(`Size ${'xyz'[k]}`)?.value)).toEqual(['2', '2', '1']);
    expect((await card('placement', placement)).element.querySelector('h2')?.textContent).toBe('Unknown piece');
    const marked = await card('marker', marker);
    expect(marked.field('Size x')).toBeNull();
    marked.type('Direction in degrees', '45');
    expect(marked.changes).toEqual([{ field: 'turn', value: 45 }]);
  });

  it('can be read and not changed when its stratum is locked', async () => {
    const { element } = await card('block', block, { disabled: true });
    const inputs = [...element.querySelectorAll<HTMLInputElement>('input, select')];
    expect(inputs.length).toBeGreaterThan(8);
    expect(inputs.every(({ disabled }) => disabled)).toBe(true);
  });
});

describe('the list of a stratum', () => {
  it('says what to do first when nothing stands in it', async () => {
    const fixture = TestBed.createComponent(ItemList);
    for (const [name, value] of Object.entries({
      title: 'Dressing',
      items: [],
      selected: new Set(),
      describe: () => ({ name: '', where: '' }),
    })) {
      fixture.componentRef.setInput(name, value);
    }
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('Choose a tool above and draw on the plan');
  });

  it('reads no more items than it shows', async () => {
    TestBed.configureTestingModule({
      providers: [
        { provide: OpenLevel, useValue: { level: signal(undefined), isLoading: signal(false) } },
        { provide: ScrollMemory, useValue: { of: () => 0, keep: () => undefined } },
      ],
    });
    const read = jest.fn(() => ({ name: 'wall', where: '0.0, 0.0, 0.0' }));
    const fixture = TestBed.createComponent(ItemList);
    const items = Array.from({ length: 20000 }, (_unused, i) => ({
      stratum: 'st',
      kind: 'block' as const,
      id: `b${i}`,
    }));
    for (const [name, value] of Object.entries({
      title: 'Structure',
      items,
      selected: new Set(['b0']),
      describe: read,
    }))
      fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('20000');
    expect(read.mock.calls.length).toBeLessThan(200);
  });
});

describe('the strip of pieces', () => {
  it('shows each piece with how often it stands in the level, and chooses one', async () => {
    const fixture = TestBed.createComponent(PieceStrip);
    fixture.componentRef.setInput('pieces', [piece, { ...piece, id: 'cart', name: 'cart' }]);
    fixture.componentRef.setInput('used', new Map([['crate', 45]]));
    fixture.componentRef.setInput('chosen', 'cart');
    await fixture.whenStable();
    const picked: string[] = [];
    fixture.componentInstance.picked.subscribe((id) => picked.push(id));
    const options = [...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLElement>('[role=option]')];
    expect(options.map(({ textContent }) => textContent?.replace(/\s+/g, ' ').trim())).toEqual([
      expect.stringMatching(/crate ?45/),
      expect.stringMatching(/cart ?0/),
    ]);
    expect(options.map((option) => option.getAttribute('aria-selected'))).toEqual(['false', 'true']);
    options[0].click();
    expect(picked).toEqual(['crate']);
  });
});
