import { CoreError, toMicro, type ItemKind, type PlanPoint, type Vector3 } from '@stravel/core';
import type { PickItem } from '../../plate/pick-item';
import type { LayoutItem } from './editing/item-edits';
import type { PlanPointer, PlateDrawing } from '../../plate/plate-drawing';
import { draggedExtent, handlesOf, yawTowards, type HandleFrame, type PlanExtent } from './plan/frame';
import {
  draggedBlock,
  draggedMarker,
  draggedVolume,
  drawnPath,
  outlinedBlock,
  outlinedVolume,
  placedAssembly,
  placedPiece,
} from './plan-makers';
import { drawHalfDone, drawHandles, type KnotGrip, type PlanDrag } from './plan/plan-drawing';
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
  /** What a new volume is called. */
  readonly volumeName: () => string;
  /** Height of what lies under a point, when new things are to stand on it. */
  readonly surfaceAt: (at: PlanPoint) => number | undefined;
  /** The point of a thing to which the pointer snaps. */
  readonly snapPoint: (pointer: PlanPointer) => PlanPoint | undefined;
  /** Knots of the one path that is selected, and the ends of their handles when it is smooth. */
  readonly knots: () => readonly KnotGrip[];
  moveKnot(index: number, to: PlanPoint): void;
  moveHandle(index: number, end: 1 | -1, to: PlanPoint): void;
  moveRegion(from: PlanPoint, to: PlanPoint): void;
  /** @param points of the line that was drawn @param from, to snapped */
  drawStroke(points: readonly PlanPoint[], from: PlanPoint, to: PlanPoint): void;
  /** Width of the brush, metres; 0 draws a thin line. */
  readonly brushMetres: () => number;
  add(kind: ItemKind, item: LayoutItem, label: string): void;
  /** Whether the chosen thing of the kits is an assembly. */
  readonly isAssembly: (id: string) => boolean;
  notify(reason: string): void;
  redraw(): void;
}

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

  /** Closes the outline, or ends the path, that is being drawn, as Enter does. */
  finishOutline(): void {
    const state = this.host.state();
    const points = this.outline;
    const isPath = state.tool === 'path';
    if (points.length < (isPath ? 2 : 3)) return;
    const floor = this.floorAt(points[0]);
    const kind = isPath ? 'path' : state.tool === 'volume' ? 'volume' : 'block';
    const isMade = this.make(kind, `add ${state.tool}`, () => {
      if (isPath) return drawnPath(state.pathForm, floor, points);
      return state.tool === 'volume'
        ? outlinedVolume(state, this.host.volumeName(), floor, points)
        : outlinedBlock(state.blockHeight, floor, points);
    });
    if (isMade) this.outline = [];
  }

  /** What is half done, drawn over the plan. */
  draw(drawing: PlateDrawing): void {
    if (drawing.view !== 'plan') return;
    const { tool } = this.host.state();
    drawHandles(drawing, this.host.knots());
    drawHalfDone(drawing, {
      drag: this.drag,
      outline: this.outline,
      cursor: this.cursor,
      outlines: this.host.outlines,
      frame: tool === 'select' ? this.host.frame() : undefined,
    });
  }

  private down(pointer: PlanPointer, at: PlanPoint): void {
    const { tool } = this.host.state();
    if (tool === 'select') this.downSelect(pointer);
    else if (tool === 'tiles' || tool === 'mask') {
      this.drag = {
        kind: 'stroke',
        from: at,
        to: at,
        points: [[pointer.x, pointer.z]],
        widthMetres: this.host.brushMetres(),
      };
    } else if (tool === 'region')
      this.drag = { kind: 'region', from: [pointer.x, pointer.z], to: [pointer.x, pointer.z] };
    else if (tool === 'prism' || tool === 'path' || this.isOutlinedVolume()) this.addCorner(at, pointer.metresPerPixel);
    else if (tool === 'box' || tool === 'wedge' || tool === 'cylinder' || tool === 'volume')
      this.drag = { kind: 'block', from: at, to: at };
    else if (tool === 'marker') this.drag = { kind: 'marker', from: at, to: at };
    else if (tool === 'piece') this.addPiece(at);
  }

  private isOutlinedVolume(): boolean {
    const { tool, volumeForm } = this.host.state();
    return tool === 'volume' && volumeForm === 'prism';
  }

  private downSelect(pointer: PlanPointer): void {
    if (this.takeGrip(pointer) || this.takeKnot(pointer)) return;
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
      .map(({ handle, at }) => ({
        handle,
        pixels: Math.hypot(at[0] - pointer.x, at[1] - pointer.z) / pointer.metresPerPixel,
      }))
      .sort((a, b) => a.pixels - b.pixels)[0];
    if (near.pixels > GRIP_PIXELS) return false;
    this.drag =
      near.handle.kind === 'turn'
        ? { kind: 'turn', frame, yaw: undefined }
        : { kind: 'stretch', frame, handle: near.handle, to: undefined };
    return true;
  }

  private takeKnot(pointer: PlanPointer): boolean {
    const knots = this.host.knots();
    const pixels = knots.map(({ at: [x, z] }) => Math.hypot(x - pointer.x, z - pointer.z) / pointer.metresPerPixel);
    const nearest = pixels.indexOf(Math.min(...pixels));
    if (nearest < 0 || pixels[nearest] > GRIP_PIXELS) return false;
    const { index, end, at } = knots[nearest];
    this.drag = { kind: 'knot', index, end, from: at, to: undefined };
    return true;
  }

  private move(pointer: PlanPointer, at: PlanPoint): void {
    const { drag } = this;
    if (!drag) return;
    if (drag.kind === 'stroke') {
      drag.to = at;
      drag.points.push([pointer.x, pointer.z]);
    } else if (drag.kind === 'box-select' || drag.kind === 'region') drag.to = [pointer.x, pointer.z];
    else if (drag.kind === 'stretch') drag.to = draggedExtent(drag.frame, drag.handle, at);
    else if (drag.kind === 'knot') drag.to = at;
    else if (drag.kind === 'turn')
      drag.yaw = yawTowards(drag.frame, [pointer.x, pointer.z], pointer.event.altKey ? 0 : TURN_STEP_DEGREES);
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
    } else if (drag.kind === 'region') {
      if (Math.hypot(pointer.x - drag.from[0], pointer.z - drag.from[1]) >= CLICK_PIXELS * pointer.metresPerPixel)
        this.host.moveRegion(drag.from, [pointer.x, pointer.z]);
    } else if (drag.kind === 'stroke') this.host.drawStroke(drag.points, drag.from, drag.to);
    else if (drag.kind === 'knot') {
      if (drag.to && drag.end === 0) this.host.moveKnot(drag.index, drag.to);
      else if (drag.to && drag.end !== 0) this.host.moveHandle(drag.index, drag.end, drag.to);
    } else if (drag.kind === 'block') this.endDrag(drag.from, at);
    else {
      const { marker } = this.host.state();
      this.host.add('marker', draggedMarker(marker, this.floorAt(drag.from), drag.from, at), `set ${marker}`);
    }
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
    this.host.select(
      drag.add ? [...selection, ...found.filter(({ id }) => !selection.some((ref) => ref.id === id))] : found,
    );
  }

  private click(pointer: PlanPointer, add: boolean): void {
    const hit = pointer.hits().find((item) => !this.host.isLocked(item));
    if (hit) this.select(hit, add);
    else if (!add) this.host.select([]);
  }

  private endDrag(from: PlanPoint, to: PlanPoint): void {
    const state = this.host.state();
    const floor = this.floorAt(from);
    this.make(state.tool === 'volume' ? 'volume' : 'block', `add ${state.tool}`, () =>
      state.tool === 'volume'
        ? draggedVolume(state, this.host.volumeName(), floor, from, to)
        : draggedBlock(state, floor, from, to),
    );
  }

  /** Adds what is made; says why when it cannot be. */
  private make(kind: ItemKind, label: string, made: () => LayoutItem | undefined): boolean {
    try {
      const item = made();
      if (item) this.host.add(kind, item, label);
      return item !== undefined;
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.host.notify(error.message);
      return false;
    }
  }

  private floorAt(at: PlanPoint): number {
    return this.host.surfaceAt(at) ?? this.host.floor();
  }

  private addCorner(at: PlanPoint, metresPerPixel: number): void {
    const first = this.outline.at(0);
    const isClosed = this.host.state().tool !== 'path';
    if (
      isClosed &&
      first &&
      this.outline.length >= 3 &&
      Math.hypot(at[0] - first[0], at[1] - first[1]) < 10 * metresPerPixel
    )
      this.finishOutline();
    else this.outline.push(at);
  }

  private addPiece(at: PlanPoint): void {
    const { piece } = this.host.state();
    if (piece === '') this.host.notify('Choose a piece of the kit first.');
    else if (this.host.isAssembly(piece))
      this.host.add('assembly', placedAssembly(piece, this.floorAt(at), at), 'place an assembly');
    else this.host.add('placement', placedPiece(piece, this.floorAt(at), at), 'place a piece');
  }

  private select(hit: PickItem, add: boolean): void {
    const { selection } = this.host.state();
    const ref: ItemRef = { stratum: hit.stratum, kind: hit.kind, id: hit.id };
    if (!add) this.host.select([ref]);
    else
      this.host.select(
        selection.some(({ id }) => id === hit.id) ? selection.filter(({ id }) => id !== hit.id) : [...selection, ref],
      );
  }

  private snapped(pointer: PlanPointer): PlanPoint {
    const target = pointer.event.altKey ? undefined : this.host.snapPoint(pointer);
    return target ?? this.snapStep([pointer.x, pointer.z], pointer.event.altKey);
  }

  private snapStep([x, z]: PlanPoint, free: boolean): PlanPoint {
    const { snapMetres } = this.host.state();
    if (snapMetres <= 0 || free) return [toMicro(x), toMicro(z)];
    return [toMicro(Math.round(x / snapMetres) * snapMetres), toMicro(Math.round(z / snapMetres) * snapMetres)];
  }
}
