import { volumeBounds, volumeSurface, type BlockSurface, type Box3, type Vector3, type Volume } from '@stravel/core';
import type { PlateDrawing } from '../plate-drawing';
import { isNearRim } from './plan-outline';
import { boxesOfRecords, type MarksEnv, type PlateKind } from './plate-kind';

/** Part of an edge that is drawn from each of its corners. */
const CORNER_SHARE = 0.22;

const surfaces = new WeakMap<Volume, BlockSurface | null>();

/** The surface of a volume record, made once; undefined for a sphere. */
function surfaceOfVolume(volume: Volume): BlockSurface | undefined {
  let surface = surfaces.get(volume);
  if (surface === undefined) surfaces.set(volume, (surface = volumeSurface(volume) ?? null));
  return surface ?? undefined;
}

/** Bounds of a volume record, of its surface where it has one. */
function boundsOfVolume(volume: Volume): Box3 {
  return surfaceOfVolume(volume)?.bounds ?? volumeBounds(volume);
}

function heightOf({ shape }: Volume): number {
  return shape.form === 'box' ? shape.size[1] : shape.form === 'prism' ? shape.heightMetres : shape.radiusMetres;
}

function drawVolume(drawing: PlateDrawing, volume: Volume, env: MarksEnv): void {
  const { context, colours } = drawing;
  context.strokeStyle = colours.volume;
  context.lineWidth = 2;
  context.beginPath();
  if (volume.shape.form === 'sphere') arcsOfSphere(drawing, volume.position, volume.shape.radiusMetres);
  else for (const face of surfaceOfVolume(volume)?.faces ?? []) cornersOfFace(drawing, face);
  context.stroke();
  // At its upper left corner on the plan, away from what stands in its middle.
  const { min, max } = boundsOfVolume(volume);
  const at = drawing.view === 'plan' ? drawing.at(min[0], max[1], min[2]) : drawing.at(...volume.position);
  if (!at) return;
  const size = (max[0] - min[0]) * (max[2] - min[2]) * drawing.scale ** 2;
  env.label({
    id: volume.id,
    text: volume.name || 'volume',
    at: [at[0] + 5, at[1] + 13],
    size,
    colour: colours.volume,
  });
}

/** Short strokes from each corner of a face along its edges. */
function cornersOfFace({ at, context, view }: PlateDrawing, face: Float64Array): void {
  // On the plan only what lies flat is drawn: upright faces are seen on edge.
  const count = face.length / 3;
  if (
    view === 'plan' &&
    new Set(Array.from({ length: count }, (_unused, i) => Math.round(face[i * 3 + 1] * 1000))).size > 1
  )
    return;
  const point = (i: number, j: number, share: number): [number, number] | undefined =>
    at(
      face[i * 3] + (face[j * 3] - face[i * 3]) * share,
      face[i * 3 + 1] + (face[j * 3 + 1] - face[i * 3 + 1]) * share,
      face[i * 3 + 2] + (face[j * 3 + 2] - face[i * 3 + 2]) * share,
    );
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    for (const [from, to] of [
      [0, CORNER_SHARE],
      [1 - CORNER_SHARE, 1],
    ]) {
      const [a, b] = [point(i, j, from), point(i, j, to)];
      if (!a || !b) continue;
      context.moveTo(...a);
      context.lineTo(...b);
    }
  }
}

/** Four arcs of the circle around a sphere. */
function arcsOfSphere({ at, context }: PlateDrawing, [x, y, z]: Vector3, radius: number): void {
  for (let quarter = 0; quarter < 4; quarter++) {
    for (let step = 0; step <= 6; step++) {
      const angle = (quarter * Math.PI) / 2 - 0.5 + step / 6;
      const p = at(x + Math.cos(angle) * radius, y, z + Math.sin(angle) * radius);
      if (!p) continue;
      if (step === 0) context.moveTo(...p);
      else context.lineTo(...p);
    }
  }
}

export const VOLUME_PLATE: PlateKind<'volume'> = {
  rank: 2,
  bounds: boundsOfVolume,
  boxes: boxesOfRecords(boundsOfVolume),
  faces: (volume) => surfaceOfVolume(volume)?.faces,
  // By its rim, so that what stands in it can be reached.
  isOver: (_volume, spot, filled) => isNearRim({ ...spot, reach: spot.reach * 2 }, filled),
  marks: (table, drawing, env) => {
    for (const volume of table.values()) {
      if (!env.isSeen(volume.group)) continue;
      drawing.context.globalAlpha = env.alphaOf(volume.position[1], volume.position[1] + heightOf(volume));
      drawVolume(drawing, volume, env);
    }
  },
};
