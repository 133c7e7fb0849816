import fc from 'fast-check';
import { CoreError } from '../errors';
import type { Block, BlockPlane } from '../model/block';
import type { TurnDegrees } from '../model/vector';
import {
  blockSolid,
  blockSurface,
  boxPlanes,
  localBounds,
  prismPlanes,
  stretchPlanes,
  wedgePlanes,
} from './block-solid';
import { planePolygon, sideOfCorner } from './plane-polygon';
import { PlaneTable } from './plane-table';
import {
  boxPolyhedron,
  clipPolyhedron,
  faceCorners,
  sidesOfPolyhedron,
  splitPolyhedron,
  type Polyhedron,
} from './polyhedron';

const block = (planes: readonly BlockPlane[], over: Partial<Block> = {}): Block => ({
  id: 'b',
  name: '',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  planes,
  sight: 'hides',
  material: 'brick',
  ...over,
});

function volume(faces: readonly Float64Array[]): number {
  let six = 0;
  for (const c of faces) {
    for (let i = 3; i + 3 < c.length; i += 3) {
      const [ax, ay, az, bx, by, bz, cx, cy, cz] = [
        c[0],
        c[1],
        c[2],
        c[i],
        c[i + 1],
        c[i + 2],
        c[i + 3],
        c[i + 4],
        c[i + 5],
      ];
      six += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
    }
  }
  return six / 6;
}

describe('block solids', () => {
  it('gives a box six faces, twelve triangles and its volume', () => {
    const surface = blockSurface(block(boxPlanes([4, 3, 2]), { position: [10, 1, 5] }));
    expect(surface.faces).toHaveLength(6);
    expect(surface.triangles).toBe(12);
    expect(surface.bounds).toEqual({ min: [8, 1, 4], max: [12, 4, 6] });
    expect(volume(surface.faces)).toBeCloseTo(24, 6);
  });

  it('gives a wedge half the volume of its box', () => {
    const surface = blockSurface(block(wedgePlanes([4, 3, 2])));
    expect(surface.faces).toHaveLength(5);
    expect(volume(surface.faces)).toBeCloseTo(12, 6);
  });

  it('gives a triangle prism by hand', () => {
    const surface = blockSurface(
      block(
        prismPlanes(
          [
            [0, 0],
            [4, 0],
            [0, 3],
          ],
          2,
        ),
      ),
    );
    expect(surface.triangles).toBe(8);
    expect(volume(surface.faces)).toBeCloseTo(12, 6);
  });

  it('names the corner at which an outline turns back', () => {
    expect(() =>
      prismPlanes(
        [
          [0, 0],
          [4, 0],
          [1, 1],
          [0, 4],
        ],
        2,
      ),
    ).toThrow(/corner 3 at \(1, 1\)/);
    expect(() =>
      prismPlanes(
        [
          [0, 0],
          [1, 0],
        ],
        2,
      ),
    ).toThrow(/at least 3 corners, has 2/);
  });

  it('refuses planes that enclose nothing, do not close, or are not numbers', () => {
    const apart: BlockPlane[] = [...boxPlanes([2, 2, 2]).slice(0, 5), [0, 0, -1, -9]];
    expect(() => blockSurface(block(apart))).toThrow(CoreError);
    expect(() => blockSurface(block(apart))).toThrow(/enclose nothing/);
    expect(() => blockSurface(block(boxPlanes([2, 2, 2]).slice(0, 5)))).toThrow(/do not close/);
    expect(() => blockSurface(block([[NaN, 0, 0, 1], ...boxPlanes([1, 1, 1])]))).toThrow(/normal must have a length/);
    expect(() => blockSurface(block([[0, 0, 0, 1], ...boxPlanes([1, 1, 1])]))).toThrow(/normal must have a length/);
  });

  it('keeps volume and closes at any turn, place and size', () => {
    const metres = fc.double({ min: 0.01, max: 900, noNaN: true });
    const place = fc.double({ min: -2000, max: 2000, noNaN: true });
    const angle = fc.double({ min: -400, max: 400, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(metres, metres, metres),
        fc.tuple(place, place, place),
        fc.tuple(angle, angle, angle),
        (size, position, turn) => {
          const surface = blockSurface(block(boxPlanes(size), { position, turn: turn as TurnDegrees }));
          const exact = size[0] * size[1] * size[2];
          const area = 2 * (size[0] * size[1] + size[1] * size[2] + size[2] * size[0]);
          expect(surface.faces).toHaveLength(6);
          expect(Math.abs(volume(surface.faces.map((f) => f.map((v, i) => v - position[i % 3]))) - exact)).toBeLessThan(
            area * 2e-5,
          );
        },
      ),
      { numRuns: 200 },
    );
  });

  it('stretches a wedge along one axis', () => {
    const planes = stretchPlanes(wedgePlanes([4, 3, 2]), [2, 1, 1]);
    const { min, max } = localBounds(planes);
    [-4, 0, -1].forEach((v, k) => expect(min[k]).toBeCloseTo(v, 7));
    [4, 3, 1].forEach((v, k) => expect(max[k]).toBeCloseTo(v, 7));
  });
});

