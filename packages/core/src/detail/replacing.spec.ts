import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { readGlb } from '../formats/glb/read-glb';
import { writeKitGlb } from '../formats/glb/write-kit-glb';
import { EMPTY_CONTENT } from '../items';
import type { StratumContent } from '../model/items';
import type { Piece } from '../model/kit';
import { emptyRecordTables } from '../records';
import type { Box3, Vector3 } from '../model/vector';
import { meshBounds } from '../mesh/mesh-cost';
import { setFindings } from '../sets/set-findings';
import { addToKit, removePieceFromKit } from './add-to-kit';
import { chainLike } from './chain-options';
import { movedOrigin } from './piece-origin';
import { placeInstead, usesOfPiece } from './piece-users';
import type { ReadPiece } from './sound-pieces';
import { backFrom, placeOfTaken, replacedTwice, takenPieces } from './taken-pieces';

const context = createRunContext();
const box = (min: Vector3, max: Vector3): Box3 => ({ min, max });
const step = { triangles: 12, vertices: 24, materials: 1, bytes: 900 };
const known = (id: string, over: Partial<Piece> = {}): Piece => ({
  id,
  kit: 'works',
  name: id,
  bounds: box([0, 0, 0], [1, 1, 1]),
  steps: [step],
  ...over,
});
const read = (name: string, bounds = box([0, 0, 0], [1, 1, 1])): ReadPiece => ({ name, bounds, step });

/** A triangle from the origin, of a material of its own. */
const wedge = (name: string, at: Vector3 = [0, 0, 0]): Parameters<typeof writeKitGlb>[0][number] => ({
  name,
  parts: [
    {
      material: { name: `of ${name}`, colour: [0.5, 0.4, 0.3], roughness: 1 },
      positions: Float32Array.from([0, 0, 0, 2, 0, 0, 0, 0.1, 1].map((value, i) => value + at[i % 3])),
      normals: Float32Array.from([0, 1, 0, 0, 1, 0, 0, 1, 0]),
      indices: Uint32Array.from([0, 2, 1]),
    },
  ],
});

describe('a moved origin', () => {
  const cube = box([-1, 0, -1], [1, 2, 1]);

  it('is what both ends of an axis have moved, by hand', () => {
    expect(movedOrigin(cube, box([-0.5, 0, -1], [1.5, 2, 1]))).toEqual([0.5, 0, 0]);
    // It grew at the top, at both sides, and shrank: it stands where it stood.
    expect(movedOrigin(cube, box([-1, 0, -1], [1, 5, 1]))).toBeUndefined();
    expect(movedOrigin(cube, box([-3, 0, -1], [3, 2, 1]))).toBeUndefined();
    expect(movedOrigin(cube, box([-0.5, 0, -1], [0.5, 1, 1]))).toBeUndefined();
    // It moved and grew: the lesser counts.
    expect(movedOrigin(cube, box([-4, 0, -1], [0, 2, 1]))).toEqual([-1, 0, 0]);
    // Within a thousandth of its length, and a millimetre, nothing has moved.
    expect(movedOrigin(cube, box([-0.999, 0.001, -1], [1.001, 2.001, 1]))).toBeUndefined();
    expect(movedOrigin(cube, cube)).toBeUndefined();
    // Flat, and far from the origin.
    expect(movedOrigin(box([5e4, 0, 0], [5e4, 0, 0]), box([5e4, 2, 0], [5e4, 2, 0]))).toEqual([0, 2, 0]);
  });

  it('is undone by what puts a mesh back, whatever moved it', () => {
    const metre = fc.double({ min: -500, max: 500, noNaN: true });
    const corner = fc.tuple(metre, metre, metre);
    fc.assert(
      fc.property(corner, corner, corner, (a, size, by) => {
        const max: Vector3 = [a[0] + Math.abs(size[0]), a[1] + Math.abs(size[1]), a[2] + Math.abs(size[2])];
        const before = box(a, max);
        const shifted = (one: Vector3): Vector3 => [one[0] + by[0], one[1] + by[1], one[2] + by[2]];
        const [taken] = takenPieces(
          [read('x', box(shifted(a), shifted(max)))],
          [known('x', { bounds: before })],
          new Map(),
        );
        const put = placeOfTaken(taken, true);
        for (const k of [0, 1, 2])
          expect(Math.abs(put.bounds.min[k] - before.min[k])).toBeLessThan(0.001 + 0.001 * Math.abs(size[k]) + 1e-3);
        expect(put.movedOrigin).toBeNull();
        const left = placeOfTaken(taken, false).movedOrigin;
        expect(left === null).toBe(taken.moved === undefined);
      }),
    );
  });

  it('stays on the piece until a later one lies where the first lay', () => {
    const one = known('crate');
    const [away] = takenPieces([read('crate', box([0.5, 0, 0], [1.5, 1, 1]))], [one], new Map());
    const moved = { ...one, ...placeOfTaken(away, false) };
    expect(moved.movedOrigin).toEqual([0.5, 0, 0]);
    expect(
      setFindings({ ...emptyRecordTables(), piece: { crate: moved } }).map(({ code, message, place }) => [
        code,
        message,
        place,
      ]),
    ).toEqual([
      ['PIECE_ORIGIN_MOVED', 'crate lies 0.5, 0, 0 m beside where it lay before it was replaced', { piece: 'crate' }],
    ]);
    const [same] = takenPieces([read('crate', moved.bounds)], [moved], new Map());
    expect(placeOfTaken(same, true).movedOrigin).toEqual([0.5, 0, 0]);
    const [back] = takenPieces([read('crate')], [moved], new Map());
    expect(placeOfTaken(back, false).movedOrigin).toBeNull();
    expect(setFindings({ ...emptyRecordTables(), piece: { crate: { ...moved, movedOrigin: null } } })).toEqual([]);
  });
});

