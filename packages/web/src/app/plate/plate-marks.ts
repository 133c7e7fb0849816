import {
  anchorOf as itemAnchor,
  anyItem,
  groupOf,
  kindsWith,
  type AnyItem,
  type Box3,
  type ItemKind,
  type SquareCode,
  type Vector3,
} from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { isSeen, unseenGroups, type HiddenGroups } from '../document/unseen-groups';
import { PLATE_KINDS, plateKind } from './kinds';
import type { MarksEnv } from './kinds/plate-kind';
import type { PickItem } from './pick-item';
import type { PlateLabel } from './plate-labels';
import type { Pane, PlanCamera } from './plate-cameras';
import type { PlateColours } from './plate-colours';
import type { HeightRange, PlateDrawing } from './plate-drawing';
import type { SelectedItems } from './selected-items';

const STEPS = [0.1, 0.5, 1, 5, 10, 50, 100, 500, 1000, 5000];
const MIN_PIXELS = 9;
/** How strongly marks are drawn that the heights of the plan leave out. */
const GHOST_ALPHA = 0.25;
/** Selections of more things are outlined by their bounds. */
const MAX_EXACT_OUTLINES = 1000;
/** Outlines that are drawn in one stroke. */
const LOOPS_A_STROKE = 500;

/** A round length of at least so many pixels at a scale of the plan, metres. */
export function scaleMetres(pixelsAMetre: number, leastPixels = 50): number {
  return STEPS.find((step) => step * pixelsAMetre >= leastPixels) ?? 10000;
}

/** Paper and grid of the plan: the snap step when it is wide enough, else the next round one. @param gridMetres undefined for no grid */
export function drawGrid(
  context: CanvasRenderingContext2D,
  pane: Pane,
  camera: PlanCamera,
  colours: PlateColours,
  gridMetres: number | undefined,
): void {
  context.fillStyle = colours.plate;
  context.fillRect(pane.left, pane.top, pane.width, pane.height);
  if (gridMetres === undefined) return;
  const step =
    [gridMetres, ...STEPS].find(
      (metres) => metres > 0 && metres >= gridMetres && metres * camera.scale >= MIN_PIXELS,
    ) ?? 10000;
  const [x0, z0] = camera.toPlan(pane, pane.left, pane.top);
  const [x1, z1] = camera.toPlan(pane, pane.left + pane.width, pane.top + pane.height);
  for (const [metres, alpha] of [
    [step, 0.45],
    [step * 5, 1],
  ] as const) {
    context.globalAlpha = alpha;
    context.strokeStyle = colours.line;
    context.lineWidth = 0.7;
    context.beginPath();
    for (let i = Math.ceil(x0 / metres); i * metres <= x1; i++) {
      const [px] = camera.toScreen(pane, i * metres, 0);
      context.moveTo(px, pane.top);
      context.lineTo(px, pane.top + pane.height);
    }
    for (let i = Math.ceil(z0 / metres); i * metres <= z1; i++) {
      const [, py] = camera.toScreen(pane, 0, i * metres);
      context.moveTo(pane.left, py);
      context.lineTo(pane.left + pane.width, py);
    }
    context.stroke();
  }
  context.globalAlpha = 1;
}

/** What of a very large level is not drawn yet, or not at all. */
export function drawPending({ context, colours }: PlateDrawing, pane: Pane, pending: number, leftOut: number): void {
  const lines = [
    ...(pending > 0 ? [`Drawing ${pending.toLocaleString('en')} more blocks…`] : []),
    ...(leftOut > 0
      ? [`${leftOut.toLocaleString('en')} blocks are too many to draw; spread them over more strata or levels.`]
      : []),
  ];
  context.fillStyle = colours.over;
  context.font = "13px 'Spline Sans', sans-serif";
  lines.forEach((line, i) => context.fillText(line, pane.left + 12, pane.top + 22 + i * 18));
}

