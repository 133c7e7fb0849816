import {
  buildChains,
  createRunContext,
  meshBounds,
  plainMaterial,
  readGlb,
  sha256Hex,
  sinDegrees,
  cosDegrees,
  smoothNormals,
  writeGlb,
  type KitMeshes,
  type MeshPart,
} from '@stravel/core';
import type { DemoKit } from './kits';

const KIT = 'kit-reach';
const MATERIALS = [
  plainMaterial('sea rock', { baseColour: [0.31, 0.3, 0.27, 1], roughness: 0.95 }),
  plainMaterial('salt crust', { baseColour: [0.85, 0.83, 0.78, 1], roughness: 0.8 }),
  plainMaterial('tarred timber', { baseColour: [0.2, 0.15, 0.11, 1], roughness: 0.9 }),
];
const [ROCK, CRUST, TIMBER] = [0, 1, 2];

/** Where a surface is at a height and an angle: radius along x and z, and height, metres. Both go from 0 to 1. */
type Shape = (height: number, around: number) => readonly [number, number, number];

/** A closed mantle of fine squares, from one height to another. */
function mantle(material: number, shape: Shape, rows: number, sides: number, from = 0, to = 1): MeshPart {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let row = 0; row <= rows; row++) {
    for (let side = 0; side < sides; side++) {
      const around = side / sides;
      const [rx, rz, y] = shape(from + ((to - from) * row) / rows, around);
      positions.push(rx * cosDegrees(around * 360), y, rz * sinDegrees(around * 360));
      if (row === rows) continue;
      const a = row * sides + side;
      const b = row * sides + ((side + 1) % sides);
      indices.push(a, a + sides, b, b, a + sides, b + sides);
    }
  }
  const [values, list] = [Float32Array.from(positions), Uint32Array.from(indices)];
  return {
    material,
    attributes: [
      { semantic: 'POSITION', size: 3, values },
      { semantic: 'NORMAL', size: 3, values: smoothNormals(values, list) },
    ],
    indices: list,
  };
}

/** Ripples of many lengths, about −1 to 1. */
function ripple(height: number, around: number, seed: number): number {
  let sum = 0;
  for (const [k, [times, along, size]] of [
    [3, 200, 0.5],
    [5, 430, 0.28],
    [11, 900, 0.14],
    [23, 2300, 0.08],
  ].entries()) {
    sum += size * sinDegrees(around * 360 * times + height * along + seed * (k + 1) * 37);
  }
  return sum;
}

const stack: Shape = (h, a) => {
  const radius = h >= 1 ? 0 : (3.2 - 1.9 * h * h) * (1 + 0.16 * ripple(h, a, 3)) + 0.4 * (1 - h);
  return [radius, radius * 0.85, 13 * h];
};
const boulder: Shape = (h, a) => {
  const round = sinDegrees(180 * h);
  return [
    1.9 * round * (1 + 0.12 * ripple(h, a, 8)),
    1.5 * round * (1 + 0.12 * ripple(h, a, 8)),
    2.3 * (1 - cosDegrees(180 * h)) * 0.5,
  ];
};
const hull: Shape = (h, a) => {
  const planks = 1 + 0.012 * sinDegrees(h * 360 * 14);
  const open = 0.35 + 0.65 * sinDegrees(90 * h);
  return [9 * (0.75 + 0.25 * h) * planks, 2.6 * open * planks * (1 + 0.03 * ripple(h, a, 5)), 3.6 * h];
};

/** A kit of fine meshes off the flat, each with a detail chain. */
export async function reachKit(): Promise<DemoKit> {
  const meshes: KitMeshes = {
    materials: MATERIALS,
    textures: [],
    pieces: [
      // Rock and crust meet in one ring of vertices.
      { name: 'sea stack', parts: [mantle(ROCK, stack, 96, 128, 0, 0.75), mantle(CRUST, stack, 32, 128, 0.75, 1)] },
      { name: 'brine boulder', parts: [mantle(ROCK, boulder, 72, 96)] },
      { name: 'wreck hull', parts: [mantle(TIMBER, hull, 112, 144)] },
    ],
  };
  const names = meshes.pieces.map(({ name }) => name);
  const { glb, chains } = await buildChains({ glb: await writeGlb(meshes), names }, createRunContext());
  const { meshes: written } = await readGlb(glb);
  const pieces = chains.map(({ name, steps }) => {
    const mesh = written.pieces.find((piece) => piece.name === name) ?? meshes.pieces[0];
    return { id: `piece-${name.replace(/ /g, '-')}`, kit: KIT, name, bounds: meshBounds(mesh), steps };
  });
  return { kit: { id: KIT, name: 'Reach kit', key: 'reach-kit', mesh: sha256Hex(glb) }, pieces, bytes: glb };
}
