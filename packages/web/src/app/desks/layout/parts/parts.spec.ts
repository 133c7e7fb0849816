import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { ScrollMemory } from '../../../document/level/keep-scroll';
import { OpenLevel } from '../../../document/level/open-level';
import { CRATE } from '../testing/placed';
import { ItemList } from './item-list';
import { PieceStrip } from './piece-strip';

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
    fixture.componentRef.setInput('pieces', [CRATE, { ...CRATE, id: 'cart', name: 'cart' }]);
    fixture.componentRef.setInput('used', new Map([['crate', 45]]));
    fixture.componentRef.setInput('chosen', 'cart');
    fixture.componentRef.setInput('isOpen', true);
    await fixture.whenStable();
    const [picked, seen]: [string[], string[][]] = [[], []];
    fixture.componentInstance.seen.subscribe((pieces) => seen.push(pieces.map(({ id }) => id)));
    fixture.componentInstance.picked.subscribe((id) => picked.push(id));
    const options = [...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLElement>('[role=option]')];
    expect(options.map(({ textContent }) => textContent?.replace(/\s+/g, ' ').trim())).toEqual([
      expect.stringMatching(/crate ?45/),
      expect.stringMatching(/cart ?0/),
    ]);
    expect(options.map((option) => option.getAttribute('aria-selected'))).toEqual(['false', 'true']);
    options[0].click();
    expect(picked).toEqual(['crate']);
    // What is searched for is found in it; folded, the last used are at hand, then what is used most.
    fixture.componentInstance.text.set('ART');
    await fixture.whenStable();
    expect(fixture.componentInstance.found().map(({ id }) => id)).toEqual(['cart']);
    expect(seen).toEqual([['cart']]);
    fixture.componentRef.setInput('isOpen', false);
    await fixture.whenStable();
    // A picture takes the place of the box as soon as there is one.
    fixture.componentRef.setInput('pictures', new Map([['crate', 'blob:crate']]));
    await fixture.whenStable();
    const drawn = [...(fixture.nativeElement as HTMLElement).querySelectorAll('.hand img, .hand svg')];
    expect(drawn.map((one) => one.getAttribute('src'))).toEqual([null, 'blob:crate']);
    const hand = [...(fixture.nativeElement as HTMLElement).querySelectorAll('.hand button')];
    expect(hand.map((button) => button.getAttribute('aria-label'))).toEqual(['cart', 'crate']);
  });
});
