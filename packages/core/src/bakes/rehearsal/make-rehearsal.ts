import { meshFilesOf, type KitLoads } from '../../budget/mesh-files';
import type { RunContext } from '../../context/run-context';
import { finding, type Finding } from '../../findings';
import { EMPTY_CONTENT } from '../../items';
import type { StandingLevel } from '../../layout/standing-level';
import type { CellGrid } from '../../model/cell-grid';
import type { Device } from '../../model/device';
import type { StratumContent } from '../../model/items';
import type { Kit, Piece } from '../../model/kit';
import type { Rehearsal } from '../../model/rehearsal';
import type { Box3, Vector3 } from '../../model/vector';
import { positionBounds } from '../../mesh/mesh-cost';
import { cellsFile } from '../../cells/cells-file';
import { placementsOf } from '../../layout/level-placements';
import { hasPlacedJson, type PlacedFiles } from '../../layout/placed-columns/placed-files';
import { placedFileBytes } from '../../layout/placed-json';
import { withSections, type MadeSection } from '../../sections/with-sections';
import { cutLevel, type CutLevel } from '../../cells/cut-level';
import { fireLinks } from '../../cells/fire-links';
import { blockCarrier, meshCarrier, type Carrier } from '../../cells/carriers';
import { footing, type Footing } from '../../cells/footing';
import type { CollisionMesh } from '../../detail/collision/collision-spec';
import type { Floors } from '../../detail/collision/kit-floors';
import { CoreError } from '../../errors';
import { placementAt } from '../../items/placement/columns';
import { placementBounds } from '../../layout/placement-bounds';
import { heldAt } from '../../model/by-key';
import { rehearse, type Walk, type WalkInput, type WatchWalk } from '../../cells/rehearse';
import { REHEARSAL_VERSION, type RehearsalResult } from '../../cells/rehearsal-result';
import { heldCells, volumeRuleFindings } from '../../cells/volume-rules';
import { walkPath, type WalkPath } from '../../cells/walk-path';

/** All that a rehearsal depends on, its sections left out: nothing else of the level. */
export interface RehearsalReads {
  readonly level: StandingLevel['level'];
  /** What counts of the content of each stratum. */
  readonly strata: readonly { readonly stratum: string; readonly content: Partial<StratumContent> }[];
  /** Those that are placed, and the kits that they are of. */
  readonly pieces: Readonly<Record<string, Piece>>;
  readonly kits: Readonly<Record<string, Pick<Kit, 'name'>>>;
  readonly kitLoads: KitLoads;
  readonly grid: CellGrid;
  /** Absent: placements are JSON in the level's own file. */
  readonly placed?: PlacedFiles;
  readonly rehearsal: Rehearsal;
  readonly device: Device;
  /** What carries in the place of the pieces that have a collision; their digests stand for it in the key. */
  readonly floors: Floors;
}

/**
 * Cuts the level and walks its path.
 * @throws CoreError 'REHEARSAL_FLOOR' naming a piece whose collision was not brought; as `cutLevel`, `walkPath` and `rehearse`
 */
export function makeRehearsal(
  reads: RehearsalReads,
  sections: readonly MadeSection[],
  context: RunContext,
): RehearsalResult {
  const { whole, cut, path, found, walk, isWatched } = walkLevel(reads, sections, context);
  const { grid, rehearsal, device } = reads;
  const fired = fireLinks(whole, path, found.heights, rehearsal.speedMetresPerSecond, context);
  return {
    version: REHEARSAL_VERSION,
    cut,
    ...walk,
    fired,
    findings: [
      ...(isWatched ? [] : [unwatchedFinding(rehearsal)]),
      ...volumeRuleFindings(rehearsal.id, whole, grid, cut),
      ...rehearsalFindings(rehearsal, device, walk),
    ],
  };
}

/** A level that was cut and walked. */
export interface WalkedLevel {
  /** With its sections laid in. */
  readonly whole: StandingLevel;
  readonly cut: CutLevel;
  readonly path: WalkPath;
  readonly found: Footing;
  readonly walk: Walk;
  /** Whether anything in it carries. */
  readonly isWatched: boolean;
}

