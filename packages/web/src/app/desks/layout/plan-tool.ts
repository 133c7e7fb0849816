import {
  boxPlanes,
  prismPlanes,
  wedgePlanes,
  yawOfDirection,
  CoreError,
  type Block,
  type BlockPlane,
  type ItemKind,
  type Marker,
  type PlanPoint,
  type Placement,
  type Vector3,
} from '@stravel/core';
import { newId } from '../../edits/operations';
import type { PickItem } from '../../plate/pick-index';
import type { LayoutItem } from './item-edits';
import type { PlanPointer, PlateDrawing } from '../../plate/plate-view';
import { rounded } from './item-edits';
import { draggedExtent, handlesOf, yawTowards, type HandleFrame, type PlanExtent } from './plan-handles';
import { drawHalfDone, type PlanDrag } from './plan-tool-drawing';
import type { ItemRef, LayoutState } from './store/layout-store';

/** What a tool asks of the desk. */
export interface PlanToolHost {
  readonly state: () => LayoutState;
  /** Floor of the storey that is shown, where new things stand. */
  readonly floor: () => number;
  readonly isLocked: (item: ItemRef) => boolean;
  /** Grips of the one thing that is selected. */
  readonly frame: () => HandleFrame | undefined;
  /** Face loops of what is selected, xyz triples; not more than can be drawn while it is dragged. */
  readonly outlines: () => readonly Float64Array[];
  readonly within: (x0: number, z0: number, x1: number, z1: number) => PickItem[];
  select(items: readonly ItemRef[]): void;
  move(by: Vector3): void;
  stretch(to: PlanExtent): void;
  /** Turns the selection to a yaw, degrees. */
  turnTo(yaw: number): void;
  add(kind: ItemKind, item: LayoutItem, label: string): void;
  refuse(reason: string): void;
  redraw(): void;
}

const LEAST_BLOCK_METRES = 0.01;
const CLICK_PIXELS = 4;
/** A grip is taken this near to it. */
const GRIP_PIXELS = 8;
/** Turning by the knob goes in these steps unless Alt is held. */
const TURN_STEP_DEGREES = 15;

/** What the pointer does on the plan, by the chosen tool. */
export class PlanTool {
  private drag: PlanDrag | undefined;
  private outline: PlanPoint[] = [];
  private cursor: PlanPoint = [0, 0];

  constructor(private readonly host: PlanToolHost) {}

  /** Lets go of whatever is half done. True when there was something. */
  cancel(): boolean {
    const had = this.drag !== undefined || this.outline.length > 0;
    this.drag = undefined;
    this.outline = [];
    this.host.redraw();
    return had;
  }

  pointer(pointer: PlanPointer): void {
    const at = this.snapped(pointer);
    this.cursor = at;
    if (pointer.phase === 'cancel') this.cancel();
    else if (pointer.phase === 'down') this.down(pointer, at);
    else if (pointer.phase === 'move') this.move(pointer, at);
    else this.up(pointer, at);
    this.host.redraw();
  }

  /** Closes the outline that is being drawn, as Enter does. */
  finishOutline(): void {
    const { blockHeight } = this.host.state();
    const points = this.outline;
    if (points.length < 3) return;
    const middle: PlanPoint = [rounded(points.reduce((s, p) => s + p[0], 0) / points.length), rounded(points.reduce((s, p) => s + p[1], 0) / points.length)];
    try {
      const planes = prismPlanes(
        points.map(([x, z]): PlanPoint => [rounded(x - middle[0]), rounded(z - middle[1])]),
        blockHeight,
      );
      this.outline = [];
      this.addBlock('prism', planes, [middle[0], this.host.floor(), middle[1]]);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.host.refuse(error.message);
    }
  }

  /** What is half done, drawn over the plan. */
  draw(drawing: PlateDrawing): void {
    if (drawing.view !== 'plan') return;
    const { tool } = this.host.state();
    drawHalfDone(drawing, { drag: this.drag, outline: this.outline, cursor: this.cursor, outlines: this.host.outlines, frame: tool === 'select' ? this.host.frame() : undefined });
  }

