import type { PlateDrawing } from '../../../../plate/plate-drawing';
import { channelsOf, layShade, shadeCanvas } from '../../plan/shade-canvas';
import type { ShownSurvey } from './masks-desk';

/** Shades of a survey by its cells, made once. */
const SHADE_ALPHA = 56;
/** Passages narrower than this on the screen are dots. */
const MIN_PASSAGE_PIXELS = 5;
const shades = new WeakMap<ShownSurvey, HTMLCanvasElement>();

/** Draws where the body comes and where not, its ways, and the narrow places as a gap between two ticks. */
export function drawSurvey(drawing: PlateDrawing, survey: ShownSurvey): void {
  const { context, colours, at, view, scale } = drawing;
  const { mask, shade, ways, narrows } = survey;
  const y = mask.position[1];
  if (view === 'plan' && survey.hasStart) {
    const side = shade.step / mask.pixelsPerMetre;
    const [x, , z] = mask.position;
    layShade(drawing, shadeOf(survey, drawing), [x, z], [x + shade.columns * side, z + shade.rows * side], false);
  }
  context.strokeStyle = colours.brine;
  context.lineWidth = 2.5;
  // From far off a passage is smaller than its mark: then a dot tells where they crowd.
  const isFar =
    view === 'plan' && scale * Math.max(...narrows.map(({ widthMetres }) => widthMetres), 0) < MIN_PASSAGE_PIXELS;
  for (const { points } of ways) {
    context.beginPath();
    points.forEach(([x, z], i) => {
      const p = at(x, y, z);
      if (!p) return;
      if (i === 0) context.moveTo(...p);
      else context.lineTo(...p);
    });
    context.stroke();
  }
  context.strokeStyle = context.fillStyle = colours.over;
  context.lineWidth = 1.5;
  context.font = "11px 'Spline Sans Mono', monospace";
  for (const {
    at: [x, z],
    widthMetres,
  } of narrows) {
    const p = at(x, y, z);
    if (!p) continue;
    context.beginPath();
    if (isFar) {
      context.arc(p[0], p[1], 2, 0, Math.PI * 2);
      context.fill();
      continue;
    }
    context.arc(p[0], p[1], 6, 0, Math.PI * 2);
    context.moveTo(p[0] - 11, p[1]);
    context.lineTo(p[0] - 6, p[1]);
    context.moveTo(p[0] + 6, p[1]);
    context.lineTo(p[0] + 11, p[1]);
    context.stroke();
    if (view === 'plan') context.fillText(widthMetres.toFixed(2), p[0] + 9, p[1] - 6);
  }
}

function shadeOf(survey: ShownSurvey, { colours }: PlateDrawing): HTMLCanvasElement {
  const known = shades.get(survey);
  if (known) return known;
  const { columns, rows, cells } = survey.shade;
  const painted = [
    undefined,
    [...channelsOf(colours.over), SHADE_ALPHA],
    [...channelsOf(colours.good), SHADE_ALPHA],
  ] as const;
  const canvas = shadeCanvas(columns, rows, (cell) => painted[cells[cell]]);
  shades.set(survey, canvas);
  return canvas;
}
