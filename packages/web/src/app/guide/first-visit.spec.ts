import { TestBed } from '@angular/core/testing';
import { FirstVisit } from './first-visit';
import { Guide } from './guide';
import { Help } from './help';
import { KnownDesks } from './known-desks';

const KEY = 'stravel.known-desks';

async function card(): Promise<{ element: HTMLElement; did: number[]; stable: () => Promise<void> }> {
  const fixture = TestBed.createComponent(FirstVisit);
  fixture.componentRef.setInput('desk', 'sight');
  const did: number[] = [];
  fixture.componentInstance.did.subscribe(() => did.push(1));
  await fixture.whenStable();
  return { element: fixture.nativeElement as HTMLElement, did, stable: () => fixture.whenStable() };
}

describe('the card of a first visit', () => {
  beforeEach(() => localStorage.removeItem(KEY));

  it('says what goes in, what comes out and what to do first, and has a button that does it', async () => {
    const { element, did } = await card();
    expect([...element.querySelectorAll('dd')].map(({ textContent }) => textContent)).toEqual([
      'a closed level.',
      'what is visible from where.',
      'bake, then click the plan.',
    ]);
    element.querySelectorAll('button')[0].click();
    expect(did).toEqual([1]);
  });

  it('stays away once it is put away, until the desk’s question mark', async () => {
    const { element, stable } = await card();
    element.querySelectorAll('button')[1].click();
    await stable();
    expect([element.textContent, localStorage.getItem(KEY)]).toEqual(['', '["sight"]']);
    const help = TestBed.createComponent(Help);
    help.componentRef.setInput('about', 'sight/bake');
    help.componentRef.setInput('what', 'Sight');
    await help.whenStable();
    const ask = (): void => (help.nativeElement as HTMLElement).querySelector('button')?.click();
    ask();
    await stable();
    expect([TestBed.inject(Guide).shown(), element.textContent]).toEqual(['sight/bake', '']);
    help.componentRef.setInput('about', 'sight');
    await help.whenStable();
    ask();
    await stable();
    expect([TestBed.inject(Guide).shown(), element.textContent.includes('Goes in')]).toEqual(['sight', true]);
  });

  it.each(['{', '{"sight": true}', '[1, null, "sight"]'])('reads %s without a fault', (text) => {
    localStorage.setItem(KEY, text);
    expect(TestBed.inject(KnownDesks).has('sight')).toBe(text.startsWith('['));
  });
});
