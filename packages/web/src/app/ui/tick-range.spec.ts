import { TickRange, flipped } from './tick-range';

const LIST = ['a', 'b', 'c', 'd', 'e'];

describe('a range of check boxes', () => {
  it('goes from the box clicked last to this one, either way, and makes all as this one becomes', () => {
    const range = new TickRange();
    let ticked = new Set<string>();
    const click = (id: string, isRange: boolean, list = LIST): string => {
      ticked = flipped(ticked, range.click(id, isRange, list, ticked));
      return [...ticked].sort().join('');
    };
    expect(click('b', true)).toBe('b');
    expect(click('d', true)).toBe('bcd');
    expect(click('a', true)).toBe('abcd');
    // One that is ticked takes the range off.
    expect(click('c', true)).toBe('d');
    expect(click('e', false)).toBe('de');
    // What was clicked last is filtered away: then it is one box again.
    expect(click('a', true, ['a', 'b'])).toBe('ade');
  });
});