  private down(pointer: PlanPointer, at: PlanPoint): void {
    const { tool } = this.host.state();
    if (tool === 'select') this.downSelect(pointer);
    else if (tool === 'box' || tool === 'wedge') this.drag = { kind: 'block', from: at, to: at };
    else if (tool === 'marker') this.drag = { kind: 'marker', from: at, to: at };
    else if (tool === 'piece') this.addPiece(at);
    else if (tool === 'prism') this.addCorner(at, pointer.metresPerPixel);
  }

  private downSelect(pointer: PlanPointer): void {
    if (this.takeGrip(pointer)) return;
    const hits = pointer.hits().filter((item) => !this.host.isLocked(item));
    const add = pointer.event.shiftKey;
    const { selection } = this.host.state();
    // Only what is selected is dragged: a press on anything else may begin a box, so that a floor under everything moves only when meant.
    const isOnSelection = !add && hits.some(({ id }) => selection.some((ref) => ref.id === id));
    this.drag = isOnSelection
      ? { kind: 'move', from: [pointer.x, pointer.z], by: [0, 0], started: false }
      : { kind: 'box-select', from: [pointer.x, pointer.z], to: [pointer.x, pointer.z], add };
  }

  private takeGrip(pointer: PlanPointer): boolean {
    const frame = this.host.frame();
    if (!frame) return false;
    const near = handlesOf(frame, pointer.metresPerPixel)
      .map(({ handle, at }) => ({ handle, pixels: Math.hypot(at[0] - pointer.x, at[1] - pointer.z) / pointer.metresPerPixel }))
      .sort((a, b) => a.pixels - b.pixels)[0];
    if (near.pixels > GRIP_PIXELS) return false;
    this.drag = near.handle.kind === 'turn' ? { kind: 'turn', frame, yaw: undefined } : { kind: 'stretch', frame, handle: near.handle, to: undefined };
    return true;
  }

  private move(pointer: PlanPointer, at: PlanPoint): void {
    const { drag } = this;
    if (!drag) return;
    if (drag.kind === 'box-select') drag.to = [pointer.x, pointer.z];
    else if (drag.kind === 'stretch') drag.to = draggedExtent(drag.frame, drag.handle, at);
    else if (drag.kind === 'turn') drag.yaw = yawTowards(drag.frame, [pointer.x, pointer.z], pointer.event.altKey ? 0 : TURN_STEP_DEGREES);
    else if (drag.kind === 'move') {
      const dx = pointer.x - drag.from[0];
      const dz = pointer.z - drag.from[1];
      if (!drag.started && Math.hypot(dx, dz) < CLICK_PIXELS * pointer.metresPerPixel) return;
      drag.started = true;
      drag.by = this.snapStep([dx, dz], pointer.event.altKey);
    } else drag.to = at;
  }

  private up(pointer: PlanPointer, at: PlanPoint): void {
    const { drag } = this;
    this.drag = undefined;
    if (!drag) return;
    if (drag.kind === 'box-select') this.endBox(drag, pointer);
    else if (drag.kind === 'stretch') {
      if (drag.to) this.host.stretch(drag.to);
    } else if (drag.kind === 'turn') {
      if (drag.yaw !== undefined) this.host.turnTo(drag.yaw);
    } else if (drag.kind === 'move') {
      if (drag.started) {
        if (drag.by[0] !== 0 || drag.by[1] !== 0) this.host.move([drag.by[0], 0, drag.by[1]]);
      } else this.clickAgain(pointer);
    } else if (drag.kind === 'block') this.endBlock(drag.from, at);
    else this.addMarker(drag.from, at);
  }

  /** A click on what is selected already goes to what lies below it. */
  private clickAgain(pointer: PlanPointer): void {
    const hits = pointer.hits().filter((item) => !this.host.isLocked(item));
    const { selection } = this.host.state();
    const at = selection.length === 1 ? hits.findIndex(({ id }) => selection[0].id === id) : -1;
    if (hits.length > 0) this.select(hits[(at + 1) % hits.length], false);
  }