describe('pieces that are taken in', () => {
  it('replace the one of their name or the one that is chosen; else they are new under a free name', () => {
    const kit = [known('crate'), known('cart')];
    const as = (choices: [string, string | null][], ...names: string[]): string[] =>
      takenPieces(
        names.map((name) => read(name)),
        kit,
        new Map(choices),
      ).map((one) => `${one.as}${one.replaced ? '!' : ''}`);
    expect(as([], 'crate', 'lid')).toEqual(['crate!', 'lid']);
    expect(as([['lid', 'cart']], 'lid')).toEqual(['cart!']);
    expect(as([['crate', null]], 'crate', 'Crate', 'CRATE 2')).toEqual(['crate 2', 'Crate 3', 'CRATE 2 2']);
    const long = 'c'.repeat(100);
    const [other] = takenPieces([read(long)], [known(long)], new Map([[long, null]]));
    expect(other.as).toBe(`${'c'.repeat(98)} 2`);
    const both = takenPieces([read('crate'), read('lid')], kit, new Map([['lid', 'crate']]));
    expect(replacedTwice(both)?.name).toBe('crate');
    expect(replacedTwice(both.slice(1))).toBeUndefined();
  });

  it('get as many LODs as those had that they replace, at their mean ratio', () => {
    expect(chainLike([step])).toBeUndefined();
    expect(chainLike([step, { ...step, triangles: 6 }, { ...step, triangles: 3 }])).toEqual({ steps: 2, ratio: 0.5 });
    expect(chainLike([step, { ...step, triangles: 0 }])).toEqual({ steps: 1, ratio: 0.5 });
    expect(chainLike([step, step])).toEqual({ steps: 1, ratio: 0.95 });
  });

  it('stand in the kit under their new name, moved, with what only the old one used gone', async () => {
    const kit = await writeKitGlb([wedge('crate'), wedge('cart')]);
    const added = await writeKitGlb([wedge('lid', [1, 0, 0]), wedge('rest')]);
    const pieces = [{ name: 'lid', as: 'crate', move: backFrom([1, 0, 0]) }];
    const { glb } = await addToKit({ kit, added, pieces }, context);
    const { meshes } = await readGlb(glb);
    expect(meshes.pieces.map((piece) => [piece.name, meshBounds(piece)])).toEqual([
      ['cart', box([0, 0, 0], [2, Math.fround(0.1), 1])],
      ['crate', box([0, 0, 0], [2, Math.fround(0.1), 1])],
    ]);
    expect(meshes.materials.map(({ name }) => name)).toEqual(['of cart', 'of lid']);
    await expect(addToKit({ kit, added, pieces: [{ name: 'gone', as: 'x' }] }, context)).rejects.toThrow(
      'no piece called gone',
    );
    const twice = [
      { name: 'lid', as: 'x' },
      { name: 'rest', as: 'x' },
    ];
    await expect(addToKit({ kit, added, pieces: twice }, context)).rejects.toThrow(
      'two pieces cannot become the same one',
    );
    const without = await removePieceFromKit({ kit, name: 'crate' });
    expect((await readGlb(without)).meshes.pieces.map(({ name }) => name)).toEqual(['cart']);
    const empty = await removePieceFromKit({ kit: without, name: 'cart' });
    expect((await readGlb(empty)).meshes).toEqual({ pieces: [], materials: [], textures: [] });
  });
});

describe('the users of a piece', () => {
  const placement = (id: string, piece: string): StratumContent['placement'][number] => ({
    id,
    piece,
    position: [0, 0, 0],
    turn: [0, 0, 0],
    scale: [1, 1, 1],
  });
  const content: StratumContent = {
    ...EMPTY_CONTENT,
    placement: [placement('a', 'crate'), placement('b', 'cart'), placement('c', 'crate')],
    patch: [
      {
        id: 'b..low',
        level: 'low',
        kind: 'placement',
        target: 'b',
        change: 'changed',
        fields: { piece: 'crate' },
        was: { piece: 'cart' },
      },
    ],
  };

  it('are counted, stand with another piece, or go', () => {
    expect(usesOfPiece(content, 'crate')).toEqual({ placements: 2, changes: 1 });
    expect(usesOfPiece(content, 'gone')).toEqual({ placements: 0, changes: 0 });
    expect(usesOfPiece(EMPTY_CONTENT, 'crate')).toEqual({ placements: 0, changes: 0 });
    expect(placeInstead('s', content, 'crate', 'lid')).toEqual([
      { document: 's', kind: 'placement', id: 'a', field: 'piece', before: 'crate', after: 'lid' },
      { document: 's', kind: 'placement', id: 'c', field: 'piece', before: 'crate', after: 'lid' },
      {
        document: 's',
        kind: 'patch',
        id: 'b..low',
        field: 'fields',
        before: { piece: 'crate' },
        after: { piece: 'lid' },
      },
    ]);
    expect(placeInstead('s', content, 'crate', null)).toEqual(
      ['a', 'c'].map((id) => ({
        document: 's',
        kind: 'placement',
        id,
        field: null,
        before: { ...placement(id, 'crate') },
        after: null,
      })),
    );
  });
});