/** Cuts a level and walks a path through it. @param watch as `rehearse` tells it, once the path is known @throws as `makeRehearsal` */
export function walkLevel(
  { level, strata, pieces, kits, kitLoads, grid, placed, rehearsal, device, floors }: RehearsalReads,
  sections: readonly MadeSection[],
  context: RunContext,
  watch?: (walked: Omit<WalkedLevel, 'walk' | 'isWatched'>) => WatchWalk,
): WalkedLevel {
  const whole = withSections<StandingLevel>(
    {
      level,
      strata: strata.map(({ stratum, content }) => ({
        stratum: { id: stratum },
        content: { ...EMPTY_CONTENT, ...content },
      })),
    },
    sections,
  );
  context.progress(0.05, 'cutting into cells');
  const cut = cutLevel({ content: whole, pieces, kits, kitLoads, grid, placed }, context);
  const path = walkPath(rehearsal.knots);
  context.progress(0.2, 'looking for the floor');
  const carriers = carriersOf(whole, pieces, kitLoads, floors);
  const found = footing(
    carriers.map(({ carrier }) => carrier),
    path,
    rehearsal.floorMetres,
    context,
  );
  const numberOfFile = new Map(cut.meshFiles.map(({ key }, number) => [key, number]));
  const files = carriers.map(({ id, meshFile }) => ({
    cell: cut.cellOfThing[id],
    meshFile: meshFile === undefined ? undefined : numberOfFile.get(meshFile),
  }));
  const { speedMetresPerSecond } = rehearsal;
  const held = heldCells(whole, grid, cut, { path, heights: found.heights, speedMetresPerSecond }, context);
  const isWatched = carriers.length > 0;
  const walk = rehearse(
    {
      cut,
      levelFiles: filesAtStart(whole, grid, cut, placed),
      grid,
      path,
      speedMetresPerSecond,
      device,
      held,
      ...(isWatched ? { footing: { found, files } } : {}),
    },
    context,
    watch?.({ whole, cut, path, found }),
  );
  return { whole, cut, path, found, walk, isWatched };
}

/** The level's own file, as far as placements make it long, its grid, and what is seen, of which only the seek counts. */
function filesAtStart(
  level: StandingLevel,
  grid: CellGrid,
  cut: CutLevel,
  placed: PlacedFiles | undefined,
): WalkInput['levelFiles'] {
  const placedBytes = hasPlacedJson(placed)
    ? level.strata.reduce((sum, one) => sum + placedFileBytes(placementsOf(one)), 0)
    : 0;
  return { files: 3, diskBytes: placedBytes + cellsFile(grid, cut, level).length };
}

interface KnownCarrier {
  readonly id: string;
  /** Of a placement: key of the file that its piece's collision is in. */
  readonly meshFile?: string;
  readonly carrier: Carrier | undefined;
}

/** Blocks first, then placements of pieces that have a collision. */
function carriersOf(
  level: StandingLevel,
  pieces: RehearsalReads['pieces'],
  kitLoads: KitLoads,
  floors: Floors,
): KnownCarrier[] {
  const carriers: KnownCarrier[] = level.strata.flatMap(({ content }) =>
    content.block.map((block) => ({ id: block.id, carrier: blockCarrier(block) })),
  );
  const solids = new Map(
    Object.values(pieces).flatMap((piece) =>
      piece.collision
        ? [[piece.id, { ...solidOf(piece, floors), meshFile: meshFilesOf(piece, kitLoads).at(-1)?.key }] as const]
        : [],
    ),
  );
  for (const one of level.strata) {
    const columns = placementsOf(one);
    for (let i = 0; i < columns.count; i++) {
      const solid = solids.get(columns.pieces[i]);
      if (!solid) continue;
      const placement = placementAt(columns, i);
      const carrier = meshCarrier(solid.mesh, placement, placementBounds(placement, solid.bounds));
      carriers.push({ id: placement.id, meshFile: solid.meshFile, carrier });
    }
  }
  return carriers;
}

