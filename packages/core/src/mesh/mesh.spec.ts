import fc from 'fast-check';
import { joinedMeshes, prunedMeshes } from './join-meshes';
import { plainMaterial, type KitMeshes, type MeshPart, type MeshTexture } from './kit-meshes';
import { meshBounds, stepCost } from './mesh-cost';
import { partFault } from './mesh-faults';
import { smoothNormals } from './mesh-normals';
import { IDENTITY, placePart } from './place-part';
import type { LinearMap } from '../geometry/matrix';

const part = (over: Partial<MeshPart> = {}): MeshPart => ({
  material: 0,
  attributes: [
    { semantic: 'POSITION', size: 3, values: Float32Array.of(0, 0, 0, 2, 0, 0, 0, 1, 0) },
    { semantic: 'NORMAL', size: 3, values: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1) },
  ],
  indices: Uint32Array.of(0, 1, 2),
  ...over,
});
const texture = (name: string, side = 2): MeshTexture => ({
  name,
  mimeType: 'image/png',
  bytes: new Uint8Array(1),
  widthPixels: side,
  heightPixels: side,
});
const use = (number: number) => ({
  texture: number,
  coordinates: 0,
  wrapS: 10497,
  wrapT: 10497,
  magFilter: null,
  minFilter: null,
});

describe('a part placed by its node', () => {
  it('keeps its faces’ fronts where its normals look, whatever the map', () => {
    const number = fc.integer({ min: -300, max: 300 }).map((hundredths) => hundredths / 100);
    fc.assert(
      fc.property(fc.array(number, { minLength: 9, maxLength: 9, size: 'max' }), (list) => {
        const map = list as unknown as LinearMap;
        const [a, b, c, d, e, f, g, h, i] = map;
        const determinant = a * (e * i - f * h) - d * (b * i - c * h) + g * (b * f - c * e);
        fc.pre(Math.abs(determinant) > 0.05);
        const placed = placePart(part(), map);
        const p = placed.attributes[0].values;
        const [x, y, z] = [...placed.indices].map((index) => [p[index * 3], p[index * 3 + 1], p[index * 3 + 2]]);
        const u = [0, 1, 2].map((k) => y[k] - x[k]);
        const v = [0, 1, 2].map((k) => z[k] - x[k]);
        const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
        const normal = placed.attributes[1].values.slice(0, 3);
        const length = Math.hypot(...n);
        expect((n[0] * normal[0] + n[1] * normal[1] + n[2] * normal[2]) / length).toBeCloseTo(1, 3);
        expect(Math.hypot(...normal)).toBeCloseTo(1, 5);
      }),
    );
    const same = part();
    expect(placePart(same, IDENTITY)).toBe(same);
  });
});

describe('what is wrong with a part', () => {
  it.each([
    ['has no positions', { attributes: [] }],
    ['has no triangles', { indices: new Uint32Array(0) }],
    ['has 2 indices, must be three a triangle', { indices: Uint32Array.of(0, 1) }],
    ['indices[1] is 7, must be below 3', { indices: Uint32Array.of(0, 7, 2) }],
    [
      'has 1 of NORMAL for 3 vertices',
      { attributes: [part().attributes[0], { semantic: 'NORMAL', size: 3, values: new Float32Array(3) }] },
    ],
    [
      'POSITION of vertex 2 is Infinity, must be finite',
      { attributes: [{ semantic: 'POSITION', size: 3, values: Float32Array.of(0, 0, 0, 1, 0, 0, 0, Infinity, 0) }] },
    ],
  ])('is that it %s', (fault, over) => {
    expect(partFault(part(over))).toBe(fault);
  });

  it('is nothing for a sound one', () => {
    expect(partFault(part())).toBeUndefined();
  });
});

describe('normals made from faces', () => {
  it('weigh faces by area, and look up where there is none, by hand', () => {
    // A triangle of area 2 looking at +z and one of area 1 at +y meet in the first two vertices; the last belongs to none.
    const positions = Float32Array.of(0, 0, 0, 2, 0, 0, 0, 2, 0, 0, 0, -1, 9, 9, 9);
    const normals = smoothNormals(positions, Uint32Array.of(0, 1, 2, 0, 1, 3));
    expect([...normals.slice(0, 3)].map((value) => Math.round(value * 1000) / 1000)).toEqual([0, 0.447, 0.894]);
    expect([...normals.slice(6, 9)]).toEqual([0, 0, 1]);
    expect([...normals.slice(9, 12)]).toEqual([0, 1, 0]);
    expect([...normals.slice(12)]).toEqual([0, 1, 0]);
  });
});

describe('meshes of kits', () => {
  const kit = (name: string): KitMeshes => ({
    pieces: [{ name, parts: [part()] }],
    materials: [plainMaterial(`${name} clay`, { maps: { baseColour: use(1) } }), plainMaterial('unused')],
    textures: [texture('unused'), texture(`${name} grain`)],
  });

  it('join with their materials and textures, and lose what nobody uses', () => {
    const joined = prunedMeshes(joinedMeshes(kit('a'), kit('b')));
    expect(joined.materials.map(({ name, maps }) => [name, maps.baseColour?.texture])).toEqual([
      ['a clay', 0],
      ['b clay', 1],
    ]);
    expect(joined.textures.map(({ name }) => name)).toEqual(['a grain', 'b grain']);
    expect(joined.pieces.map(({ parts }) => parts[0].material)).toEqual([0, 1]);
  });

  it('cost their textures at the full step alone, by hand', () => {
    const { pieces, ...rest } = kit('a');
    // Three vertices of 24 bytes, three indices of 4, 2 · 2 pixels of 4 bytes and a third more.
    expect([stepCost(pieces[0], rest, 0), stepCost(pieces[0], rest, 1).bytes]).toEqual([
      { triangles: 1, vertices: 3, materials: 1, bytes: 72 + 12 + 22 },
      84,
    ]);
    expect(meshBounds(pieces[0])).toEqual({ min: [0, 0, 0], max: [2, 1, 0] });
  });
});
