import { counted } from '../counted';
import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import { finding, type Finding } from '../findings';
import { clipPolygon, type PlanePolygon } from '../geometry/plane-polygon';
import { PlaneTable } from '../geometry/plane-table';
import { boxPolyhedron, faceCorners, type Polyhedron } from '../geometry/polyhedron';
import type { Box3 } from '../model/vector';
import { checkClosure, wayOutFinding, type ClosurePocket, type ExitFace } from './closure';
import { describeGap } from './gap';
import { collectSolids } from './collect-solids';
import { findMeetings } from './find-openings';
import { mergePockets } from './merge-pockets';
import { openingTable } from './opening-polygons';
import { partition, type DividerPlane, type EmptyLeaf } from './partition';
import {
  DEFAULT_SIGHT_OPTIONS,
  SIGHT_VERSION,
  type SightDivider,
  type SightInput,
  type SightOptions,
} from './sight-input';
import { OPEN_CELL, type Opening, type Pocket, type SightResult } from './sight-result';
import { visibleSets } from './visible-sets';

/** Every so many checks the cancel flag is looked at. */
const CHECK_EVERY = 64;

/**
 * The sight geometry of a level: pockets, openings, closure and visible sets.
 * @throws CoreError 'SIGHT_TOO_MANY_BLOCKS' and 'SIGHT_TOO_MANY_POCKETS' over their limits, 'SIGHT_NOTHING' when nothing stands in the level,
 * 'CANCELLED'
 * Cost: the partition grows a little faster than the number of blocks; the flow with the pairs that see each other.
 */
export function bakeSight(input: SightInput, options: Partial<SightOptions>, context: RunContext): SightResult {
  const { latticeMetres, stepLimit, totalStepLimit, blockLimit, pocketLimit } = {
    ...DEFAULT_SIGHT_OPTIONS,
    ...options,
  };
  checkBlockCount(input.blocks.length, blockLimit);
  const check = everyFew(context);
  // 1. One welded table of planes, all solids in it.
  context.progress(0, 'welding planes');
  const table = new PlaneTable();
  const collected = collectSolids(table, input, check);
  const bounds = input.bounds ?? collected.bounds ?? input.extent;
  if (!bounds)
    throw new CoreError(
      'SIGHT_NOTHING',
      'sight: the level is empty; add blocks, placements, floors or masks in Layout',
    );
  const isOpen = input.bounds === null && collected.solids.length === 0;
  const limits = boxPolyhedron(table, bounds).faces.map((face) => face.support);
  // 2. Empty convex leaves, then as few and as large pockets as can be.
  const dividers = input.dividers.flatMap((divider) => dividerPlane(table, divider));
  const solids = collected.solids.map(({ solid }) => solid);
  const leaves = isOpen
    ? [{ cell: OPEN_CELL, solid: boxPolyhedron(table, bounds) }]
    : partition(table, solids, dividers, bounds, latticeMetres, check, (f) =>
        context.progress(0.05 + 0.45 * f, 'cutting the open space'),
      );
  context.progress(0.5, 'joining pockets');
  check();
  const pockets = mergePockets(
    table,
    leaves,
    (polygon) => dividers.some((divider) => dividerCrosses(table, divider, polygon)),
    check,
  );
  if (pockets.length > pocketLimit) {
    throw new CoreError(
      'SIGHT_TOO_MANY_POCKETS',
      `sight: the open space falls into ${pockets.length} pockets, at most ${pocketLimit} can be followed; turn off Blocks view for small blocks, or split the level`,
    );
  }
  // 3. Openings.
  context.progress(0.6, 'finding openings');
  check();
  const meetings = findMeetings(
    table,
    pockets.map(({ solid }) => solid),
    check,
  );
  const openings = meetings.map(({ first, second, polygon }) => ({
    first,
    second,
    planeNumber: polygon.support >> 1,
    plane: table.plane(polygon.support),
    corners: faceCorners(table, polygon),
  }));
  const openTable = openingTable(openings);
  // 4. Closure from the spawns.
  const closurePockets = pockets.map(({ solid }): ClosurePocket => ({
    planes: solid.faces.map((face) => table.plane(face.support)),
    exits: isOpen ? [] : exitsOf(solid, limits),
  }));
  const closure = checkClosure(input, closurePockets, openTable);
  // 5. Visible sets.
  const flow = visibleSets(
    openTable,
    pockets.length,
    closure.reached,
    { one: stepLimit, all: totalStepLimit },
    check,
    (f) => context.progress(0.65 + 0.35 * f, 'following sight lines'),
  );
  const gap = closure.gap && describeGap(closure.gap, collected.solids, table);
  const findings: Finding[] = [...collected.findings, ...closure.findings];
  if (closure.wayOut && gap) findings.push(wayOutFinding(closure.wayOut, gap));
  if (isOpen) findings.push(nothingBlocksFinding());
  if (flow.limitedOpenings > 0) findings.push(stepLimitFinding(flow.limitedOpenings));
  const reachedPockets = closure.reached.reduce((sum, value) => sum + value, 0);
  return {
    version: SIGHT_VERSION,
    bounds,
    pockets: describePockets(table, pockets, closurePockets, closure.reached),
    openings: openings.map(({ first, second, plane, corners }): Opening => ({
      pockets: [first, second],
      plane,
      polygon: [...corners],
    })),
    visible: flow.visible,
    closed: closure.closed && !isOpen,
    wayOut: closure.wayOut,
    gap,
    findings,
    figures: {
      blocks: collected.solids.length,
      planes: table.count,
      pockets: pockets.length,
      reachedPockets,
      openings: openings.length,
      visiblePairs: flow.visible.reduce((sum, list) => sum + Math.max(0, list.length - 1), 0),
      steps: flow.steps,
      limitedOpenings: flow.limitedOpenings,
    },
  };
}

