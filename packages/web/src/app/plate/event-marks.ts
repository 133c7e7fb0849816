import {
  anchorOf,
  anyItem,
  groupOf,
  kindsWith,
  pathPoints,
  volumeBounds,
  volumeSurface,
  type BlockSurface,
  type Box3,
  type ItemKind,
  type Path,
  type AnyItem,
  type Vector3,
  type Volume,
} from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { isSeen, unseenGroups, type HiddenGroups } from '../document/unseen-groups';
import type { HeightRange, PlateDrawing } from './plate-drawing';

const surfaces = new WeakMap<Volume, BlockSurface | null>();
const lines = new WeakMap<Path, Float64Array>();
/** Part of an edge that is drawn from each of its corners. */
const CORNER_SHARE = 0.22;
const LABEL_FONT = "11.5px 'Spline Sans Variable', sans-serif";

/** The surface of a volume record, made once; undefined for a sphere. */
export function surfaceOfVolume(volume: Volume): BlockSurface | undefined {
  let surface = surfaces.get(volume);
  if (surface === undefined) surfaces.set(volume, (surface = volumeSurface(volume) ?? null));
  return surface ?? undefined;
}

/** Bounds of a volume record, of its surface where it has one. */
export function boundsOfVolume(volume: Volume): Box3 {
  return surfaceOfVolume(volume)?.bounds ?? volumeBounds(volume);
}

/** Points of a path record's line, made once; xyz triples. */
export function lineOfPath(path: Path): Float64Array {
  let line = lines.get(path);
  if (!line) lines.set(path, (line = pathPoints(path)));
  return line;
}

/** Volumes by the corners of their bodies, paths with their knots and way, links as arrows from what sets them off to what they act on. */
export function drawEvents(
  drawing: PlateDrawing,
  strata: readonly StratumDocument[],
  hidden: HiddenGroups,
  range: HeightRange | undefined,
): void {
  const { context } = drawing;
  const unseen = new Map(strata.map((document) => [document, unseenGroups(document, hidden)]));
  const seen = (document: StratumDocument, group: string | null | undefined): boolean =>
    isSeen(group, unseen.get(document) ?? new Set());
  const inRange = (low: number, high: number): number =>
    !range || (high >= range.bottom && low <= range.top) ? 1 : 0.25;
  context.font = LABEL_FONT;
  for (const document of strata) {
    for (const volume of document.tables.volume.values()) {
      if (!seen(document, volume.group)) continue;
      context.globalAlpha = inRange(volume.position[1], volume.position[1] + heightOf(volume));
      drawVolume(drawing, volume);
    }
    for (const path of document.tables.path.values()) {
      if (!seen(document, path.group)) continue;
      const heights = path.knots.map(({ position }) => position[1]);
      context.globalAlpha = inRange(Math.min(...heights), Math.max(...heights));
      drawPath(drawing, path);
    }
  }
  context.globalAlpha = 1;
  drawLinks(drawing, strata, seen);
}

function heightOf({ shape }: Volume): number {
  return shape.form === 'box' ? shape.size[1] : shape.form === 'prism' ? shape.heightMetres : shape.radiusMetres;
}

function drawVolume(drawing: PlateDrawing, volume: Volume): void {
  const { context, colours } = drawing;
  context.strokeStyle = colours.volume;
  context.fillStyle = colours.volume;
  context.lineWidth = 2;
  context.beginPath();
  if (volume.shape.form === 'sphere') arcsOfSphere(drawing, volume.position, volume.shape.radiusMetres);
  else for (const face of surfaceOfVolume(volume)?.faces ?? []) cornersOfFace(drawing, face);
  context.stroke();
  // At its upper left corner on the plan, away from what stands in its middle.
  const { min, max } = boundsOfVolume(volume);
  const at = drawing.view === 'plan' ? drawing.at(min[0], max[1], min[2]) : drawing.at(...volume.position);
  if (at) context.fillText(volume.name || 'volume', at[0] + 5, at[1] + 13);
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

function drawPath({ at, context, colours, view }: PlateDrawing, path: Path): void {
  const line = lineOfPath(path);
  context.strokeStyle = colours.path;
  context.fillStyle = colours.plate;
  context.lineWidth = view === 'plan' ? 2.5 : 1.5;
  context.beginPath();
  for (let i = 0; i < line.length; i += 3) {
    const p = at(line[i], line[i + 1], line[i + 2]);
    if (!p) continue;
    if (i === 0) context.moveTo(...p);
    else context.lineTo(...p);
  }
  context.stroke();
  if (view !== 'plan') return;
  context.lineWidth = 1.5;
  for (const { position } of path.knots) {
    const p = at(...position);
    if (!p) continue;
    context.beginPath();
    context.rect(p[0] - 3.5, p[1] - 3.5, 7, 7);
    context.fill();
    context.stroke();
  }
  const middle = Math.floor(line.length / 6) * 3;
  if (middle >= 3)
    arrow(
      context,
      at(line[middle - 3], line[middle - 2], line[middle - 1]),
      at(line[middle], line[middle + 1], line[middle + 2]),
      colours.path,
    );
  const first = at(...path.knots[0].position);
  context.fillStyle = colours.path;
  if (first && path.name) context.fillText(path.name, first[0] + 8, first[1] + 12);
}

function drawLinks(
  drawing: PlateDrawing,
  strata: readonly StratumDocument[],
  seen: (document: StratumDocument, group: string | null | undefined) => boolean,
): void {
  const { context, colours } = drawing;
  const wanted = strata.flatMap((document) => [...document.tables.link.values()]);
  if (wanted.length === 0) return;
  const place = (id: string): [number, number] | undefined => {
    for (const document of strata) {
      const placed = placedItem(document, id);
      const anchor = placed && anchorOf(placed);
      if (placed && anchor && seen(document, groupOf(placed))) return drawing.at(...anchor);
    }
    return undefined;
  };
  context.strokeStyle = colours.link;
  context.lineWidth = 1.2;
  for (const link of wanted) {
    const [from, to] = [place(link.emitter), place(link.target)];
    if (!from || !to) continue;
    const bow: [number, number] = [
      (from[0] + to[0]) / 2 - (to[1] - from[1]) * 0.15,
      (from[1] + to[1]) / 2 + (to[0] - from[0]) * 0.15,
    ];
    context.setLineDash([2, 3]);
    context.beginPath();
    context.moveTo(...from);
    context.quadraticCurveTo(...bow, ...to);
    context.stroke();
    context.setLineDash([]);
    arrow(context, bow, to, colours.link);
    context.fillStyle = colours.link;
    context.fillText(link.action, bow[0], bow[1]);
  }
}

/** What a link may begin or end at, by its id alone. */
export function placedItem(document: StratumDocument, id: string): AnyItem | undefined {
  for (const kind of kindsWith('linked')) {
    const item = document.item(kind, id);
    if (item) return anyItem<ItemKind>(kind, item);
  }
  return undefined;
}

function arrow(
  context: CanvasRenderingContext2D,
  from: readonly [number, number] | undefined,
  to: readonly [number, number] | undefined,
  colour: string,
): void {
  if (!from || !to) return;
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  if (length < 1e-6) return;
  const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  context.fillStyle = colour;
  context.beginPath();
  context.moveTo(to[0], to[1]);
  context.lineTo(to[0] - ux * 9 - uy * 4, to[1] - uy * 9 + ux * 4);
  context.lineTo(to[0] - ux * 9 + uy * 4, to[1] - uy * 9 - ux * 4);
  context.closePath();
  context.fill();
}
