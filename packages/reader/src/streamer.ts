import type { Fields } from './fields';
import { RESIDENT, type ChunkHead, type PackLevel } from './level';
import { insideOf, type IsInside } from './volume-shape';

/** What is loaded and unloaded as one: a chunk's own files, or a file that several chunks need. */
export interface StreamUnit {
  /** Name of the chunk whose files these are; null for a kit's file and for a GLB of meshes. */
  readonly chunk: string | null;
  /** Paths of its files; a chunk may have none, as its placements may stand in the level's own file. */
  readonly paths: readonly string[];
}

interface Holder {
  readonly isInside: IsInside;
  /** Numbers of units. */
  readonly cells: readonly number[];
}

interface LoadRule {
  readonly loadMetres: number;
  readonly dropMetres: number;
}

/**
 * Says what to load and what to unload as the player moves. A cell is asked for when it is not farther than `loadMetres`, or when the player
 * is in a volume that loads it, and dropped when it is farther than `dropMetres` and no volume holds it. A file that several chunks need
 * is asked for with the first and dropped with the last. `update` allocates nothing.
 */
export class Streamer {
  /** The resident chunk, then cells, then the files that they share. */
  readonly units: readonly StreamUnit[];
  /** Numbers of the units that the last update asked for: the first `askedCount`, chunks before what they share. */
  readonly asked: Uint32Array;
  askedCount = 0;
  /** Numbers of the units that the last update dropped: the first `droppedCount`. */
  readonly dropped: Uint32Array;
  droppedCount = 0;
  private readonly users: Uint32Array;
  private readonly holding: Uint32Array;
  private readonly distances: Float64Array;

  constructor(
    units: readonly StreamUnit[],
    /** Units that each chunk needs besides its own. */
    private readonly needs: readonly (readonly number[])[],
    /** Least and greatest x and z of each cell. */
    private readonly squares: Float64Array,
    private readonly rule: LoadRule,
    private readonly holders: readonly Holder[],
  ) {
    this.units = units;
    this.asked = new Uint32Array(units.length);
    this.dropped = new Uint32Array(units.length);
    this.users = new Uint32Array(units.length);
    this.holding = new Uint32Array(needs.length);
    this.distances = new Float64Array(units.length).fill(Infinity);
  }

  /** Whether a unit is asked for and not dropped again. */
  isWanted(unit: number): boolean {
    return this.users[unit] > 0;
  }

  /** Looks where the player is, metres. At the first call it asks for what has to be there before the first step. */
  update(x: number, y: number, z: number): void {
    this.askedCount = 0;
    this.droppedCount = 0;
    const { users, holding, needs, rule } = this;
    holding.fill(0);
    for (let i = 0; i < this.holders.length; i++) {
      const { isInside, cells } = this.holders[i];
      if (isInside(x, y, z)) for (let k = 0; k < cells.length; k++) holding[cells[k]]++;
    }
    if (users[0] === 0) this.want(0);
    for (let cell = 1; cell < needs.length; cell++) {
      this.distances[cell] = this.distanceOfCell(cell, x, z);
      if (users[cell] > 0 && holding[cell] === 0 && this.distances[cell] > rule.dropMetres) this.drop(cell);
    }
    for (let cell = 1; cell < needs.length; cell++)
      if (users[cell] === 0 && (holding[cell] > 0 || this.distances[cell] <= rule.loadMetres)) this.want(cell);
    this.measureShared();
  }

  /**
   * How urgent a unit is: the distance of its cell from the player at the last update, metres; of a shared file that of the nearest wanted
   * cell that needs it, 0 where the resident chunk does. Infinity where nobody wants it.
   */
  distance(unit: number): number {
    return this.distances[unit];
  }

  /** Whether a chunk can be shown: it and all that it needs have come. @param hasCome 1 for each unit that is in memory */
  isThere(chunk: number, hasCome: ArrayLike<number>): boolean {
    if (hasCome[chunk] === 0) return false;
    for (const unit of this.needs[chunk]) if (hasCome[unit] === 0) return false;
    return true;
  }

  private want(chunk: number): void {
    this.users[chunk] = 1;
    this.asked[this.askedCount++] = chunk;
    for (const unit of this.needs[chunk]) if (this.users[unit]++ === 0) this.asked[this.askedCount++] = unit;
  }

  private drop(chunk: number): void {
    this.users[chunk] = 0;
    this.dropped[this.droppedCount++] = chunk;
    for (const unit of this.needs[chunk]) if (--this.users[unit] === 0) this.dropped[this.droppedCount++] = unit;
  }

  private measureShared(): void {
    const { distances, needs, users } = this;
    distances.fill(Infinity, needs.length);
    distances[0] = 0;
    for (let chunk = 0; chunk < needs.length; chunk++) {
      if (users[chunk] === 0) continue;
      for (const unit of needs[chunk]) if (distances[chunk] < distances[unit]) distances[unit] = distances[chunk];
    }
  }

  private distanceOfCell(cell: number, x: number, z: number): number {
    const at = cell * 4;
    const dx = Math.max(this.squares[at] - x, 0, x - this.squares[at + 2]);
    const dz = Math.max(this.squares[at + 1] - z, 0, z - this.squares[at + 3]);
    return Math.sqrt(dx * dx + dz * dz);
  }
}

/** Streams a level; one that is not cut has its resident chunk alone. @throws PackError */
export async function createStreamer(level: PackLevel): Promise<Streamer> {
  const cells = await level.cells();
  const heads = new Map(level.chunks.map((head) => [head.name, head]));
  const told = cells?.tables('cells') ?? [];
  const names = [RESIDENT, ...told.map((cell) => cell.text('cell'))];
  const squares = new Float64Array(names.length * 4);
  told.forEach((cell, i) => squares.set([...cell.numbers('min', 2), ...cell.numbers('max', 2)], (i + 1) * 4));
  const units: StreamUnit[] = names.map((name) => ({ chunk: name, paths: ownPaths(heads.get(name)) }));
  const shared = new Map<string, number>();
  const needs = names.map((name) => {
    const head = heads.get(name);
    return [...(head?.kits ?? []), ...(head?.meshes ?? [])].map((path) => {
      const known = shared.get(path) ?? units.push({ chunk: null, paths: [path] }) - 1;
      shared.set(path, known);
      return known;
    });
  });
  const rule = cells
    ? { loadMetres: cells.number('loadMetres'), dropMetres: cells.number('dropMetres') }
    : { loadMetres: 0, dropMetres: 0 };
  return new Streamer(units, needs, squares, rule, cells ? holdersOf(level, cells, names) : []);
}

function ownPaths(head: ChunkHead | undefined): string[] {
  return head ? [head.geometry, head.columns].filter((path) => path !== null) : [];
}

/** The volumes that load cells. @param names of chunks, by their units */
function holdersOf(level: PackLevel, cells: Fields, names: readonly string[]): Holder[] {
  const numbers = new Map(names.map((name, unit) => [name, unit]));
  const volumes = new Map(level.items('volumes').map((volume) => [volume.text('id'), volume]));
  return cells.tables('volumes').flatMap((rule) => {
    const volume = volumes.get(rule.text('volume'));
    if (!volume) return rule.fail('volume', 'must be a volume of the level');
    return [{ isInside: insideOf(volume), cells: rule.texts('cells').flatMap((key) => numbers.get(key) ?? []) }];
  });
}
