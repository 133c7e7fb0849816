import {
  createRunContext,
  MeasuredSurface,
  simplifyChain,
  simplifierReady,
  smoothNormals,
  surfaceOf,
  type MeshPart,
} from '@stravel/core';
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { atMost, inTurns, timing, timingText, type Row } from '../measure';

/** 2 · 317² triangles: a little over 200,000. */
const SIDE = 317;
const STEPS = 5;
const ROUNDS = 15;

/** A rippled sheet with normals and texture coordinates. */
function sheet(side: number): MeshPart {
  const positions = new Float32Array((side + 1) * (side + 1) * 3);
  const coordinates = new Float32Array((side + 1) * (side + 1) * 2);
  const indices = new Uint32Array(side * side * 6);
  for (let r = 0, at = 0; r <= side; r++) {
    for (let c = 0; c <= side; c++) {
      const v = r * (side + 1) + c;
      positions.set([c / 10, Math.sin(c / 9) + Math.cos(r / 13) * Math.sin((r + c) / 31), r / 10], v * 3);
      coordinates.set([c / side, r / side], v * 2);
      if (c === side || r === side) continue;
      indices.set([v, v + side + 1, v + 1, v + 1, v + side + 1, v + side + 2], at);
      at += 6;
    }
  }
  return {
    material: 0,
    attributes: [
      { semantic: 'POSITION', size: 3, values: positions },
      { semantic: 'NORMAL', size: 3, values: smoothNormals(positions, indices) },
      { semantic: 'TEXCOORD_0', size: 2, values: coordinates },
    ],
    indices,
  };
}

/** The same calls one after the other, each on the indices of the one before and all vertices of the full step. */
function cascadedCalls({ attributes, indices }: MeshPart): number[] {
  const [positions, normals, coordinates] = attributes.map(({ values }) => values);
  const vertices = positions.length / 3;
  const looked = new Float32Array(vertices * 5);
  for (let v = 0; v < vertices; v++) {
    for (let k = 0; k < 3; k++) looked[v * 5 + k] = normals[v * 3 + k];
    for (let k = 0; k < 2; k++) looked[v * 5 + 3 + k] = coordinates[v * 2 + k];
  }
  const lock = new Uint8Array(vertices);
  const counts: number[] = [];
  let before = indices;
  for (let step = 0; step < STEPS; step++) {
    const wanted = Math.floor(before.length / 6) * 3;
    [before] = MeshoptSimplifier.simplifyWithAttributes(
      before,
      positions,
      3,
      looked,
      5,
      [0.5, 0.5, 0.5, 0.25, 0.25],
      lock,
      wanted,
      1e9,
    );
    counts.push(before.length / 3);
  }
  return counts;
}

/** A detail chain against cascaded calls of the simplifier; the deviation is timed apart. */
export async function chainBench(): Promise<Row[]> {
  await simplifierReady();
  const part = sheet(SIDE);
  let chain: Uint32Array[][] = [];
  let plain: number[] = [];
  const [own, calls] = await inTurns(
    ROUNDS,
    () => (chain = simplifyChain([part], { steps: STEPS, ratio: 0.5 }, () => undefined)),
    () => (plain = cascadedCalls(part)),
  );
  const context = createRunContext();
  const deviations: number[] = [];
  const samples: number[] = [];
  for (let round = 0; round < 3; round++) {
    const start = performance.now();
    const full = new MeasuredSurface(surfaceOf([part]));
    deviations.splice(
      0,
      deviations.length,
      ...chain.map((indices) => full.deviation(surfaceOf([part], indices), context)),
    );
    samples.push(performance.now() - start);
  }
  return [
    { name: 'triangles of the full step', value: part.indices.length / 3 },
    { name: 'triangles of the steps', value: chain.map(([indices]) => indices.length / 3).join(', ') },
    { name: 'triangles of the plain calls', value: plain.join(', ') },
    { name: 'chain of five steps', value: timingText(own) },
    { name: 'cascaded calls', value: timingText(calls) },
    atMost('chain / cascaded calls', own.medianMs / calls.medianMs, 1.15),
    { name: 'measuring the deviation of five steps', value: timingText(timing(samples)) },
    { name: 'deviations, metres', value: deviations.map((metres) => metres.toFixed(4)).join(', ') },
  ];
}
