import {
  isMirrored,
  placePoint,
  placedBounds,
  placementBounds,
  turnMatrix,
  type Box3,
  type Placement,
} from '@stravel/core';
import type { PlacementStore } from '../../document/placement-columns';
import { LaterUpdates } from '../later-updates';
import { PlacementInstances, type DetailView } from '../placement-instances';
import type { LayerHost, PlateLayer } from '../plate-layer';
import { ITEMS_A_STEP, type PlateKind } from './plate-kind';

/** Corners of a box's faces by number, bit 0 for x, 1 for y, 2 for z; each loop counter-clockwise from outside. */
const BOX_LOOPS = [
  [0, 4, 6, 2],
  [1, 3, 7, 5],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 2, 3, 1],
  [4, 5, 7, 6],
];

/** Faces of the turned box of a placement's piece. */
function boxFaces({ position, turn, scale }: Placement, { min, max }: Box3): Float64Array[] {
  const m = turnMatrix(turn);
  const corners = Array.from({ length: 8 }, (_unused, i) =>
    placePoint(position, m, scale, [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]]),
  );
  const loops = isMirrored(scale) ? BOX_LOOPS.map((loop) => [...loop].reverse()) : BOX_LOOPS;
  return loops.map((loop) => Float64Array.from(loop.flatMap((i) => corners[i])));
}

/** Placements as instances. Remembers which slot each was drawn from: a removed one's is used anew. */
class PlacementLayer implements PlateLayer {
  private readonly instances: PlacementInstances;
  private readonly slots = new Map<string, number>();
  private readonly updates: LaterUpdates<string>;

  constructor(
    private readonly table: PlacementStore,
    host: LayerHost,
  ) {
    this.instances = new PlacementInstances(
      host.parent,
      table,
      (piece) => host.meshOf(piece),
      (group) => host.isSeen(group),
      () => host.drawn(),
    );
    this.updates = new LaterUpdates(
      (id) => this.drawOne(id),
      () => host.drawn(),
    );
  }

  get isDrawing(): boolean {
    return this.instances.isDrawing || this.updates.isUnderWay;
  }

  rebuild(): void {
    this.updates.stop();
    this.instances.rebuild();
    this.slots.clear();
    for (let slot = 0; slot < this.table.slotCount; slot++) {
      const id = this.table.idAt(slot);
      if (id !== undefined) this.slots.set(id, slot);
    }
  }

  update(ids: readonly string[]): void {
    this.updates.add(ids);
  }

  private drawOne(id: string): void {
    const before = this.slots.get(id);
    const now = this.table.slotOf(id);
    if (before !== undefined && before !== now) this.instances.update(before);
    if (now >= 0) {
      this.slots.set(id, now);
      this.instances.update(now);
    } else this.slots.delete(id);
  }

  meshesChanged(): void {
    this.rebuild();
  }

  chooseSteps(view: DetailView): void {
    this.instances.chooseSteps(view);
  }

  dispose(): void {
    this.updates.stop();
    this.instances.dispose();
  }
}

export const PLACEMENT_PLATE: PlateKind<'placement'> = {
  rank: 1,
  bounds: (placement, { pieces }) => {
    const piece = pieces[placement.piece];
    return piece && placementBounds(placement, piece.bounds);
  },
  *boxes(table, { pieces }, into) {
    const { numbers } = table;
    const six = new Float64Array(6);
    for (let slot = 0; slot < table.slotCount; slot++) {
      if (slot % ITEMS_A_STEP === ITEMS_A_STEP - 1) yield;
      const id = table.idAt(slot);
      if (id === undefined || !into.isSeen(table.groupAt(slot))) continue;
      const piece = pieces[table.pieceAt(slot)];
      if (!piece) continue;
      placedBounds(numbers, slot, piece.bounds, six, 0);
      into.add(id, { min: [six[0], six[1], six[2]], max: [six[3], six[4], six[5]] });
    }
  },
  faces: (placement, { pieces }) => {
    const piece = pieces[placement.piece];
    return piece && boxFaces(placement, piece.bounds);
  },
  carries: true,
  stands: (table, into) => {
    const low: [number, number, number] = [Infinity, Infinity, Infinity];
    const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
    for (let slot = 0; slot < table.slotCount; slot++) {
      if (table.idAt(slot) === undefined) continue;
      for (let k = 0; k < 3; k++) {
        const value = table.numbers[slot * 9 + k];
        if (value < low[k]) low[k] = value;
        if (value > high[k]) high[k] = value;
      }
    }
    if (low[0] > high[0]) return;
    into(low);
    into(high);
  },
  layer: (table, host) => new PlacementLayer(table, host),
};
