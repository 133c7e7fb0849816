import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { turnMatrix, turnVector } from '../geometry/turn';
import type { KitMeshes, MeshOfPiece } from '../mesh/kit-meshes';
import type { TurnDegrees, Vector3 } from '../model/vector';
import { equalMeshes } from './equal-meshes';
import { matrixOf, movedPoint, product, type Matrix } from '../geometry/matrix';
import { poseOfMatrix } from './pose-of-matrix';
import { rigidFit } from './rigid-fit';

const context = createRunContext();
const angle = fc.double({ min: -180, max: 180, noNaN: true });
const turns: fc.Arbitrary<TurnDegrees> = fc.tuple(
  fc.oneof(angle, fc.constantFrom(0, 90, -90, 180)),
  fc.oneof(fc.double({ min: -90, max: 90, noNaN: true }), fc.constantFrom(0, 90, -90, 89.9999999)),
  fc.oneof(angle, fc.constantFrom(0, 90, 180)),
);
const far = fc.double({ min: -9e4, max: 9e4, noNaN: true });
const places = fc.tuple(far, far, far);

/** The matrix of a placement, written out: columns of turn × scale. */
function matrixOfPose(position: Vector3, turn: TurnDegrees, scale: Vector3): Matrix {
  const m = turnMatrix(turn);
  const column = (k: number): [number, number, number] => [m[k] * scale[k], m[3 + k] * scale[k], m[6 + k] * scale[k]];
  return matrixOf([...column(0), ...column(1), ...column(2)], position);
}

describe('the pose of a matrix', () => {
  it('puts every corner where the matrix does, turned, mirrored and scaled anyhow', () => {
    const sizes = fc.double({ min: 0.01, max: 50, noNaN: true });
    const scales = fc.tuple(sizes, sizes, sizes, fc.integer({ min: 0, max: 7 }));
    fc.assert(
      fc.property(places, turns, scales, (position, turn, [sx, sy, sz, signs]) => {
        const scale: Vector3 = [signs & 1 ? -sx : sx, signs & 2 ? -sy : sy, signs & 4 ? -sz : sz];
        const wanted = matrixOfPose(position, turn, scale);
        const pose = poseOfMatrix(wanted);
        if (typeof pose === 'string') throw new Error(pose);
        const found = matrixOfPose(pose.position, pose.turn, pose.scale);
        for (let corner = 0; corner < 8; corner++) {
          const at: Vector3 = [corner & 1, (corner >> 1) & 1, corner >> 2];
          const [a, b] = [movedPoint(wanted, at), movedPoint(found, at)];
          for (let k = 0; k < 3; k++) expect(Math.abs(a[k] - b[k])).toBeLessThanOrEqual(1e-6);
        }
      }),
      { numRuns: 2000 },
    );
  });

  it('keeps to a millionth where a file is off by rounding and nearly looks straight up', () => {
    const noise = fc.integer({ min: -9, max: 9 }).map((parts) => parts * 1e-9);
    const near = fc.constantFrom(90, 89.9999, 89.99, 89, -89.999, 0);
    fc.assert(
      fc.property(angle, near, angle, fc.array(noise, { minLength: 9, maxLength: 9 }), (yaw, pitch, roll, off) => {
        const exact = matrixOfPose([0, 0, 0], [yaw, pitch, roll], [1, 1, 1]);
        const wanted = exact.map((value, i) => (i % 4 < 3 && i < 12 ? value + off[(i >> 2) * 3 + (i % 4)] : value));
        const pose = poseOfMatrix(wanted);
        if (typeof pose === 'string') throw new Error(pose);
        const found = matrixOfPose(pose.position, pose.turn, pose.scale);
        wanted.forEach((value, i) => expect(Math.abs(value - found[i])).toBeLessThanOrEqual(1e-6));
      }),
      { numRuns: 2000 },
    );
  });

  it('gives round angles back as they were', () => {
    for (const turn of [
      [90, 0, 0],
      [180, 0, 0],
      [-90, 45, 30],
      [0, 0, 90],
    ] as const)
      expect(poseOfMatrix(matrixOfPose([1, 2, 3], turn, [1, 1, 1]))).toEqual({
        position: [1, 2, 3],
        turn: turn.map((value) => expect.closeTo(value, 9) as number),
        scale: [1, 1, 1].map((value) => expect.closeTo(value, 12) as number),
      });
  });

  it('knows what is sheared, and what is flat', () => {
    const turned = matrixOfPose([0, 0, 0], [30, 0, 0], [1, 1, 1]);
    expect(poseOfMatrix(product(matrixOfPose([0, 0, 0], [0, 0, 0], [2, 1, 1]), turned))).toBe('sheared');
    expect(poseOfMatrix(product(turned, matrixOfPose([0, 0, 0], [0, 0, 0], [2, 1, 1])))).toMatchObject({});
    expect(poseOfMatrix(matrixOfPose([0, 0, 0], [0, 0, 0], [1, 0, 1]))).toBe('flat');
    expect(poseOfMatrix(matrixOf([NaN, 0, 0, 0, 1, 0, 0, 0, 1], [0, 0, 0]))).toBe('flat');
  });
});

const bracket = [0, 0, 0, 3, 0, 0, 3, 0.4, 0, 0, 1.2, 0, 0.2, 0.3, 0.9, 1.1, 0.1, 2];
const INDICES = Uint32Array.of(0, 1, 2, 0, 2, 3, 3, 4, 0, 4, 5, 1);
const materials: KitMeshes['materials'] = [];

