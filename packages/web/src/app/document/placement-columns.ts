import {
  decodePlacementChunk,
  moreOf,
  type Placement,
  type PlacementColumns,
  type PlacementMore,
  type TurnDegrees,
  type Vector3,
} from '@stravel/core';
import type { ItemTable } from './item-table';

const NUMBERS = 9;

/** Marks a slot that holds nothing. */
export const NO_SLOT = -1;

/**
 * The placements of one stratum in columns. A placement keeps its slot as long as it lives, so that what is drawn of it
 * can be found again; slots of removed ones are used anew.
 */
export class PlacementStore implements ItemTable<'placement'> {
  /** Nine numbers a slot: position, turn in degrees, scale. */
  numbers = new Float64Array(0);
  private readonly ids: (string | undefined)[] = [];
  private readonly pieces: string[] = [];
  /** Ids of pieces that were placed at some time, and may be still. */
  readonly piecesSeen = new Set<string>();
  private readonly slots = new Map<string, number>();
  /** Group and own values of the slots that have any. */
  private readonly more = new Map<number, PlacementMore>();
  private readonly free: number[] = [];

  /** Number of placements. */
  get size(): number {
    return this.slots.size;
  }

  /** One more than the greatest slot in use. */
  get slotCount(): number {
    return this.ids.length;
  }

  slotOf(id: string): number {
    return this.slots.get(id) ?? NO_SLOT;
  }

  /** Id in a slot, undefined when it is free. */
  idAt(slot: number): string | undefined {
    return this.ids[slot];
  }

  pieceAt(slot: number): string {
    return this.pieces[slot];
  }

  groupAt(slot: number): string | undefined {
    return this.more.get(slot)?.group ?? undefined;
  }

  clear(): void {
    for (const id of [...this.slots.keys()]) this.delete(id);
  }

  addChunk(bytes: Uint8Array): void {
    this.addColumns(decodePlacementChunk(bytes));
  }

  addColumns(columns: PlacementColumns): void {
    this.reserve(this.ids.length + columns.count);
    const start = this.ids.length;
    this.numbers.set(columns.numbers, start * NUMBERS);
    columns.ids.forEach((id, i) => {
      this.ids.push(id);
      this.pieces.push(columns.pieces[i]);
      this.piecesSeen.add(columns.pieces[i]);
      this.slots.set(id, start + i);
    });
    for (const [i, more] of columns.more) this.more.set(start + i, more);
  }

  /** All placements in columns of their own, in order of slot. */
  columns(): PlacementColumns {
    const count = this.size;
    const numbers = new Float64Array(count * NUMBERS);
    const ids: string[] = [];
    const pieces: string[] = [];
    const more = new Map<number, PlacementMore>();
    this.ids.forEach((id, slot) => {
      if (id === undefined) return;
      numbers.set(this.numbers.subarray(slot * NUMBERS, (slot + 1) * NUMBERS), ids.length * NUMBERS);
      const own = this.more.get(slot);
      if (own) more.set(ids.length, own);
      ids.push(id);
      pieces.push(this.pieces[slot]);
    });
    return { count, ids, pieces, numbers, more };
  }

  get(id: string): Placement | undefined {
    const slot = this.slots.get(id);
    if (slot === undefined) return undefined;
    const three = (k: number): Vector3 => {
      const at = slot * NUMBERS + k;
      return [this.numbers[at], this.numbers[at + 1], this.numbers[at + 2]];
    };
    return {
      id,
      piece: this.pieces[slot],
      position: three(0),
      turn: three(3) as TurnDegrees,
      scale: three(6),
      ...this.more.get(slot),
    };
  }

  put(placement: Placement): number {
    let slot = this.slots.get(placement.id);
    if (slot === undefined) {
      slot = this.free.pop() ?? this.ids.length;
      this.reserve(slot + 1);
      this.ids[slot] = placement.id;
      this.slots.set(placement.id, slot);
    }
    this.pieces[slot] = placement.piece;
    this.piecesSeen.add(placement.piece);
    const more = moreOf(placement);
    if (more) this.more.set(slot, more);
    else this.more.delete(slot);
    this.numbers.set(placement.position, slot * NUMBERS);
    this.numbers.set(placement.turn, slot * NUMBERS + 3);
    this.numbers.set(placement.scale, slot * NUMBERS + 6);
    return slot;
  }

  has(id: string): boolean {
    return this.slots.has(id);
  }

  delete(id: string): void {
    const slot = this.slots.get(id);
    if (slot === undefined) return;
    this.slots.delete(id);
    this.ids[slot] = undefined;
    this.more.delete(slot);
    this.free.push(slot);
  }

  /** Every placement as a record, in order of slot. */
  *keys(): IterableIterator<string> {
    for (const id of this.ids) if (id !== undefined) yield id;
  }

  *groups(): IterableIterator<readonly [id: string, group: string | undefined]> {
    for (let slot = 0; slot < this.slotCount; slot++) {
      const id = this.ids[slot];
      if (id !== undefined) yield [id, this.groupAt(slot)];
    }
  }

  *values(): IterableIterator<Placement> {
    for (const id of this.ids) {
      const placement = id === undefined ? undefined : this.get(id);
      if (placement) yield placement;
    }
  }

  private reserve(slots: number): void {
    if (this.numbers.length >= slots * NUMBERS) return;
    const grown = new Float64Array(Math.max(slots, 64, (this.numbers.length / NUMBERS) * 2) * NUMBERS);
    grown.set(this.numbers);
    this.numbers = grown;
  }
}
