import { BoxTree, ITEM_KINDS, type Box3, type ItemKind, type Piece } from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { ALL_GROUPS, isSeen, unseenGroups, type HiddenGroups } from '../document/unseen-groups';
import { facesOfItem, ofItem, plateEnv } from './item-shapes';
import { plateKind } from './kinds';
import { planeOf } from './face-plane';
import { isOverFaces } from './kinds/plan-outline';
import { ITEMS_A_STEP, type PlateEnv } from './kinds/plate-kind';
import type { PickItem } from './pick-item';
import { SlicedWork } from './sliced-work';

/** Where things are, for picking by point, box and ray. Made anew when asked after a change. */
export class PickIndex {
  private items: PickItem[] = [];
  private tree: BoxTree | undefined;
  /** What stood when it was last looked through, or began to be. */
  private beginning = '';
  private readonly work = new SlicedWork();

  constructor(
    private readonly strata: () => readonly StratumDocument[],
    private readonly pieces: () => Readonly<Record<string, Piece>>,
    /** Blocks whose surface is still to be made; they cannot be picked before. */
    private readonly pendingBlocks: () => number = () => 0,
    private readonly hiddenGroups: () => HiddenGroups = () => ALL_GROUPS,
    /** Told what there is, each time that all was looked through. */
    private readonly looked: (items: readonly PickItem[]) => void = () => undefined,
  ) {}

  /** Things over a point of the plan within a range of heights, highest first. @param reach metres about the point */
  atPlan(x: number, z: number, bottom: number, top: number, reach: number): PickItem[] {
    return this.inBox([x - reach, bottom, z - reach], [x + reach, top, z + reach])
      .filter((item) => this.isOver(item, x, z, reach))
      .sort((a, b) => plateKind(b.kind).rank - plateKind(a.kind).rank || b.bounds.max[1] - a.bounds.max[1]);
  }

  /** Things whose bounds lie in a box. */
  within(min: readonly number[], max: readonly number[]): PickItem[] {
    return this.inBox(min, max).filter(
      ({ bounds }) =>
        bounds.min[0] >= min[0] && bounds.max[0] <= max[0] && bounds.min[2] >= min[2] && bounds.max[2] <= max[2],
    );
  }

  /** All things. */
  everything(): PickItem[] {
    return this.within([-1e9, -1e9, -1e9], [1e9, 1e9, 1e9]);
  }

  /** Things that a ray meets, nearest first; blocks and placements by their faces, all else by bounds. */
  alongRay(origin: readonly number[], direction: readonly number[]): PickItem[] {
    this.refresh();
    return (this.tree?.alongRay(origin, direction) ?? [])
      .map(({ item, distance }) => ({
        item: this.items[item],
        distance: this.exactDistance(this.items[item], origin, direction, distance),
      }))
      .filter(({ distance }) => distance !== undefined)
      .sort((a, b) => (a.distance as number) - (b.distance as number))
      .map(({ item }) => item);
  }

  /** Where on the plan a look meets the first thing, or else a height. @returns x and z, undefined when it meets neither */
  firstPoint(origin: readonly number[], direction: readonly number[], height: number): [number, number] | undefined {
    const met = this.nearestCarrier(origin, direction);
    const least = met === Infinity ? (height - origin[1]) / direction[1] : met;
    return Number.isFinite(least) && least > 0
      ? [origin[0] + direction[0] * least, origin[2] + direction[2] * least]
      : undefined;
  }

  /** Height of what carries under a point, looking down from it; undefined when there is none. @param skip ids that do not count */
  surfaceBelow([x, y, z]: readonly [number, number, number], skip: ReadonlySet<string>): number | undefined {
    const least = this.nearestCarrier([x, y, z], [0, -1, 0], skip);
    return least === Infinity ? undefined : y - least;
  }

  /** Things whose bounds touch a box. */
  touching(min: readonly number[], max: readonly number[]): PickItem[] {
    return this.inBox(min, max);
  }

  /** How far along a ray the first thing is that carries others; infinite when it meets none. */
  private nearestCarrier(
    origin: readonly number[],
    direction: readonly number[],
    skip: ReadonlySet<string> = new Set(),
  ): number {
    this.refresh();
    let least = Infinity;
    for (const { item, distance } of this.tree?.alongRay(origin, direction) ?? []) {
      const found = this.items[item];
      if (distance > least || skip.has(found.id) || !plateKind(found.kind).carries) continue;
      least = Math.min(least, this.exactDistance(found, origin, direction, distance) ?? Infinity);
    }
    return least;
  }

  private inBox(min: readonly number[], max: readonly number[]): PickItem[] {
    this.refresh();
    return (this.tree?.inBox(min, max) ?? []).sort((a, b) => a - b).map((i) => this.items[i]);
  }

