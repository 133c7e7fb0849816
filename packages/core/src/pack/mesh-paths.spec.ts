import fc from 'fast-check';
import type { Kit, Piece } from '../model/kit';
import { keyFault } from '../fields/key-text';
import { meshPaths } from './mesh-paths';

const kit: Kit = { id: 'k', name: 'Yard', key: 'yard', mesh: '' };
const named = (...names: string[]): Piece[] =>
  names.map((name, i) => ({ id: `p${i}`, kit: 'k', name, bounds: { min: [0, 0, 0], max: [1, 1, 1] }, steps: [] }));

describe('paths of meshes', () => {
  it('are the kit’s own, or one for each piece by its name', () => {
    const pieces = named('Salt pan', 'salt-pan', 'CON', 'Ü', '硝子', 'salt pan 2');
    expect([...new Set(meshPaths(kit, pieces, 'perKit').values())]).toEqual(['kits/yard.glb']);
    expect([...meshPaths(kit, pieces, 'perPiece').values()]).toEqual([
      'kits/yard/salt-pan.glb',
      'kits/yard/salt-pan-2.glb',
      'kits/yard/piece-con.glb',
      'kits/yard/u.glb',
      'kits/yard/piece.glb',
      'kits/yard/salt-pan-2-2.glb',
    ]);
  });

  it('are file names on every system, each only once, in whatever order the pieces are', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary', maxLength: 80 }), { maxLength: 30 }), (names) => {
        const pieces = named(...names, 'Nul', 'a'.repeat(80));
        const paths = meshPaths(kit, pieces, 'perPiece');
        expect(new Set(paths.values()).size).toBe(pieces.length);
        expect([...meshPaths(kit, [...pieces].reverse(), 'perPiece')].sort()).toEqual([...paths].sort());
        for (const path of paths.values())
          expect(keyFault(path.slice('kits/yard/'.length, -'.glb'.length).slice(0, 60)) ?? '').not.toMatch(
            /must be|must not/,
          );
      }),
    );
  });
});
