import fc from 'fast-check';
import { labelNear, placeLabels, type PlateLabel } from './plate-labels';

const label = (id: string, x: number, y: number, size = 1, text = id): PlateLabel => ({
  id,
  text,
  x,
  y,
  size,
  colour: 'ink',
  alpha: 1,
});
const widthOf = (text: string): number => text.length * 6;
const ids = (labels: readonly PlateLabel[]): string[] => labels.map(({ id }) => id);

describe('labels on the plate', () => {
  it('give way to what is selected, then to what is larger, then by id', () => {
    const labels = [label('a', 0, 0), label('b', 3, 2, 9), label('c', 6, 4), label('far', 300, 300)];
    expect(ids(placeLabels(labels, widthOf, () => 0).shown)).toEqual(['b', 'far']);
    expect(ids(placeLabels(labels, widthOf, (id) => (id === 'c' ? 0 : 1)).shown)).toEqual(['c', 'far']);
    expect(ids(placeLabels(labels, widthOf, () => 0).hidden)).toEqual(['a', 'c']);
  });

  it('never overlap, and none is lost', () => {
    const one = fc.record({
      x: fc.integer({ min: -200, max: 200 }),
      y: fc.integer({ min: -200, max: 200 }),
      size: fc.integer({ min: 0, max: 3 }),
      text: fc.string({ maxLength: 30 }),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 60 }), (rows) => {
        const labels = rows.map(({ x, y, size, text }, i) => label(String(i), x, y, size, text));
        const { shown, hidden } = placeLabels(labels, widthOf, (id) => Number(id) % 3);
        expect(shown.length + hidden.length).toBe(labels.length);
        const apart = (a: PlateLabel, b: PlateLabel): boolean =>
          a.x + widthOf(a.text) <= b.x || b.x + widthOf(b.text) <= a.x || Math.abs(a.y - b.y) >= 14;
        shown.forEach((a, i) => shown.slice(i + 1).forEach((b) => expect(apart(a, b)).toBe(true)));
        // Each one that is hidden would lie over one that came before it.
        for (const a of hidden)
          expect(
            shown.some(
              (b) => a.x - 4 < b.x + widthOf(b.text) && b.x - 4 < a.x + widthOf(a.text) && Math.abs(a.y - b.y) < 14,
            ),
          ).toBe(true);
      }),
    );
  });

  it('are found again under the pointer', () => {
    const labels = [label('a', 0, 0), label('b', 10, 0)];
    expect(labelNear(labels, 8, 0)?.id).toBe('b');
    expect(labelNear(labels, 100, 0)).toBeUndefined();
  });
});
