/** The head of an arrow at the end of a line; nothing where an end is not in the picture. */
export function drawArrow(
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
