import type { RunContext } from '../context/run-context';
import { switchDistances } from '../detail/switch-distance';
import { CoreError } from '../errors';
import type { Finding } from '../findings';
import { blockSurfaceIfAny } from '../geometry/block-solid';
import { placementBounds } from '../layout/placement-bounds';
import type { Block } from '../model/block';
import type { Marker } from '../model/marker';
import type { Piece } from '../model/kit';
import type { Placement } from '../model/placement';
import type { StratumRole } from '../model/stratum';
import type { ViewSettings } from '../model/view-settings';
import { thingsOfPockets } from '../sight/pocket-things';
import type { SightResult } from '../sight/sight-result';
import { countSeen, describePocket, pocketGroups, type PocketFigures, type SeenScene, type Thing } from './pocket-figures';
import { INSTANCE_BYTES, PACKED_SHARE, blockBytes } from './cost-model';

/** Raised whenever the same input would give other figures. */
export const FIGURES_VERSION = 4;
/** Most pockets kept in the list of worst ones. */
const MOST_WORST = 20;

/** What the figures of a level are made from; blocks and placements in order of id. */
export interface FiguresInput {
  readonly strata: readonly {
    readonly id: string;
    readonly name: string;
    readonly role: StratumRole;
    readonly shared: boolean;
    readonly blocks: readonly Block[];
    readonly placements: readonly Placement[];
    readonly markers: readonly Pick<Marker, 'kind'>[];
  }[];
  readonly pieces: readonly Piece[];
  /** The picture for which detail steps are chosen. */
  readonly view: ViewSettings;
  /** What was found while the level's sections were made, and in how it is laid out. */
  readonly findings: readonly Finding[];
  readonly sight: SightResult;
}

/** What one stratum adds. */
export interface StratumFigures {
  readonly stratum: string;
  readonly name: string;
  readonly role: StratumRole;
  readonly shared: boolean;
  readonly blocks: number;
  readonly placements: number;
  /** Triangles of everything in it at full detail. */
  readonly triangles: number;
  /** Draw calls of everything in it: pieces by material, blocks by material. */
  readonly drawCalls: number;
  readonly memoryBytes: number;
  readonly diskBytes: number;
}

/** How many of what stand in a level, sections included. */
export interface Tally {
  /** By kind. */
  readonly markers: Readonly<Record<string, number>>;
  /** Placements by id of their piece. */
  readonly pieces: Readonly<Record<string, number>>;
  /** By sight. */
  readonly blocks: Readonly<Record<string, number>>;
}

/** The figures of one level. What a device makes of them is computed when they are shown. */
export interface LevelFigures {
  readonly version: number;
  readonly strata: readonly StratumFigures[];
  /** Meshes of the pieces that the level uses, counted once. */
  readonly kitBytes: number;
  readonly kitDiskBytes: number;
  readonly kits: number;
  readonly memoryBytes: number;
  readonly diskBytes: number;
  /** Files to read: one a stratum, one a kit, one for the level. */
  readonly files: number;
  readonly triangles: number;
  readonly things: number;
  readonly tally: Tally;
  /** Triangles seen all round from each pocket; 0 for pockets that are not reached. */
  readonly pocketTriangles: readonly number[];
  readonly pocketDrawCalls: readonly number[];
  /** Blocks and placements seen all round from each pocket. */
  readonly pocketThings: readonly number[];
  /** By triangles, most first. */
  readonly worst: readonly PocketFigures[];
  /** The pocket with most draw calls, null when there is none. */
  readonly worstDrawCalls: PocketFigures | null;
  readonly findings: readonly Finding[];
}

/** Figures without what is counted pocket by pocket. */
export type FiguresSummary = Omit<LevelFigures, 'pocketTriangles' | 'pocketDrawCalls' | 'pocketThings'>;

/**
 * Counts a level: what each stratum costs, and what would be drawn all round from every pocket (PRODUCT: worst pocket).
 * @throws CoreError 'FIGURES_PIECE_MISSING' naming the placement, 'CANCELLED'
 */
