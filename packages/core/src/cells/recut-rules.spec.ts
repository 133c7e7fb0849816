import fc from 'fast-check';
import { recutRules } from './recut-rules';

const cut = (sizeMetres: number, x = 0, z = 0) => ({ sizeMetres, origin: [x, z] as const });

describe('rules of volumes under another cut', () => {
  const rules = [{ volume: 'v', cells: ['1,0'] }];
  const after = (to: ReturnType<typeof cut>) => recutRules(rules, cut(50), to)[0].cells;

  it('name all cells that reach into where theirs were', () => {
    expect(after(cut(25))).toEqual(['2,0', '2,1', '3,0', '3,1']);
    expect(after(cut(100))).toEqual(['0,0']);
    // From 50 to 100 m, in cells of 40 from 30 on: 30, 70.
    expect(after(cut(40, 30, 0))).toEqual(['0,0', '0,1', '1,0', '1,1']);
    expect(after(cut(50))).toEqual(['1,0']);
    expect(after(cut(50, -50, 100))).toEqual(['2,-2']);
  });

  it('refuse to name more cells than can be kept, before they are made', () => {
    expect(() => recutRules([{ volume: 'v', cells: ['0,0'] }], cut(10000), cut(1))).toThrow(
      'With cells of 1 m a volume would load more than 4096 cells',
    );
    expect(recutRules([{ volume: 'v', cells: ['0,0'] }], cut(64), cut(1))[0].cells).toHaveLength(4096);
  });

  it('cover each point that they covered, and no cell that touches none', () => {
    const lattice = fc.record({
      sizeMetres: fc.integer({ min: 4, max: 60 }),
      origin: fc.tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 })),
    });
    const cell = fc.tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 }));
    fc.assert(
      fc.property(lattice, lattice, cell, (from, to, [column, row]) => {
        const [{ cells }] = recutRules([{ volume: 'v', cells: [`${column},${row}`] }], from, to);
        // Whole metres: the middles of all squares of a metre tell all.
        const plain = new Set<string>();
        for (let x = 0; x < from.sizeMetres; x++)
          for (let z = 0; z < from.sizeMetres; z++) {
            const at = [from.origin[0] + column * from.sizeMetres + x, from.origin[1] + row * from.sizeMetres + z];
            plain.add(at.map((v, k) => Math.floor((v + 0.5 - to.origin[k]) / to.sizeMetres)).join(','));
          }
        expect([...cells].sort()).toEqual([...plain].sort());
      }),
    );
  });
});
