import fc from 'fast-check';
import { costColour } from './cost-scale';
import type { PlateColours } from './plate-colours';

const colours = { costNone: 'none', costLimit: 'limit', costOver: 'over', costFar: 'far' } as PlateColours;
const of = (limit: number | undefined, most: number, cost: number): string =>
  costColour(colours, { limit, most }, cost);

describe('the scale of costs', () => {
  it('begins at 0, and breaks at the limit', () => {
    expect(of(400, 1000, 0)).toBe('color-mix(in srgb, limit 0%, none)');
    expect(of(400, 1000, 200)).toBe('color-mix(in srgb, limit 50%, none)');
    expect(of(400, 1000, 400)).toBe('color-mix(in srgb, limit 100%, none)');
    expect(of(400, 1000, 401)).toBe('color-mix(in srgb, far 0%, over)');
    expect(of(400, 1000, 700)).toBe('color-mix(in srgb, far 100%, over)');
    expect(of(400, 1000, 4000)).toBe('color-mix(in srgb, far 100%, over)');
  });

  it('ends at the most where nothing limits it, and takes nothing at all', () => {
    expect(of(undefined, 1000, 1000)).toBe('color-mix(in srgb, limit 100%, none)');
    expect(of(undefined, 0, 0)).toBe('color-mix(in srgb, limit 0%, none)');
    expect(of(0, 5, 5)).toBe('color-mix(in srgb, far 100%, over)');
  });

  it('is red if and only if the cost is over, however close all costs lie together', () => {
    const number = fc.integer({ min: 0, max: 1e6 });
    fc.assert(
      fc.property(number, number, number, (limit, most, cost) => {
        expect(of(limit, most, cost).includes('over')).toBe(cost > limit);
      }),
    );
  });
});
