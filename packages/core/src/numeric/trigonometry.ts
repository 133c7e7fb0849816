const RADIANS_PER_DEGREE = 0.017453292519943295;

/**
 * Sine of an angle in degrees, from + − × only, so that every engine gives the same bits.
 * Exact at multiples of 90. Error under 1e-15 elsewhere.
 * Source: Taylor series on [0, 45] degrees after reduction by quadrants.
 * @param degrees any finite angle
 */
export function sinDegrees(degrees: number): number {
  const turn = degrees - Math.floor(degrees / 360) * 360;
  // Rounding may give a turn of exactly 360, which is a fifth quadrant.
  const quarters = Math.floor(turn / 90);
  const rest = turn - quarters * 90;
  switch (quarters % 4) {
    case 0:
      return firstQuadrantSine(rest);
    case 1:
      return firstQuadrantSine(90 - rest);
    case 2:
      return clean(-firstQuadrantSine(rest));
    default:
      return clean(-firstQuadrantSine(90 - rest));
  }
}

/** Cosine of an angle in degrees; see `sinDegrees`. */
export function cosDegrees(degrees: number): number {
  return sinDegrees(degrees + 90);
}

/** Angle of the vector (x, y) in degrees, in (−180, 180]; 0 for the null vector. Error under 1e-13 degrees. */
export function atan2Degrees(y: number, x: number): number {
  if (x === 0 && y === 0) return 0;
  const ax = Math.abs(x);
  const ay = Math.abs(y);
  const steep = ay > ax;
  let angle = arcTangent(steep ? ax / ay : ay / ax) / RADIANS_PER_DEGREE;
  if (steep) angle = 90 - angle;
  if (x < 0) angle = 180 - angle;
  return y < 0 ? clean(-angle) : angle;
}

function clean(value: number): number {
  return value === 0 ? 0 : value;
}

function firstQuadrantSine(degrees: number): number {
  return degrees <= 45 ? sineSeries(degrees * RADIANS_PER_DEGREE) : cosineSeries((90 - degrees) * RADIANS_PER_DEGREE);
}

function sineSeries(x: number): number {
  const s = x * x;
  let term = x;
  let sum = x;
  for (let k = 1; k <= 9; k++) {
    term *= -s / (2 * k * (2 * k + 1));
    sum += term;
  }
  return sum;
}

function cosineSeries(x: number): number {
  const s = x * x;
  let term = 1;
  let sum = 1;
  for (let k = 1; k <= 9; k++) {
    term *= -s / ((2 * k - 1) * (2 * k));
    sum += term;
  }
  return sum;
}

/** arctan on [0, 1]: the argument is halved three times, atan t = 2 atan(t / (1 + √(1 + t²))), then the series. */
function arcTangent(t: number): number {
  let reduced = t;
  for (let k = 0; k < 3; k++) reduced = reduced / (1 + Math.sqrt(1 + reduced * reduced));
  const s = reduced * reduced;
  let power = reduced;
  let sum = reduced;
  for (let k = 1; k <= 12; k++) {
    power *= -s;
    sum += power / (2 * k + 1);
  }
  return sum * 8;
}