  private endBox(drag: Extract<PlanDrag, { kind: 'box-select' }>, pointer: PlanPointer): void {
    const [x0, z0] = drag.from;
    const { selection } = this.host.state();
    const isClick = Math.hypot(pointer.x - x0, pointer.z - z0) < CLICK_PIXELS * pointer.metresPerPixel;
    if (isClick) {
      this.click(pointer, drag.add);
      return;
    }
    const found = this.host.within(x0, z0, pointer.x, pointer.z).filter((item) => !this.host.isLocked(item));
    this.host.select(drag.add ? [...selection, ...found.filter(({ id }) => !selection.some((ref) => ref.id === id))] : found);
  }

  private click(pointer: PlanPointer, add: boolean): void {
    const hit = pointer.hits().find((item) => !this.host.isLocked(item));
    if (hit) this.select(hit, add);
    else if (!add) this.host.select([]);
  }

  private endBlock([x0, z0]: PlanPoint, [x1, z1]: PlanPoint): void {
    const { tool, blockHeight } = this.host.state();
    const size: Vector3 = [rounded(Math.abs(x1 - x0)), blockHeight, rounded(Math.abs(z1 - z0))];
    if (size[0] < LEAST_BLOCK_METRES || size[2] < LEAST_BLOCK_METRES) return;
    const middle: Vector3 = [rounded((x0 + x1) / 2), this.host.floor(), rounded((z0 + z1) / 2)];
    this.addBlock(tool, tool === 'wedge' ? wedgePlanes(size) : boxPlanes(size), middle);
  }

  private addBlock(name: string, planes: readonly BlockPlane[], position: Vector3): void {
    const block: Block = { id: newId(), name, position, turn: [0, 0, 0], planes, sight: 'hides', material: 'brick' };
    this.host.add('block', block, `add ${name}`);
  }

  private addCorner(at: PlanPoint, metresPerPixel: number): void {
    const first = this.outline.at(0);
    if (first && this.outline.length >= 3 && Math.hypot(at[0] - first[0], at[1] - first[1]) < 10 * metresPerPixel) this.finishOutline();
    else this.outline.push(at);
  }

  private addPiece([x, z]: PlanPoint): void {
    const { piece } = this.host.state();
    if (piece === '') {
      this.host.refuse('Choose a piece of the kit first.');
      return;
    }
    const placement: Placement = { id: newId(), piece, position: [x, this.host.floor(), z], turn: [0, 0, 0], scale: [1, 1, 1] };
    this.host.add('placement', placement, 'place a piece');
  }

  private addMarker([x, z]: PlanPoint, to: PlanPoint): void {
    const { marker: kind } = this.host.state();
    const far = Math.hypot(to[0] - x, to[1] - z) > 0.01;
    const turn = far ? rounded(Math.round(yawOfDirection(to[0] - x, to[1] - z))) : 0;
    const marker: Marker = { id: newId(), kind, position: [x, this.host.floor(), z], turn };
    this.host.add('marker', marker, `set ${kind}`);
  }

  private select(hit: PickItem, add: boolean): void {
    const { selection } = this.host.state();
    const ref: ItemRef = { stratum: hit.stratum, kind: hit.kind, id: hit.id };
    if (!add) this.host.select([ref]);
    else this.host.select(selection.some(({ id }) => id === hit.id) ? selection.filter(({ id }) => id !== hit.id) : [...selection, ref]);
  }

  private snapped(pointer: PlanPointer): PlanPoint {
    return this.snapStep([pointer.x, pointer.z], pointer.event.altKey);
  }

  private snapStep([x, z]: PlanPoint, free: boolean): PlanPoint {
    const { snapMetres } = this.host.state();
    if (snapMetres <= 0 || free) return [rounded(x), rounded(z)];
    return [rounded(Math.round(x / snapMetres) * snapMetres), rounded(Math.round(z / snapMetres) * snapMetres)];
  }
}