/** @throws CoreError 'SIGHT_TOO_MANY_BLOCKS' */
export function checkBlockCount(count: number, limit: number): void {
  if (count > limit)
    throw new CoreError(
      'SIGHT_TOO_MANY_BLOCKS',
      `sight: takes at most ${limit} blocks that block view, the level has ${count}; turn off Blocks view for small ones`,
    );
}

function everyFew(context: RunContext): () => void {
  let count = 0;
  return () => {
    if (++count % CHECK_EVERY === 0) context.checkCancelled();
  };
}

/** The plane of a divider with its four sides; nothing when it has no length or height. */
function dividerPlane(table: PlaneTable, divider: SightDivider): DividerPlane[] {
  const dx = divider.to[0] - divider.from[0];
  const dz = divider.to[1] - divider.from[1];
  if (dx * dx + dz * dz < 1e-6 || !(divider.top > divider.bottom)) return [];
  return [
    {
      plane: table.add(dz, 0, -dx, divider.from[0], 0, divider.from[1]),
      sides: [
        table.add(-dx, 0, -dz, divider.from[0], 0, divider.from[1]),
        table.add(dx, 0, dz, divider.to[0], 0, divider.to[1]),
        table.add(0, 1, 0, 0, divider.top, 0),
        table.add(0, -1, 0, 0, divider.bottom, 0),
      ],
    },
  ];
}

function dividerCrosses(table: PlaneTable, { plane, sides }: DividerPlane, polygon: PlanePolygon): boolean {
  if (plane >> 1 !== polygon.support >> 1) return false;
  let rest: PlanePolygon | undefined = polygon;
  for (const side of sides) rest = rest && clipPolygon(table, rest, side);
  return rest !== undefined;
}

function exitsOf(solid: Polyhedron, limits: readonly number[]): ExitFace[] {
  return solid.faces.flatMap(({ support, corners }) => {
    const side = limits.indexOf(support);
    return side < 0 ? [] : [{ side, corners }];
  });
}

function describePockets(
  table: PlaneTable,
  pockets: readonly EmptyLeaf[],
  shapes: readonly ClosurePocket[],
  reached: Uint8Array,
): Pocket[] {
  const inCell = new Map<string, number>();
  return pockets.map(({ cell, solid }, i) => {
    const number = inCell.get(cell) ?? 0;
    inCell.set(cell, number + 1);
    const b = solid.bounds;
    const box: Box3 = { min: [b[0], b[1], b[2]], max: [b[3], b[4], b[5]] };
    return {
      key: `${cell}:${number}`,
      planes: shapes[i].planes,
      bounds: box,
      faces: solid.faces.map((face) => [...faceCorners(table, face)]),
      reached: reached[i] === 1,
    };
  });
}

function nothingBlocksFinding(): Finding {
  return finding({
    code: 'SIGHT_OPEN',
    desk: 'sight',
    severity: 'note',
    subject: 'level',
    place: {},
    message: 'Nothing blocks the view here',
    why: 'The level has no block that blocks view, and no edges, so everything is visible from everywhere.',
  });
}

function stepLimitFinding(count: number): Finding {
  return finding({
    code: 'SIGHT_STEP_LIMIT',
    desk: 'sight',
    severity: 'note',
    subject: 'level',
    place: {},
    message: `${counted(count, 'opening')} reached the step limit and used the rough bound`,
    why: 'What is visible through them is overestimated, never underestimated. Dividers or fewer small openings help.',
  });
}
