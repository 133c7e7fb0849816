import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { plainMaterial, positionsOf, type KitMeshes, type MeshPart } from '../mesh/kit-meshes';
import { smoothNormals } from '../mesh/mesh-normals';
import { TriangleGrid } from '../mesh/triangle-grid';
import { randomStream } from '../random/random-stream';
import { addToKit } from './add-to-kit';
import { buildChains } from './kit-steps';
import { MeasuredSurface, surfaceOf } from './measure-deviation';
import { sharedBorders, simplifierReady, simplifyChain } from './simplify-chain';
import { pixelsAtOneMetre, stepAtDistance, switchDistances } from './switch-distance';

const context = createRunContext();

/** A sheet of `side` by `side` squares over `metres`, raised by `height`. */
function sheet(side: number, metres: number, height: (x: number, z: number) => number, fromX = 0): MeshPart {
  const positions = new Float32Array((side + 1) * (side + 1) * 3);
  const coordinates = new Float32Array((side + 1) * (side + 1) * 2);
  const indices: number[] = [];
  for (let r = 0; r <= side; r++) {
    for (let c = 0; c <= side; c++) {
      const v = r * (side + 1) + c;
      const [x, z] = [fromX + (c / side) * metres, (r / side) * metres];
      positions.set([x, height(x, z), z], v * 3);
      coordinates.set([c / side, r / side], v * 2);
      if (c < side && r < side) indices.push(v, v + side + 1, v + 1, v + 1, v + side + 1, v + side + 2);
    }
  }
  const list = Uint32Array.from(indices);
  return {
    material: 0,
    attributes: [
      { semantic: 'POSITION', size: 3, values: positions },
      { semantic: 'NORMAL', size: 3, values: smoothNormals(positions, list) },
      { semantic: 'TEXCOORD_0', size: 2, values: coordinates },
    ],
    indices: list,
  };
}
const dune = (x: number, z: number): number => (x * (4 - x) * z * (4 - z)) / 16;
const kitOf = (...pieces: { name: string; parts: MeshPart[] }[]): KitMeshes => ({
  pieces,
  materials: [plainMaterial('sand'), plainMaterial('rock')],
  textures: [],
});

beforeAll(() => simplifierReady());

