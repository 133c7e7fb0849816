import { RESIDENT } from '../../cells/cut-level';
import { countStrata } from '../../budget/count-strata';
import type { Thing } from '../../budget/pocket-figures';
import type { RunContext } from '../../context/run-context';
import { stepAtDistance } from '../../detail/switch-distance';
import { placementsOf } from '../../layout/level-placements';
import type { LevelContent } from '../../layout/level-content';
import type { Piece } from '../../model/kit';
import type { Vector3 } from '../../model/vector';
import type { ViewSettings } from '../../model/view-settings';
import { holdsPoint, pocketAt } from '../../sight/closure';
import { DEFAULT_SIGHT_OPTIONS } from '../../sight/sight-input';
import { thingsOfPockets } from '../../sight/pocket-things';
import { blocksNothing, type SightResult } from '../../sight/sight-result';
import type { DrawnChanges } from './walk-run';

/** More LODs than a piece has, and more lattice cells than a level. */
export const TOGETHER = 2097152;

/** What a level draws, by its own data: the core's side of a walk. */
export class DrawnScene {
  readonly objects: readonly string[];
  private readonly things: readonly Thing[];
  private readonly bounds: Float64Array;
  /** Number of the object of each thing. */
  private readonly objectOf: readonly number[];
  /** Number of the cell of each object. */
  private readonly cells: readonly number[];
  private readonly inPocket: readonly (readonly number[])[];
  /** Number of the lattice cell of each pocket; those of things apart come after. */
  private readonly groups: readonly number[];
  /** Things that no pocket has. */
  private readonly apart: readonly { readonly thing: number; readonly group: number }[];
  /** Number of what a thing is drawn together with: its piece, or its material of blocks. */
  private readonly alike: readonly number[];
  private readonly stamp: Int32Array;
  private draws = 0;
  private readonly visible: readonly (readonly number[])[];
  private pocket = -1;

  /** @throws CoreError 'FIGURES_PIECE_MISSING', 'CANCELLED' */
  constructor(
    content: Pick<LevelContent, 'level' | 'strata'>,
    pieces: Readonly<Record<string, Piece>>,
    view: ViewSettings,
    private readonly sight: SightResult,
    /** Number of the cell of each object by id; RESIDENT for what is always loaded. */
    cellOf: Readonly<Record<string, number>>,
    context: RunContext,
  ) {
    const counted = countStrata(
      {
        level: content.level.id,
        strata: content.strata.map((one) => ({
          id: one.stratum.id,
          name: one.stratum.name,
          role: one.stratum.role,
          shared: one.stratum.owner === null,
          blocks: one.content.block,
          placements: placementsOf(one),
          markers: [],
        })),
        pieces: Object.values(pieces),
        view,
        linked: null,
        findings: [],
      },
      context,
    );
    this.things = counted.things;
    this.bounds = counted.bounds;
    const objects: string[] = [];
    this.objectOf = counted.things.map(({ isPart }, i) => (isPart ? objects.length : objects.push(counted.ids[i])) - 1);
    this.objects = objects;
    this.cells = objects.map((id) => cellOf[id] ?? RESIDENT);
    this.inPocket = blocksNothing(sight)
      ? [counted.things.map((_, i) => i)]
      : thingsOfPockets(sight.pockets, counted.bounds);
    const groups = new Map<string, number>();
    const groupOf = (cell: string): number => numberIn(groups, cell);
    this.groups = sight.pockets.map(({ bounds: { min, max } }) => groupOf(latticeCell([...min, ...max], 0)));
    const held = new Set(this.inPocket.flat());
    this.apart = counted.things.flatMap((_, thing) =>
      held.has(thing) ? [] : [{ thing, group: groupOf(latticeCell(counted.bounds, thing * 6)) }],
    );
    const alike = new Map<string, number>();
    this.alike = counted.things.map(({ what, id, mirrored }) =>
      numberIn(alike, `${what} ${id}${mirrored ? ' mirrored' : ''}`),
    );
    this.stamp = new Int32Array(counted.things.length).fill(-1);
    this.visible = sight.visible;
  }

  /**
   * Draws what is seen from an eye: the objects of the visible set of its pocket whose cell is there, each at the LOD of its distance. All that is
   * there where no pocket has the eye, or one that is not reached.
   * @param isThere whether a cell is in memory, by its number
   */
  draw(
    eye: Vector3,
    isThere: (cell: number) => boolean,
    changes: DrawnChanges,
  ): { triangles: number; drawCalls: number } {
    const { pockets } = this.sight;
    // Where two pockets share a border the one that was there stays.
    if (this.pocket < 0 || !holdsPoint(pockets[this.pocket], eye)) this.pocket = pocketAt(pockets, eye);
    const isAll = this.pocket < 0 || !pockets[this.pocket].reached;
    const seen = isAll ? pockets.map((_, i) => i) : this.visible[this.pocket];
    const calls = new Set<number>();
    const drawing = this.draws++;
    let [triangles, drawCalls] = [0, 0];
    const draw = (i: number, group: number): void => {
      const object = this.objectOf[i];
      const cell = this.cells[object];
      if (cell !== RESIDENT && !isThere(cell)) return;
      const { what, steps, distances } = this.things[i];
      const step = distances.length === 1 ? 0 : stepAtDistance(distances, this.distance(i, eye));
      const call = this.alike[i] * TOGETHER + (what === 'piece' ? step : group);
      if (!calls.has(call)) drawCalls += steps[step].materials;
      calls.add(call);
      if (this.stamp[i] === drawing) return;
      this.stamp[i] = drawing;
      triangles += steps[step].triangles;
      changes.draw(object, step);
    };
    for (const pocket of seen) for (const i of this.inPocket[pocket]) draw(i, this.groups[pocket]);
    if (isAll) for (const { thing, group } of this.apart) draw(thing, group);
    changes.stop();
    return { triangles, drawCalls };
  }

  private distance(thing: number, eye: Vector3): number {
    let squared = 0;
    for (let k = 0; k < 3; k++) {
      const gap = Math.max(0, this.bounds[thing * 6 + k] - eye[k], eye[k] - this.bounds[thing * 6 + 3 + k]);
      squared += gap * gap;
    }
    return Math.sqrt(squared);
  }
}

/** The cell of the fixed lattice in which the middle of a box lies. @param box six numbers from `at` on */
export function latticeCell(box: ArrayLike<number>, at: number): string {
  const cell = (k: number): number =>
    Math.floor((box[at + k] + box[at + 3 + k]) / 2 / DEFAULT_SIGHT_OPTIONS.latticeMetres);
  return `${cell(0)},${cell(1)},${cell(2)}`;
}

/** The number under which a table knows a key; a new one gets the next. */
export function numberIn(table: Map<string, number>, key: string): number {
  const known = table.get(key) ?? table.size;
  table.set(key, known);
  return known;
}