function meshOf(
  positions: readonly number[],
  { indices = INDICES, coordinates }: { indices?: Uint32Array; coordinates?: readonly number[] } = {},
): MeshOfPiece {
  return {
    name: 'mesh',
    parts: [
      {
        material: null,
        attributes: [
          { semantic: 'POSITION', size: 3, values: Float32Array.from(positions) },
          ...(coordinates ? [{ semantic: 'TEXCOORD_0', size: 2, values: Float32Array.from(coordinates) }] : []),
        ],
        indices,
      },
    ],
  };
}

function moved(positions: readonly number[], turn: TurnDegrees, by: Vector3): number[] {
  const m = turnMatrix(turn);
  return Array.from({ length: positions.length / 3 }, (_one, i) =>
    turnVector(m, positions[i * 3], positions[i * 3 + 1], positions[i * 3 + 2]).map((value, k) => value + by[k]),
  ).flat();
}

/** The same with its vertices in another order. */
function shuffled(positions: readonly number[], order: readonly number[]): MeshOfPiece {
  const to = order.map((_one, i) => order.indexOf(i));
  return meshOf(
    order.flatMap((i) => positions.slice(i * 3, i * 3 + 3)),
    { indices: INDICES.map((i) => to[i]) },
  );
}

const found = (...pieces: MeshOfPiece[]): ReturnType<typeof equalMeshes> =>
  equalMeshes({ pieces, materials, textures: [] }, 1e-3, context);

describe('equal meshes', () => {
  const metres = fc.integer({ min: -900, max: 900 });
  const near = fc.tuple(metres, metres, metres);

  it('are found turned and moved, in the same order of vertices or another, and lie where they lay', () => {
    const orders = fc.constantFrom([0, 1, 2, 3, 4, 5], [5, 4, 3, 2, 1, 0], [2, 0, 1, 4, 5, 3]);
    fc.assert(
      fc.property(turns, near, orders, (turn, by, order) => {
        const positions = moved(bracket, turn, by);
        const [, match] = found(meshOf(bracket), shuffled(positions, order));
        expect(match.like).toBe(0);
        expect(match.off).toBeLessThan(2e-4);
        for (let i = 0; i < bracket.length; i += 3) {
          const place = movedPoint(match.matrix, [bracket[i], bracket[i + 1], bracket[i + 2]]);
          for (let k = 0; k < 3; k++) expect(Math.abs(place[k] - positions[i + k])).toBeLessThan(2e-4);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('are not what is scaled, mirrored, off by more than the tolerance, or has other coordinates or triangles', () => {
    const likes = (...pieces: MeshOfPiece[]): number[] => found(meshOf(bracket), ...pieces).map(({ like }) => like);
    const off = [...bracket];
    off[4] += 0.01;
    expect(
      likes(
        meshOf(bracket.map((value) => value * 1.01)),
        meshOf(bracket.map((value, i) => (i % 3 === 0 ? -value : value))),
        meshOf(off),
        meshOf(bracket, { indices: Uint32Array.of(0, 1, 2, 0, 2, 3, 3, 4, 0, 4, 5, 2) }),
      ),
    ).toEqual([0, 1, 2, 3, 4]);
    const coordinates = bracket.map((_one, i) => i / 20).slice(0, 12);
    const other = coordinates.map((value, i) => (i === 5 ? value + 0.01 : value));
    expect(
      found(
        meshOf(bracket, { coordinates }),
        meshOf(bracket, { coordinates: other }),
        meshOf(bracket, { coordinates }),
      ).map(({ like }) => like),
    ).toEqual([0, 1, 0]);
  });

  it('stay apart where they look the same from several sides and their order does not tell how they are turned', () => {
    // A plate that is the same turned by 180 degrees about each of its axes.
    const plate = [0, 0, 0, 4, 0, 0, 4, 1, 0, 0, 1, 0];
    const indices = Uint32Array.of(0, 1, 2, 0, 2, 3);
    const same = meshOf(moved(plate, [20, 0, 0], [5, 0, 0]), { indices });
    const order = [2, 3, 0, 1];
    const turned = meshOf(
      order.flatMap((i) => moved(plate, [20, 0, 0], [5, 0, 0]).slice(i * 3, i * 3 + 3)),
      {
        indices: Uint32Array.of(1, 2, 3, 1, 3, 0),
      },
    );
    expect(found(meshOf(plate, { indices }), same, turned).map(({ like }) => like)).toEqual([0, 0, 2]);
  });

  it('are told apart by their material, and empty ones stay as they are', () => {
    const part = meshOf(bracket).parts[0];
    const of = (material: number): MeshOfPiece => ({ name: 'm', parts: [{ ...part, material }] });
    const two = { materials: [{ name: 'a' }, { name: 'b' }] as unknown as KitMeshes['materials'], textures: [] };
    const likes = equalMeshes({ ...two, pieces: [of(0), of(1), of(0), { name: 'e', parts: [] }] }, 1e-3, context);
    expect(likes.map(({ like }) => like)).toEqual([0, 1, 0, 3]);
  });

  it('fit points in a plane, in a line and in one place', () => {
    for (const points of [
      [0, 0, 0, 2, 0, 0, 0, 3, 0],
      [0, 0, 0, 1, 1, 1, 2, 2, 2],
      [1, 2, 3],
    ]) {
      const to = moved(points, [40, 10, 0], [7, 8, 9]);
      const matrix = rigidFit(points, to);
      for (let i = 0; i < points.length; i += 3)
        movedPoint(matrix, [points[i], points[i + 1], points[i + 2]]).forEach((value, k) =>
          expect(value).toBeCloseTo(to[i + k], 9),
        );
    }
  });
});
