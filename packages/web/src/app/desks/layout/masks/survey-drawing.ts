import type { PlateDrawing } from '../../../plate/plate-view';
import type { ShownSurvey } from './masks-desk';

/** Shades of a survey by its cells, made once. */
const shades = new WeakMap<ShownSurvey, HTMLCanvasElement>();

/** Draws where the body comes and where not, its ways, and the narrow places as a gap between two ticks. */
export function drawSurvey(drawing: PlateDrawing, survey: ShownSurvey): void {
  const { context, colours, at, view } = drawing;
  const { mask, shade, ways, narrows } = survey;
  const y = mask.position[1];
  if (view === 'plan') {
    const side = shade.step / mask.pixelsPerMetre;
    const from = at(mask.position[0], y, mask.position[2]);
    const to = at(mask.position[0] + shade.columns * side, y, mask.position[2] + shade.rows * side);
    if (from && to) {
      context.imageSmoothingEnabled = false;
      context.drawImage(shadeOf(survey, drawing), from[0], from[1], to[0] - from[0], to[1] - from[1]);
    }
  }
  context.strokeStyle = colours.brine;
  context.lineWidth = 2.5;
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
  context.font = "11px 'Spline Sans Mono Variable', monospace";
  for (const {
    at: [x, z],
    widthMetres,
  } of narrows) {
    const p = at(x, y, z);
    if (!p) continue;
    context.beginPath();
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
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [columns, rows];
  const context = canvas.getContext('2d') as CanvasRenderingContext2D;
  for (const [value, colour] of [
    [1, colours.over],
    [2, colours.good],
  ] as const) {
    context.fillStyle = colour;
    context.globalAlpha = 0.22;
    for (let row = 0; row < rows; row++) {
      let from = 0;
      // Whole runs at once: cells of one row and value.
      for (let column = 0; column <= columns; column++) {
        if (column < columns && cells[row * columns + column] === value) continue;
        if (column > from) context.fillRect(from, row, column - from, 1);
        from = column + 1;
      }
    }
  }
  shades.set(survey, canvas);
  return canvas;
}
