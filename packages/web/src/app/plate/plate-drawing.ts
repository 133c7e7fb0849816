import type { PickItem } from './pick-item';
import type { PlateColours } from './plate-colours';

/** Cuts the model open along an upright plane. */
export interface ModelCut {
  /** Across which the plane lies. */
  readonly axis: 'x' | 'z';
  /** Where it lies on that axis, metres. */
  readonly at: number;
  /** Which side of it stays. */
  readonly keeps: 'less' | 'more';
}

/** Heights that the plan shows, metres; the rest is ghosted. */
export interface HeightRange {
  readonly bottom: number;
  readonly top: number;
}

/** What a desk draws over or under the plan and the model. */
export interface PlateDrawing {
  readonly view: 'plan' | 'model';
  readonly context: CanvasRenderingContext2D;
  readonly colours: PlateColours;
  /** CSS pixels of a point, undefined when it lies behind the camera. */
  readonly at: (x: number, y: number, z: number) => [number, number] | undefined;
  /** CSS pixels a metre; of the plan only. */
  readonly scale: number;
}

/** A pointer over the plan. */
export interface PlanPointer {
  readonly phase: 'down' | 'move' | 'up' | 'cancel';
  readonly x: number;
  readonly z: number;
  readonly event: Pick<PointerEvent, 'altKey' | 'shiftKey' | 'ctrlKey'>;
  /** What lies there, wanted first. */
  hits(): PickItem[];
  /** Metres of one CSS pixel. */
  readonly metresPerPixel: number;
}

/** Something that was carried to a view of the plate and let go there. */
/** Where a context menu was asked for on plan or model, and what lies there, wanted first. */
export interface PlateMenu {
  /** Pixels of the window. */
  readonly x: number;
  readonly y: number;
  /** Undefined where it was asked for by a key: then it is for what is selected. */
  readonly hits: (() => readonly PickItem[]) | undefined;
  /** The click on the plan; undefined on the model and by a key. */
  readonly pointer: PlanPointer | undefined;
}

export interface PlateDrop {
  readonly data: DataTransfer;
  /** Where on the plan that is. */
  readonly pointer: PlanPointer;
}

export type PlateViews = 'plan' | 'model' | 'both';