  private exactDistance(
    item: PickItem,
    origin: readonly number[],
    direction: readonly number[],
    rough: number,
  ): number | undefined {
    const bodies = this.bodiesOf(item);
    if (!bodies) return rough;
    const met = bodies.flatMap((faces) => distanceToBody(faces, origin, direction) ?? []);
    return met.length > 0 ? met.reduce((a, b) => Math.min(a, b)) : undefined;
  }

  private isOver(item: PickItem, x: number, z: number, reach: number): boolean {
    const document = this.documentOf(item);
    if (!document) return false;
    const spot = { x, z, reach };
    const filled = { bounds: item.bounds, faces: facesOfItem(document, item.kind, item.id, this.pieces()) };
    return (
      ofItem(
        document,
        item.kind,
        item.id,
        (spec, thing) => spec.isOver?.(thing, spot, filled) ?? isOverFaces(spot, filled),
      ) ?? false
    );
  }

  private documentOf(item: PickItem): StratumDocument | undefined {
    return this.strata().find(({ id }) => id === item.stratum);
  }

  facesOf(item: PickItem): readonly Float64Array[] | undefined {
    const document = this.documentOf(item);
    return document && facesOfItem(document, item.kind, item.id, this.pieces());
  }

  /** The faces of each convex body of an item; undefined for what has no body. */
  private bodiesOf(item: PickItem): readonly (readonly Float64Array[])[] | undefined {
    const document = this.documentOf(item);
    const bodies = document && ofItem(document, item.kind, item.id, (spec, thing) => spec.bodies?.(thing));
    const faces = bodies ? undefined : this.facesOf(item);
    return bodies ?? (faces && [faces]);
  }

  /** Whether what stands now is what was looked through last; if not, looking goes on in slices until it is. */
  prepare(): void {
    if (this.stateNow() !== this.beginning) this.begin();
  }

  /** Whether what stands now was looked through: asking costs no more then. */
  isReady(): boolean {
    return this.stateNow() === this.beginning && !this.work.isUnderWay;
  }

  private refresh(): void {
    if (this.stateNow() !== this.beginning) this.begin();
    this.work.finish();
  }

  private stateNow(): string {
    const hidden = this.hiddenGroups();
    return `${this.strata()
      .map(({ id, version }) => `${id}:${version}`)
      .join()} ${this.pendingBlocks()} ${[...hidden.hidden].join()} ${hidden.alone}`;
  }

  private begin(): void {
    this.beginning = this.stateNow();
    this.work.begin(this.lookThrough());
  }

  private *lookThrough(): Generator<void> {
    const strata = this.strata();
    const onlyMade = this.pendingBlocks() > 0;
    const hidden = this.hiddenGroups();
    const items: PickItem[] = [];
    for (const document of strata) {
      const env = plateEnv(document, this.pieces());
      const unseen = unseenGroups(document, hidden);
      for (const kind of ITEM_KINDS) yield* lookThroughKind(document, kind, env, unseen, onlyMade, items);
    }
    const boxes = new Float64Array(items.length * 6);
    for (const [i, { bounds }] of items.entries()) {
      if (i % ITEMS_A_STEP === ITEMS_A_STEP - 1) yield;
      boxes.set(bounds.min, i * 6);
      boxes.set(bounds.max, i * 6 + 3);
    }
    yield;
    const tree = yield* BoxTree.inSteps(boxes);
    this.items = items;
    this.tree = tree;
    this.looked(items);
  }
}

/** How far along a ray it enters a convex body; undefined when it misses it. */
function distanceToBody(
  faces: readonly Float64Array[],
  origin: readonly number[],
  direction: readonly number[],
): number | undefined {
  let near = 0;
  let far = Infinity;
  for (const face of faces) {
    const [nx, ny, nz, d] = planeOf(face);
    const s = nx * origin[0] + ny * origin[1] + nz * origin[2] - d;
    const v = nx * direction[0] + ny * direction[1] + nz * direction[2];
    if (v === 0) {
      if (s > 0) return undefined;
    } else if (v < 0) near = Math.max(near, -s / v);
    else far = Math.min(far, -s / v);
  }
  return near <= far ? near : undefined;
}

function lookThroughKind<K extends ItemKind>(
  document: StratumDocument,
  kind: K,
  env: PlateEnv,
  unseen: ReadonlySet<string>,
  onlyMade: boolean,
  into: PickItem[],
): Generator<void> {
  return plateKind(kind).boxes(document.tables[kind], env, {
    isSeen: (group) => isSeen(group, unseen),
    onlyMade,
    add: (id: string, bounds: Box3) => void into.push({ stratum: document.id, kind, id, bounds }),
  });
}
