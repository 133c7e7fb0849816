import { BoxTree, type Box3, type ItemKind, type Piece } from '@stravel/core';
import type { StratumDocument } from '../document/stratum-document';
import { ALL_GROUPS, isSeen, unseenGroups, type HiddenGroups } from '../document/unseen-groups';
import { lineOfPath } from './event-marks';
import { madeSurface } from './block-meshes';
import { boundsOfItem, facesOfItem } from './item-shapes';
import type { PickItem } from './pick-item';
import { SlicedWork } from './sliced-work';

/** Things between two points at which looking may pause. */
const ITEMS_A_STEP = 1024;

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
  ) {}

  /** Things over a point of the plan within a range of heights, highest first. @param reach metres about the point */
  atPlan(x: number, z: number, bottom: number, top: number, reach: number): PickItem[] {
    return this.inBox([x - reach, bottom, z - reach], [x + reach, top, z + reach])
      .filter((item) => this.isOver(item, x, z, reach))
      .sort((a, b) => kindRank(b) - kindRank(a) || b.bounds.max[1] - a.bounds.max[1]);
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

  /** Height of the block or placement under a point, looking down from it; undefined when there is none. @param skip ids that do not count */
  surfaceBelow([x, y, z]: readonly [number, number, number], skip: ReadonlySet<string>): number | undefined {
    this.refresh();
    let least = Infinity;
    for (const { item, distance } of this.tree?.alongRay([x, y, z], [0, -1, 0]) ?? []) {
      const found = this.items[item];
      if (distance > least || skip.has(found.id) || (found.kind !== 'block' && found.kind !== 'placement')) continue;
      least = Math.min(least, this.exactDistance(found, [x, y, z], [0, -1, 0], distance) ?? Infinity);
    }
    return least === Infinity ? undefined : y - least;
  }

  /** Things whose bounds touch a box. */
  touching(min: readonly number[], max: readonly number[]): PickItem[] {
    return this.inBox(min, max);
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
    const faces = this.facesOf(item);
    if (!faces) return rough;
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

  private isOver(item: PickItem, x: number, z: number, reach: number): boolean {
    if (item.kind === 'path') {
      const path = this.strata()
        .find(({ id }) => id === item.stratum)
        ?.tables.path.get(item.id);
      return path !== undefined && isNearLine(lineOfPath(path), x, z, reach * 2);
    }
    // A volume is taken by its rim, so that what stands in it can be reached.
    if (item.kind === 'tileFloor' || item.kind === 'mask') return true;
    if (item.kind === 'volume') return isNearRim(item.bounds, this.facesOf(item), x, z, reach * 2);
    return isOver(item, this.facesOf(item), x, z, reach);
  }

  facesOf(item: PickItem): readonly Float64Array[] | undefined {
    const document = this.strata().find(({ id }) => id === item.stratum);
    return document && facesOfItem(document, item.kind, item.id, this.pieces());
  }

  /** Whether what stands now is what was looked through last; if not, looking goes on in slices until it is. */
  prepare(): void {
    if (this.stateNow() !== this.beginning) this.begin();
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
    const pending = this.pendingBlocks();
    const hidden = this.hiddenGroups();
    const items: PickItem[] = [];
    for (const document of strata) {
      for (const item of itemsOf(document, this.pieces(), pending > 0, unseenGroups(document, hidden))) {
        if (items.push(item) % ITEMS_A_STEP === 0) yield;
      }
    }
    const boxes = new Float64Array(items.length * 6);
    items.forEach(({ bounds }, i) => {
      boxes.set(bounds.min, i * 6);
      boxes.set(bounds.max, i * 6 + 3);
    });
    yield;
    this.items = items;
    this.tree = new BoxTree(boxes);
  }
}

function* itemsOf(
  document: StratumDocument,
  pieces: Readonly<Record<string, Piece>>,
  onlyMade: boolean,
  unseen: ReadonlySet<string>,
): Generator<PickItem> {
  const found = (kind: ItemKind, id: string, group: string | null | undefined): PickItem[] => {
    const bounds = isSeen(group, unseen) ? boundsOfItem(document, kind, id, pieces) : undefined;
    return bounds ? [{ stratum: document.id, kind, id, bounds }] : [];
  };
  for (const block of document.tables.block.values())
    if (!onlyMade || madeSurface(block)) yield* found('block', block.id, block.group);
  for (let slot = 0; slot < document.tables.placement.slotCount; slot++) {
    const id = document.tables.placement.idAt(slot);
    if (id !== undefined) yield* found('placement', id, document.tables.placement.groupAt(slot));
  }
  for (const { id, group } of document.tables.marker.values()) yield* found('marker', id, group);
  for (const { id, group } of document.tables.divider.values()) yield* found('divider', id, group);
  for (const { id, group } of document.tables.volume.values()) yield* found('volume', id, group);
  for (const { id, group } of document.tables.path.values()) yield* found('path', id, group);
  for (const { id, group } of document.tables.tileFloor.values()) yield* found('tileFloor', id, group);
  for (const { id, group } of document.tables.mask.values()) yield* found('mask', id, group);
  for (const { id, group } of document.tables.assembly.values()) yield* found('assembly', id, group);
}

/** Small things are wanted before large ones under the same point. */
function kindRank({ kind }: PickItem): number {
  return kind === 'marker'
    ? 4
    : kind === 'divider' || kind === 'path'
      ? 3
      : kind === 'volume'
        ? 2
        : kind === 'placement'
          ? 1
          : 0;
}

function isOver(
  item: PickItem,
  faces: readonly Float64Array[] | undefined,
  x: number,
  z: number,
  reach: number,
): boolean {
  if (!faces) return item.kind !== 'divider' || nearLine(item.bounds, x, z, reach);
  return faces.some((face) => {
    const [, ny] = planeOf(face);
    return ny > 1e-6 && insideOutline(face, x, z);
  });
}

function nearLine({ min, max }: Box3, x: number, z: number, reach: number): boolean {
  const dx = max[0] - min[0];
  const dz = max[2] - min[2];
  const length = Math.hypot(dx, dz) || 1;
  // Either diagonal of the bounds may be the divider.
  const off = (px: number, pz: number, qx: number, qz: number): number =>
    Math.abs(((qx - px) * (z - pz) - (qz - pz) * (x - px)) / length);
  return Math.min(off(min[0], min[2], max[0], max[2]), off(min[0], max[2], max[0], min[2])) <= reach * 2;
}

function isNearLine(line: Float64Array, x: number, z: number, reach: number): boolean {
  for (let i = 0; i + 3 < line.length; i += 3) {
    const [dx, dz] = [line[i + 3] - line[i], line[i + 5] - line[i + 2]];
    const square = dx * dx + dz * dz;
    const t = square > 0 ? Math.min(1, Math.max(0, ((x - line[i]) * dx + (z - line[i + 2]) * dz) / square)) : 0;
    if (Math.hypot(line[i] + t * dx - x, line[i + 2] + t * dz - z) <= reach) return true;
  }
  return false;
}

function isNearRim(
  { min, max }: Box3,
  faces: readonly Float64Array[] | undefined,
  x: number,
  z: number,
  reach: number,
): boolean {
  if (!faces) {
    const radius = (max[0] - min[0]) / 2;
    return Math.abs(Math.hypot(x - (min[0] + max[0]) / 2, z - (min[2] + max[2]) / 2) - radius) <= reach;
  }
  return faces.some(
    (face) =>
      isNearLine(face, x, z, reach) || isNearLine(Float64Array.of(...face.slice(-3), ...face.slice(0, 3)), x, z, reach),
  );
}

function insideOutline(face: Float64Array, x: number, z: number): boolean {
  let inside = false;
  for (let i = 0, j = face.length - 3; i < face.length; j = i, i += 3) {
    if (
      face[i + 2] > z !== face[j + 2] > z &&
      x < ((face[j] - face[i]) * (z - face[i + 2])) / (face[j + 2] - face[i + 2]) + face[i]
    )
      inside = !inside;
  }
  return inside;
}

function planeOf(face: Float64Array): [number, number, number, number] {
  const ux = face[3] - face[0];
  const uy = face[4] - face[1];
  const uz = face[5] - face[2];
  const vx = face[6] - face[0];
  const vy = face[7] - face[1];
  const vz = face[8] - face[2];
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  return [nx, ny, nz, nx * face[0] + ny * face[1] + nz * face[2]];
}
