import fc from 'fast-check';
import { blockSolid, boxPlanes, wedgePlanes } from '../geometry/block-solid';
import { PlaneTable } from '../geometry/plane-table';
import type { Polyhedron } from '../geometry/polyhedron';
import type { Box3, Vector3 } from '../model/vector';
import { findMeetings } from './find-openings';
import { mergePockets } from './merge-pockets';
import { partition, type EmptyLeaf } from './partition';
import type { HidingBlock } from './sight-input';

const BOUNDS: Box3 = { min: [0, 0, 0], max: [12, 6, 12] };
const nothing = (): void => undefined;

/** Where a point lies beyond all doubt: 'in', 'out', or undefined within a hair of a face. */
function sideOf(table: PlaneTable, solid: Polyhedron, [x, y, z]: Vector3): 'in' | 'out' | undefined {
  let most = -Infinity;
  for (const { support } of solid.faces) most = Math.max(most, table.distance(support, x, y, z));
  return most < -2e-5 ? 'in' : most > 2e-5 ? 'out' : undefined;
}

function cut(
  blocks: readonly HidingBlock[],
  latticeMetres = 8,
): { table: PlaneTable; solids: Polyhedron[]; leaves: EmptyLeaf[] } {
  const table = new PlaneTable();
  const solids = blocks.map((block) => blockSolid(table, block));
  return { table, solids, leaves: partition(table, solids, [], BOUNDS, latticeMetres, nothing, nothing) };
}

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const blocks = fc
  .array(
    fc.record({
      at: fc.tuple(unit, unit, unit),
      size: fc.tuple(unit, unit, unit),
      turn: fc.tuple(unit, unit, unit),
      wedge: fc.boolean(),
    }),
    { minLength: 1, maxLength: 7 },
  )
  .map((list) =>
    list.map(({ at, size, turn, wedge }, i): HidingBlock => {
      const metres: Vector3 = [0.3 + size[0] * 5, 0.3 + size[1] * 4, 0.3 + size[2] * 5];
      return {
        id: `b${i}`,
        position: [at[0] * 12, at[1] * 5, at[2] * 12],
        turn: [turn[0] * 360, turn[1] * 80, turn[2] * 80],
        planes: wedge ? wedgePlanes(metres) : boxPlanes(metres),
      };
    }),
  );
const points = fc.array(fc.tuple(unit, unit, unit), { minLength: 40, maxLength: 40 });

describe('partition', () => {
  it('puts every point of the bounds into one empty leaf, or into a block, never both and never neither', () => {
    fc.assert(
      fc.property(blocks, points, (list, samples) => {
        const { table, solids, leaves } = cut(list);
        for (const [u, v, w] of samples) {
          const point: Vector3 = [u * 12, v * 6, w * 12];
          const inBlocks = solids.map((solid) => sideOf(table, solid, point));
          const inLeaves = leaves.map(({ solid }) => sideOf(table, solid, point));
          // On a face nothing is claimed, nor within what planes are welded by.
          if (inBlocks.includes(undefined) || inLeaves.includes(undefined)) continue;
          const isSolid = inBlocks.includes('in');
          expect(inLeaves.filter((side) => side === 'in')).toHaveLength(isSolid ? 0 : 1);
        }
      }),
      { numRuns: 60 },
    );
  }, 60000);

  it('cuts empty bounds by the lattice alone, at multiples of its side', () => {
    const { leaves } = cut([], 8);
    expect(leaves.map(({ cell }) => cell).sort()).toEqual(['0,0,0', '0,0,1', '1,0,0', '1,0,1']);
    expect(Math.max(...leaves.map(({ solid }) => solid.bounds[3]))).toBe(12);
  });

  it('leaves nothing open where blocks overlap and fill the bounds', () => {
    const whole: HidingBlock = { id: 'w', position: [6, 0, 6], turn: [0, 0, 0], planes: boxPlanes([12, 6, 12]) };
    expect(cut([whole, { ...whole, id: 'v', position: [5, -1, 6] }]).leaves).toEqual([]);
  });
});

describe('merging', () => {
  it('keeps the open space as it was, with fewer pockets, each convex', () => {
    fc.assert(
      fc.property(blocks, points, (list, samples) => {
        const { table, leaves } = cut(list);
        const pockets = mergePockets(table, leaves, () => false, nothing);
        expect(pockets.length).toBeLessThanOrEqual(leaves.length);
        for (const [u, v, w] of samples) {
          const point: Vector3 = [u * 12, v * 6, w * 12];
          const before = leaves.map(({ solid }) => sideOf(table, solid, point));
          const after = pockets.map(({ solid }) => sideOf(table, solid, point));
          if (before.includes(undefined) || after.includes(undefined)) continue;
          expect(after.filter((side) => side === 'in')).toHaveLength(before.filter((side) => side === 'in').length);
        }
      }),
      { numRuns: 40 },
    );
  }, 60000);

  it('never joins over the edge of a lattice cell, nor where a divider stands', () => {
    const { table, leaves } = cut([], 6);
    expect(leaves).toHaveLength(4);
    expect(mergePockets(table, leaves, () => false, nothing)).toHaveLength(4);
    const wall: HidingBlock = { id: 'w', position: [3, 0, 3], turn: [0, 0, 0], planes: boxPlanes([1, 6, 1]) };
    const around = cut([wall], 64);
    const joined = mergePockets(around.table, around.leaves, () => false, nothing);
    const kept = mergePockets(around.table, around.leaves, () => true, nothing);
    expect(joined.length).toBeLessThanOrEqual(4);
    expect(kept).toHaveLength(around.leaves.length);
  });
});

describe('meetings', () => {
  it('are the shared part of two faces, exact to any width', () => {
    const table = new PlaneTable();
    const left = blockSolid(table, { id: 'l', position: [0, 0, 0], turn: [0, 0, 0], planes: boxPlanes([2, 2, 2]) });
    const right = (z: number): Polyhedron =>
      blockSolid(table, { id: 'r', position: [2, 0, z], turn: [0, 0, 0], planes: boxPlanes([2, 2, 2]) });
    const strip = findMeetings(table, [left, right(1.9999)], nothing);
    expect(strip).toHaveLength(1);
    const zs = strip[0].polygon.corners.filter((_value, i) => i % 3 === 2);
    expect(Math.max(...zs) - Math.min(...zs)).toBeCloseTo(0.0001, 9);
    expect(findMeetings(table, [left, right(2)], nothing)).toEqual([]);
    expect(findMeetings(table, [left, right(5)], nothing)).toEqual([]);
  });

  it('can be stopped', () => {
    const { table, leaves } = cut([], 2);
    const stop = (): void => {
      throw new Error('enough');
    };
    expect(() =>
      findMeetings(
        table,
        leaves.map(({ solid }) => solid),
        stop,
      ),
    ).toThrow('enough');
  });
});