/** Everything that is marked rather than drawn as a body: spawns, volumes, paths, links and their like. @returns their names, still to be written */
export function drawMarks(
  drawing: PlateDrawing,
  strata: readonly StratumDocument[],
  hidden: HiddenGroups,
  range: HeightRange | undefined,
  legend: readonly SquareCode[],
  { isSelected, hasGhosts }: { readonly isSelected: (id: string) => boolean; readonly hasGhosts: boolean },
): readonly PlateLabel[] {
  const labels: PlateLabel[] = [];
  const codes = new Map(legend.map((code) => [code.code, code]));
  const unseen = strata.map((document) => unseenGroups(document, hidden));
  const anchorOf = (id: string): Vector3 | undefined => {
    for (const [i, document] of strata.entries()) {
      const placed = linkedItem(document, id);
      const anchor = placed && itemAnchor(placed);
      if (placed && anchor && isSeen(groupOf(placed), unseen[i])) return anchor;
    }
    return undefined;
  };
  const envs = unseen.map((groups): MarksEnv => ({
    isSeen: (group) => isSeen(group, groups),
    alphaOf: (low, high) => (!range || (high >= range.bottom && low <= range.top) ? 1 : hasGhosts ? GHOST_ALPHA : 0),
    legend: codes,
    anchorOf,
    isSelected,
    label: ({ at: [x, y], ...label }) => {
      const alpha = drawing.context.globalAlpha;
      if (alpha > 0) labels.push({ ...label, x, y, alpha });
    },
  }));
  // In the order of the list, so that small marks lie over large ones.
  for (const kind of Object.keys(PLATE_KINDS) as ItemKind[])
    strata.forEach((document, i) => marksOf(document, kind, drawing, envs[i]));
  drawing.context.globalAlpha = 1;
  return labels;
}

function marksOf<K extends ItemKind>(document: StratumDocument, kind: K, drawing: PlateDrawing, env: MarksEnv): void {
  plateKind(kind).marks?.(document.tables[kind], drawing, env);
}

/** What a link may begin or end at, by its id alone. */
function linkedItem(document: StratumDocument, id: string): AnyItem | undefined {
  for (const kind of kindsWith('linked')) {
    const item = document.item(kind, id);
    if (item) return anyItem<ItemKind>(kind, item);
  }
  return undefined;
}

/** Outlines of what is selected: the edges of its own faces, at whatever angle they stand; of very many the tops of their bounds. */
export function drawSelection(
  drawing: PlateDrawing,
  selection: SelectedItems,
  facesOf: (item: PickItem) => readonly Float64Array[] | undefined,
): void {
  const { context, colours, view } = drawing;
  context.strokeStyle = colours.brine;
  context.lineWidth = view === 'plan' ? 2 : 1.2;
  const isExact = selection.size <= MAX_EXACT_OUTLINES;
  context.beginPath();
  let left = LOOPS_A_STROKE;
  for (const item of selection.values()) {
    for (const face of (isExact ? facesOf(item) : undefined) ?? [topOfBounds(item.bounds)]) {
      drawLoop(drawing, face);
      if (--left > 0) continue;
      context.stroke();
      context.beginPath();
      left = LOOPS_A_STROKE;
    }
  }
  context.stroke();
}

/** A closed path of its own costs with every one that is there already; a line back to the first corner does not. */
function drawLoop({ context, at }: PlateDrawing, face: Float64Array): void {
  let first: readonly [number, number] | undefined;
  for (let i = 0; i < face.length; i += 3) {
    const p = at(face[i], face[i + 1], face[i + 2]);
    if (!p) continue;
    if (first) context.lineTo(p[0], p[1]);
    else context.moveTo(p[0], p[1]);
    first ??= p;
  }
  if (first) context.lineTo(first[0], first[1]);
}

function topOfBounds({ min, max }: Box3): Float64Array {
  return Float64Array.of(
    min[0],
    max[1],
    min[2],
    max[0],
    max[1],
    min[2],
    max[0],
    max[1],
    max[2],
    min[0],
    max[1],
    max[2],
  );
}
