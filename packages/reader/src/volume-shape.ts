import type { Fields } from './fields';

/** A point this far outside still lies in it, metres. */
const SLACK_METRES = 1e-9;

/** Whether a point of the level's frame lies in a volume, its border counted in. */
export type IsInside = (x: number, y: number, z: number) => boolean;

/** The test of a volume of a level. A call allocates nothing. @throws PackError */
export function insideOf(volume: Fields): IsInside {
  const [tx, ty, tz] = volume.numbers('translation', 3);
  const [qx, qy, qz, qw] = volume.numbers('rotation', 4);
  const shape = volume.table('shape');
  const form = shape.text('form');
  if (form === 'sphere') {
    const radius = shape.number('radiusMetres');
    return (x, y, z) => (x - tx) * (x - tx) + (y - ty) * (y - ty) + (z - tz) * (z - tz) <= radius * radius;
  }
  const [outline, height] = form === 'box' ? boxOutline(shape.numbers('size', 3)) : prismOutline(shape);
  // Turned by the inverse into the volume's own frame.
  const inPlan = convexTest(outline);
  return (x, y, z) => {
    const px = x - tx;
    const py = y - ty;
    const pz = z - tz;
    const ax = 2 * (qz * py - qy * pz);
    const ay = 2 * (qx * pz - qz * px);
    const az = 2 * (qy * px - qx * py);
    const ox = px + qw * ax + (qz * ay - qy * az);
    const oy = py + qw * ay + (qx * az - qz * ax);
    const oz = pz + qw * az + (qy * ax - qx * ay);
    return oy >= -SLACK_METRES && oy <= height + SLACK_METRES && inPlan(ox, oz);
  };
}

function boxOutline([sx, height, sz]: readonly number[]): [Float64Array, number] {
  return [Float64Array.of(-sx / 2, -sz / 2, sx / 2, -sz / 2, sx / 2, sz / 2, -sx / 2, sz / 2), height];
}

function prismOutline(shape: Fields): [Float64Array, number] {
  const corners = shape.list('outline').flatMap((corner, i) => {
    if (!Array.isArray(corner) || corner.length !== 2 || !corner.every((one) => typeof one === 'number'))
      shape.fail(`outline.${i}`, 'must be two numbers');
    return corner as number[];
  });
  return [Float64Array.from(corners), shape.number('heightMetres')];
}

/** @param outline x and z of each corner, convex, either way round */
function convexTest(outline: Float64Array): (x: number, z: number) => boolean {
  const count = outline.length / 2;
  const edges = new Float64Array(count * 3);
  let area = 0;
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    area += outline[i * 2] * outline[j * 2 + 1] - outline[j * 2] * outline[i * 2 + 1];
  }
  const way = area < 0 ? -1 : 1;
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    const [dx, dz] = [outline[j * 2] - outline[i * 2], outline[j * 2 + 1] - outline[i * 2 + 1]];
    const length = Math.sqrt(dx * dx + dz * dz);
    if (length === 0) continue;
    edges[i * 3] = (dz / length) * way;
    edges[i * 3 + 1] = (-dx / length) * way;
    edges[i * 3 + 2] = edges[i * 3] * outline[i * 2] + edges[i * 3 + 1] * outline[i * 2 + 1];
  }
  return (x, z) => {
    for (let i = 0; i < edges.length; i += 3)
      if (edges[i] * x + edges[i + 1] * z - edges[i + 2] > SLACK_METRES) return false;
    return true;
  };
}
