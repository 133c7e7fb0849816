import fc from 'fast-check';
import { validateBytes } from 'gltf-validator';
import { plainMaterial, type KitMeshes } from '../../mesh/kit-meshes';
import { compressGlb } from './compress-glb';
import { openGlb } from './open-glb';
import { readGlb } from './read-glb';
import { writeGlb } from './write-glb';

const numbers = fc.float({ min: -50000, max: 50000, noNaN: true }).map((value) => Math.fround(value + 0));
/** Some meshes of one material: any points, any triangles among them, and a second set of numbers for each point. */
const kits = fc
  .array(
    fc.integer({ min: 3, max: 40 }).chain((points) =>
      fc.record({
        positions: fc.array(numbers, { minLength: points * 3, maxLength: points * 3 }),
        coordinates: fc.array(numbers, { minLength: points * 2, maxLength: points * 2 }),
        triangles: fc.array(fc.uniqueArray(fc.integer({ min: 0, max: points - 1 }), { minLength: 3, maxLength: 3 }), {
          minLength: 1,
          maxLength: 60,
        }),
      }),
    ),
    { minLength: 1, maxLength: 4 },
  )
  .map((meshes): KitMeshes => ({
    pieces: meshes.map(({ positions, coordinates, triangles }, i) => ({
      name: `piece ${i}`,
      parts: [
        {
          material: 0,
          attributes: [
            { semantic: 'POSITION', size: 3, values: Float32Array.from(positions) },
            { semantic: 'TEXCOORD_0', size: 2, values: Float32Array.from(coordinates) },
          ],
          indices: Uint32Array.from(triangles.flat()),
        },
      ],
    })),
    materials: [plainMaterial('rust')],
    textures: [],
  }));

/** A mesh as bytes: the least that two must share to be drawn alike. Triangles begin at their least corner, as packing turns them. */
function plain({ pieces }: KitMeshes): unknown {
  return pieces.map(({ name, parts }) => [
    name,
    parts.map(({ attributes, indices }) => [
      attributes.map(({ semantic, values }) => [
        semantic,
        Buffer.from(Float32Array.from(values).buffer).toString('hex'),
      ]),
      Array.from({ length: indices.length / 3 }, (_unused, i) => {
        const [a, b, c] = indices.subarray(3 * i, 3 * i + 3);
        const least = Math.min(a, b, c);
        return least === a ? [a, b, c] : least === b ? [b, c, a] : [c, a, b];
      }),
    ]),
  ]);
}

describe('a compressed GLB', () => {
  it('has every number and every triangle that it had, in the same bytes each time', async () => {
    await fc.assert(
      fc.asyncProperty(kits, async (meshes) => {
        const glb = await writeGlb(meshes);
        const packed = await compressGlb(glb);
        const { meshes: read, faults } = await readGlb(packed);
        expect(faults).toEqual([]);
        expect(plain(read)).toEqual(plain((await readGlb(glb)).meshes));
        expect(Buffer.compare(await compressGlb(glb), packed)).toBe(0);
      }),
      { numRuns: 40 },
    );
  });

  it('is smaller where there is much to pack, names its extension, and is sound', async () => {
    const side = 60;
    const positions = Float32Array.from({ length: side * side * 3 }, (_unused, i) => {
      const point = Math.floor(i / 3);
      return [point % side, 0, Math.floor(point / side)][i % 3];
    });
    const indices = Uint32Array.from(
      Array.from({ length: (side - 1) * (side - 1) }, (_unused, i) => {
        const at = Math.floor(i / (side - 1)) * side + (i % (side - 1));
        return [at, at + side, at + 1, at + 1, at + side, at + side + 1];
      }).flat(),
    );
    const glb = await writeGlb({
      pieces: [
        {
          name: 'field',
          parts: [{ material: null, attributes: [{ semantic: 'POSITION', size: 3, values: positions }], indices }],
        },
      ],
      materials: [],
      textures: [],
    });
    const packed = await compressGlb(glb);
    expect(packed.length).toBeLessThan(glb.length / 2);
    const { issues } = await validateBytes(packed);
    expect(openGlb(packed).json).toMatchObject({ extensionsRequired: ['EXT_meshopt_compression'] });
    expect(issues.numErrors).toBe(0);
  });
});