export function levelFigures(input: FiguresInput, context: RunContext): LevelFigures {
  const pieces = new Map(input.pieces.map((piece) => [piece.id, piece]));
  const { things, bounds, strata } = countStrata(input, pieces, context);
  context.progress(0.3, 'placing things in pockets');
  context.checkCancelled();
  const { pockets, visible } = input.sight;
  const scene: SeenScene = { things, bounds, inPocket: thingsOfPockets(pockets, bounds), groups: pocketGroups(pockets.map(({ key }) => key)), pockets };
  const pocketTriangles: number[] = [];
  const pocketDrawCalls: number[] = [];
  const pocketThings: number[] = [];
  const stamp = new Int32Array(things.length).fill(-1);
  visible.forEach((seen, pocket) => {
    if (pocket % 64 === 0) {
      context.checkCancelled();
      context.progress(0.4 + (0.6 * pocket) / visible.length, 'counting what is seen');
    }
    const count = countSeen(pocket, seen, scene, stamp);
    pocketTriangles.push(count.triangles);
    pocketDrawCalls.push(count.drawCalls);
    pocketThings.push(count.things);
  });
  const describe = (pocket: number): PocketFigures =>
    describePocket(
      pocket,
      visible[pocket],
      scene,
      input.strata.map(({ id }) => id),
      { things: pocketThings[pocket], triangles: pocketTriangles[pocket], drawCalls: pocketDrawCalls[pocket] },
    );
  const order = visible.flatMap((seen, pocket) => (seen.length > 0 ? [pocket] : []));
  const byTriangles = [...order].sort((a, b) => pocketTriangles[b] - pocketTriangles[a] || a - b);
  const byDrawCalls = [...order].sort((a, b) => pocketDrawCalls[b] - pocketDrawCalls[a] || a - b);
  const used = [...new Set(input.strata.flatMap(({ placements }) => placements.map(({ piece }) => piece)))].map((id) => pieces.get(id) as Piece);
  const kitBytes = used.reduce((sum, piece) => sum + piece.steps.reduce((total, step) => total + step.bytes, 0), 0);
  const kits = new Set(used.map(({ kit }) => kit)).size;
  const kitDiskBytes = Math.round(kitBytes * PACKED_SHARE);
  return {
    version: FIGURES_VERSION,
    strata,
    kitBytes,
    kitDiskBytes,
    kits,
    memoryBytes: kitBytes + strata.reduce((sum, { memoryBytes }) => sum + memoryBytes, 0),
    diskBytes: kitDiskBytes + strata.reduce((sum, { diskBytes }) => sum + diskBytes, 0),
    files: 1 + strata.length + kits,
    triangles: strata.reduce((sum, { triangles }) => sum + triangles, 0),
    things: things.length,
    tally: {
      markers: countBy(input.strata.flatMap(({ markers }) => markers.map(({ kind }) => kind))),
      pieces: countBy(input.strata.flatMap(({ placements }) => placements.map(({ piece }) => piece))),
      blocks: countBy(input.strata.flatMap(({ blocks }) => blocks.map(({ sight }) => sight))),
    },
    pocketTriangles,
    pocketDrawCalls,
    pocketThings,
    worst: byTriangles.slice(0, MOST_WORST).map(describe),
    worstDrawCalls: byDrawCalls.length > 0 ? describe(byDrawCalls[0]) : null,
    findings: input.findings,
  };
}

function countBy(names: readonly string[]): Record<string, number> {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  return Object.fromEntries([...counts].sort(([a], [b]) => (a < b ? -1 : 1)));
}

function countStrata(input: FiguresInput, pieces: ReadonlyMap<string, Piece>, context: RunContext): { things: Thing[]; bounds: Float64Array; strata: StratumFigures[] } {
  const things: Thing[] = [];
  const bounds: number[] = [];
  const strata = input.strata.map((stratum, index): StratumFigures => {
    context.checkCancelled();
    let triangles = 0;
    let memoryBytes = 0;
    const drawn = new Map<string, number>();
    for (const block of stratum.blocks) {
      const surface = blockSurfaceIfAny(block);
      if (!surface) continue;
      triangles += surface.triangles;
      memoryBytes += blockBytes(surface);
      drawn.set(`material ${block.material}`, 1);
      things.push({ what: 'blocks', id: block.material, name: block.material, steps: [{ triangles: surface.triangles, materials: 1 }], distances: [0], stratum: index });
      bounds.push(...surface.bounds.min, ...surface.bounds.max);
    }
    for (const placement of stratum.placements) {
      const piece = pieces.get(placement.piece);
      if (!piece) throw new CoreError('FIGURES_PIECE_MISSING', `figures: the placement ${placement.id} uses the piece ${placement.piece}, which is not there`);
      const [full] = piece.steps;
      triangles += full.triangles;
      memoryBytes += INSTANCE_BYTES;
      drawn.set(`piece ${piece.id}`, full.materials);
      const distances = switchDistances(piece.steps, input.view, Math.max(...placement.scale));
      things.push({ what: 'piece', id: piece.id, name: piece.name, steps: piece.steps, distances, stratum: index });
      const box = placementBounds(placement, piece.bounds);
      bounds.push(...box.min, ...box.max);
    }
    const drawCalls = [...drawn.values()].reduce((sum, calls) => sum + calls, 0);
    return {
      stratum: stratum.id,
      name: stratum.name,
      role: stratum.role,
      shared: stratum.shared,
      blocks: stratum.blocks.length,
      placements: stratum.placements.length,
      triangles,
      drawCalls,
      memoryBytes,
      diskBytes: Math.round(memoryBytes * PACKED_SHARE),
    };
  });
  return { things, bounds: new Float64Array(bounds), strata };
}