describe('a detail chain', () => {
  it('halves the triangles step by step and keeps every attribute as it was', async () => {
    const part = sheet(40, 4, dune);
    const { glb, chains } = await buildChains(
      { glb: await writeGlb(kitOf({ name: 'dune', parts: [part] })), names: ['dune'] },
      context,
    );
    const triangles = chains[0].steps.map((step) => step.triangles);
    expect(triangles[0]).toBe(3200);
    for (let k = 1; k < triangles.length; k++)
      expect(triangles[k]).toBeLessThanOrEqual(Math.ceil(triangles[k - 1] * 0.55));
    expect(triangles).toHaveLength(6);
    const { meshes } = await readGlb(glb);
    expect(meshes.pieces.map(({ name }) => name)).toEqual([
      'dune',
      'dune.step1',
      'dune.step2',
      'dune.step3',
      'dune.step4',
      'dune.step5',
    ]);
    const known = new Set(
      Array.from({ length: 41 * 41 }, (_unused, v) =>
        part.attributes.map(({ values, size }) => values.slice(v * size, v * size + size).join()).join('|'),
      ),
    );
    for (const { parts } of meshes.pieces.slice(1)) {
      const [{ attributes }] = parts;
      for (let v = 0; v < attributes[0].values.length / 3; v++)
        expect(known).toContain(
          attributes.map(({ values, size }) => values.slice(v * size, v * size + size).join()).join('|'),
        );
    }
  });

  it('locks the border that two parts share, so that both keep it whole', () => {
    const [left, right] = [sheet(16, 4, dune), sheet(16, 4, dune, 4)];
    const locks = sharedBorders([left, right]);
    expect(locks.map((lock) => lock.reduce((sum, value) => sum + value, 0))).toEqual([17, 17]);
    const chain = simplifyChain([left, right], { steps: 4, ratio: 0.5 }, () => undefined);
    expect(chain.length).toBeGreaterThanOrEqual(3);
    for (const [a, b] of chain) {
      const border = (part: MeshPart, indices: Uint32Array): string[] =>
        [
          ...new Set(
            [...indices]
              .filter((v) => positionsOf(part)[v * 3] === 4)
              .map((v) => positionsOf(part)[v * 3 + 2].toFixed(6)),
          ),
        ].sort();
      expect(border(left, a)).toHaveLength(17);
      expect(border(left, a)).toEqual(border(right, b));
    }
  });

  it('ends where nothing can be made coarser, and says how many steps are missing', async () => {
    const single: MeshPart = {
      material: 0,
      attributes: [
        { semantic: 'POSITION', size: 3, values: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0) },
        { semantic: 'NORMAL', size: 3, values: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1) },
      ],
      indices: Uint32Array.of(0, 1, 2),
    };
    const { chains } = await buildChains(
      { glb: await writeGlb(kitOf({ name: 'single', parts: [single] })), names: ['single'] },
      context,
    );
    expect(chains).toMatchObject([
      { name: 'single', missingSteps: 5, why: 'its coarsest LOD has 1 triangle, too few to reduce further' },
    ]);
    expect(chains[0].steps).toHaveLength(1);
  });

  it('gives the same bytes twice, leaves other pieces alone, and is cancelled', async () => {
    const glb = await writeGlb(
      kitOf({ name: 'dune', parts: [sheet(20, 4, dune)] }, { name: 'flat', parts: [sheet(8, 4, () => 0)] }),
    );
    const first = await buildChains({ glb, names: ['dune'] }, context);
    expect((await buildChains({ glb, names: ['dune'] }, context)).glb).toEqual(first.glb);
    expect((await readGlb(first.glb)).meshes.pieces.filter(({ name }) => name.startsWith('flat'))).toHaveLength(1);
    const again = await buildChains({ glb: first.glb, names: ['dune', 'flat'], options: { steps: 2 } }, context);
    expect((await readGlb(again.glb)).meshes.pieces.map(({ name }) => name)).toEqual([
      'dune',
      'dune.step1',
      'dune.step2',
      'flat',
      'flat.step1',
      'flat.step2',
    ]);
    await expect(
      buildChains({ glb, names: ['dune'] }, createRunContext({ cancel: { aborted: true } })),
    ).rejects.toThrow('cancelled');
    await expect(buildChains({ glb, names: ['gone'] }, context)).rejects.toThrow(
      'chain: the kit’s GLB has no piece named gone'.replace('’', "'"),
    );
    await expect(buildChains({ glb, names: ['dune'], options: { ratio: 1 } }, context)).rejects.toThrow(
      'must be between 0 and 1, is 1',
    );
  });

  it('of a kit goes when the piece is read in anew', async () => {
    const { glb } = await buildChains(
      {
        glb: await writeGlb(
          kitOf({ name: 'dune', parts: [sheet(20, 4, dune)] }, { name: 'flat', parts: [sheet(8, 4, () => 0)] }),
        ),
        names: ['dune'],
      },
      context,
    );
    const input = {
      kit: glb,
      added: await writeGlb(kitOf({ name: 'dune', parts: [{ ...sheet(4, 4, dune), material: 1 }] })),
      pieces: [{ name: 'dune', as: 'dune' }],
    };
    const { meshes } = await readGlb((await addToKit(input, context)).glb);
    expect(
      meshes.pieces.map(({ name, parts }) => [
        name,
        parts[0].indices.length / 3,
        meshes.materials[parts[0].material ?? -1].name,
      ]),
    ).toEqual([
      ['flat', 128, 'sand'],
      ['dune', 32, 'rock'],
    ]);
  });
});