describe('plane table', () => {
  it('makes one plane of flush faces of turned walls, with two sides', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        (yaw, along) => {
          const table = new PlaneTable();
          const radians = (yaw * Math.PI) / 180;
          const left = block(boxPlanes([6, 3, 0.2]), { turn: [yaw, 0, 0], position: [along, 0, 7] });
          const right = block(boxPlanes([6, 3, 0.2]), {
            turn: [yaw, 0, 0],
            position: [along + 6 * Math.cos(radians), 0, 7 - 6 * Math.sin(radians)],
          });
          blockSolid(table, left);
          const before = table.count;
          blockSolid(table, right);
          // Only the far end is new: long faces, top, bottom and the touching end are welded.
          expect(table.count - before).toBe(1);
        },
      ),
    );
  });

  it('keeps planes apart that differ by a tenth of a millimetre', () => {
    const table = new PlaneTable();
    expect(table.add(1, 0, 0, 5, 0, 0)).not.toBe(table.add(1, 0, 0, 5.0001, 0, 0));
    expect(table.add(-1, 0, 0, 5, 3, 3)).toBe(table.add(2, 0, 0, 5, 9, 9) ^ 1);
  });
});

describe('exact sides', () => {
  it('calls a corner on a plane that passes through it by construction exactly on it', () => {
    const table = new PlaneTable();
    // Three planes through (1/3, 1/3, 1/3) cannot be told apart by rounding alone.
    const a = table.add(1, 2, 3, 1, 1, 1);
    const b = table.add(3, 1, 2, 1, 1, 1);
    const c = table.add(2, 3, 1, 1, 1, 1);
    const polygon = planePolygon(table, a, [b, c, table.add(-1, -1, -1, -9, -9, -9)]);
    expect(sideOfCorner(table, polygon, 0, b)).toBe(0);
    const box = boxPolyhedron(table, { min: [0, 0, 0], max: [2, 2, 2] });
    const diagonal = table.add(1, -1, 0, 1, 1, 0);
    const { inside, outside } = splitPolyhedron(table, box, diagonal);
    expect(inside?.faces).toHaveLength(5);
    expect(outside?.faces).toHaveLength(5);
  });

  it('splits a solid so that both parts lie on their own side and share the cut', () => {
    const part = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(part, part, part, part, part, part), { minLength: 1, maxLength: 12 }), (cuts) => {
        const table = new PlaneTable();
        let solid = boxPolyhedron(table, { min: [-1, -1, -1], max: [1, 1, 1] });
        for (const [nx, ny, nz, px, py, pz] of cuts) {
          if (nx * nx + ny * ny + nz * nz < 1e-3) continue;
          const plane = table.add(nx, ny, nz, px, py, pz);
          const { inside, outside } = splitPolyhedron(table, solid, plane);
          expect(inside ?? outside).toBeDefined();
          if (inside) expect(sidesOfPolyhedron(table, inside, plane)).toBe(1);
          if (outside) expect(sidesOfPolyhedron(table, outside, plane)).toBe(2);
          const volumeOf = (one: Polyhedron | undefined): number =>
            one ? volume(one.faces.map((f) => faceCorners(table, f))) : 0;
          expect(volumeOf(inside) + volumeOf(outside)).toBeCloseTo(volumeOf(solid), 6);
          solid = inside && outside ? (px > 0 ? inside : outside) : (inside ?? outside ?? solid);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('gives nothing when the plane touches only a face', () => {
    const table = new PlaneTable();
    const box = boxPolyhedron(table, { min: [0, 0, 0], max: [1, 1, 1] });
    const face = table.add(1, 0, 0, 1, 0, 0);
    expect(clipPolyhedron(table, box, face)).toBe(box);
    expect(clipPolyhedron(table, box, face ^ 1)).toBeUndefined();
  });
});