/** The collision of a piece, which may reach beyond what is drawn. */
function solidOf({ id, name }: Piece, floors: Floors): { mesh: CollisionMesh; bounds: Box3 } {
  const mesh = heldAt(floors, id);
  if (mesh) return { mesh, bounds: positionBounds([mesh.positions]) };
  throw new CoreError(
    'REHEARSAL_FLOOR',
    `rehearsal: the collision of ${name} is not in its kit’s GLB; set it again on Detail`,
    { piece: id },
  );
}

/** Tile floors may hold the foot in the game; of blocks and of pieces with a collision alone is it known here. */
function unwatchedFinding({ id, level }: Rehearsal): Finding {
  return finding({
    code: 'FOOTING_UNWATCHED',
    desk: 'cells',
    severity: 'note',
    subject: id,
    place: { level },
    message: 'The level has neither blocks nor pieces with a collision, so the floor under the walk is not known',
    why: 'A rehearsal walks on blocks and on pieces with a collision, which is set on Detail. Late cells are still reported.',
  });
}

function rehearsalFindings(rehearsal: Rehearsal, device: Device, { late, gaps, figures }: Walk): Finding[] {
  const findings: Finding[] = [];
  const { level } = rehearsal;
  const on = `on ${device.name}, walking “${rehearsal.name}”`;
  gaps.forEach((gap, i) => {
    const isLate = gap.cause === 'late';
    findings.push(
      finding({
        code: isLate ? 'NOTHING_UNDERFOOT' : 'PATH_OFF_FLOOR',
        desk: 'cells',
        severity: 'error',
        subject: `${rehearsal.id}.${gap.cell === null ? i + 1 : cellSubject(gap.cell)}`,
        place: { level, position: gap.from, line: [gap.from, gap.to] },
        message: isLate
          ? `No floor under the walk for ${seconds(gap.toMs - gap.fromMs)} at ${place(gap.from)} ${on}: cell ${gap.cell} is not loaded`
          : `The path has no floor from ${place(gap.from)} to ${place(gap.to)}`,
        why: isLate
          ? 'A player falls through the level there.'
          : 'No block lies under it, and no piece with a collision, loaded or not; nobody can walk there.',
      }),
    );
  });
  const byCell = new Map<string, typeof late>();
  for (const one of late) byCell.set(one.key, [...(byCell.get(one.key) ?? []), one]);
  for (const [key, times] of byCell) {
    const worst = times.reduce((most, one) => (one.lateMs > most.lateMs ? one : most));
    findings.push(
      finding({
        code: 'CELL_LATE',
        desk: 'cells',
        severity: 'warning',
        subject: `${rehearsal.id}.${cellSubject(key)}`,
        place: { level, position: worst.at },
        message: `Cell ${key} is ${seconds(worst.lateMs)} late ${on}${times.length > 1 ? `, ${times.length} times` : ''}; the walker was at ${place(worst.at)}`,
        why:
          worst.readyMs === null
            ? 'The walker had left before it was ready.'
            : 'It appears in plain view. Load it from farther away, make it smaller, or go slower there.',
      }),
    );
  }
  if (figures.peakBytes > device.budget.memoryBytes) {
    findings.push(
      finding({
        code: 'CELLS_OVER_MEMORY',
        desk: 'cells',
        severity: 'error',
        subject: rehearsal.id,
        place: { level },
        message: `${Math.round(figures.peakBytes / 1e6)} MB peak memory at ${seconds(figures.peakMs)} ${on}; ${device.name} allows ${Math.round(device.budget.memoryBytes / 1e6)} MB`,
        why: 'The walk alone needs more memory than the device has. Unload cells sooner, or cut smaller cells.',
      }),
    );
  }
  return findings;
}

function seconds(ms: number): string {
  return `${(ms / 1000).toFixed(2)} s`;
}

function place([x, , z]: Vector3): string {
  return `${x.toFixed(1)}, ${z.toFixed(1)}`;
}

/** A cell's key as part of a finding's id, which has no commas. */
function cellSubject(key: string): string {
  return key.replace(',', '_');
}