describe('the measured deviation', () => {
  it('is the height of a bump that a step has lost, whichever way it is looked at, by hand', () => {
    const bump = sheet(8, 8, (x, z) => (x === 4 && z === 4 ? 0.75 : 0));
    const flat = sheet(1, 8, () => 0);
    const [a, b] = [surfaceOf([bump]), surfaceOf([flat])];
    expect(new MeasuredSurface(a).deviation(b, context)).toBeCloseTo(0.75, 6);
    expect(new MeasuredSurface(b).deviation(a, context)).toBeCloseTo(0.75, 6);
    // A hole: half the sheet is gone, its far corners are 4 m from what is left.
    const half = surfaceOf([bump], [bump.indices.filter((_v, i) => Math.floor(i / 6) % 8 < 4)]);
    expect(new MeasuredSurface(a).deviation(half, context)).toBeCloseTo(4, 1);
    expect(new MeasuredSurface(a).deviation(a, context)).toBeLessThan(1e-12);
  });

  it('is never below what plain search finds between the vertices', () => {
    const part = sheet(16, 4, dune);
    const [step] = simplifyChain([part], { steps: 1, ratio: 0.1 }, () => undefined);
    const [full, coarse] = [surfaceOf([part]), surfaceOf([part], step)];
    const grid = new TriangleGrid(coarse.positions, coarse.indices);
    let most = 0;
    for (let v = 0; v < full.positions.length; v += 3)
      most = Math.max(most, grid.nearestSquared(full.positions[v], full.positions[v + 1], full.positions[v + 2]));
    expect(new MeasuredSurface(full).deviation(coarse, context)).toBeGreaterThanOrEqual(Math.sqrt(most));
    expect(most).toBeGreaterThan(0);
  });

  it('rests on the nearest triangle, as a search through all of them finds it', () => {
    fc.assert(
      fc.property(fc.string(), fc.integer({ min: 1, max: 60 }), (seed, count) => {
        const random = randomStream(seed);
        const positions = Float32Array.from({ length: count * 9 }, () => random.between(-5, 5));
        const grid = new TriangleGrid(
          positions,
          Uint32Array.from({ length: count * 3 }, (_unused, i) => i),
        );
        for (let i = 0; i < 10; i++) {
          const p = [0, 1, 2].map(() => random.between(-9, 9));
          const single = Array.from({ length: count }, (_unused, t) =>
            new TriangleGrid(positions.slice(t * 9, t * 9 + 9), Uint32Array.of(0, 1, 2)).nearestSquared(
              p[0],
              p[1],
              p[2],
            ),
          );
          expect(grid.nearestSquared(p[0], p[1], p[2])).toBe(Math.min(...single));
        }
      }),
      { numRuns: 60 },
    );
  });

  it('finds the nearest through triangles with equal corners and corners in a line', () => {
    // One good triangle, one with its first two corners in one place, one 5 m above: the point lies 0.01 m over both of the first.
    const positions = Float32Array.of(
      0,
      0,
      0,
      1,
      0,
      0,
      0,
      0,
      1,
      0.2,
      0,
      0.2,
      0.2,
      0,
      0.2,
      0.4,
      0,
      0.4,
      0,
      5,
      0,
      1,
      5,
      0,
      0,
      5,
      1,
    );
    for (const indices of [
      [0, 1, 2],
      [3, 4, 5],
      [5, 3, 4],
      [4, 5, 3],
      [0, 1, 2, 3, 4, 5],
      [0, 1, 2, 3, 4, 5, 6, 7, 8],
      [3, 4, 5, 0, 1, 2],
    ])
      expect(
        Math.sqrt(new TriangleGrid(positions, Uint32Array.from(indices)).nearestSquared(0.3, 0.01, 0.3)),
      ).toBeCloseTo(0.01, 6);
    expect(new TriangleGrid(positions, Uint32Array.of(3, 3, 3)).nearestSquared(0.2, 2, 0.2)).toBeCloseTo(4, 6);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -2, max: 2 }), { minLength: 9, maxLength: 9 }),
        fc.array(fc.integer({ min: -6, max: 6 }), { minLength: 3, maxLength: 3 }),
        (corners, [x, y, z]) => {
          // Corners on so small a lattice often coincide or lie in a line. Plain reference: points over the whole triangle.
          const corner = Float32Array.from(corners);
          let least = Infinity;
          for (let s = 0; s <= 60; s++)
            for (let t = 0; s + t <= 60; t++) {
              const at = (k: number): number => (corner[k] * (60 - s - t) + corner[3 + k] * s + corner[6 + k] * t) / 60;
              least = Math.min(least, Math.hypot(at(0) - x, at(1) - y, at(2) - z));
            }
          const found = Math.sqrt(new TriangleGrid(corner, Uint32Array.of(0, 1, 2)).nearestSquared(x, y, z));
          expect(found).toBeLessThanOrEqual(least + 1e-9);
          // Points lie at most this far from the nearest sampled one: half of a step of the longest edge, both ways.
          expect(found).toBeGreaterThan(least - 0.12);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('switch distances', () => {
  const view = { fieldOfViewDegrees: 90, pictureHeightPixels: 1000, errorPixels: 2 };

  it('are where the deviation covers the error allowed, by hand', () => {
    // At 90 degrees the picture is 2 m high at 1 m: 500 pixels a metre; 0.04 m are 20 pixels at 1 m, 2 at 10 m.
    expect(pixelsAtOneMetre(view)).toBeCloseTo(500, 9);
    const distances = switchDistances(
      [{}, { deviationMetres: 0.04 }, { deviationMetres: 0.02 }, { deviationMetres: 0.4 }],
      view,
    );
    expect(distances.map((metres) => Math.round(metres * 1e6) / 1e6)).toEqual([0, 10, 10, 100]);
    expect([0, 9.99, 10.01, 99, 101].map((metres) => stepAtDistance(distances, metres))).toEqual([0, 0, 2, 2, 3]);
    expect(switchDistances([{}, { deviationMetres: 0.04 }], view, 3)[1]).toBeCloseTo(30, 6);
  });
});
