/** The picture for which detail steps are chosen. */
export interface ViewSettings {
  /** Vertical field of view, degrees. */
  readonly fieldOfViewDegrees: number;
  readonly pictureHeightPixels: number;
  /** How far a coarser step may be off in the picture, pixels. */
  readonly errorPixels: number;
}

/** What a collection has as long as nobody chose otherwise. */
export const DEFAULT_VIEW: ViewSettings = { fieldOfViewDegrees: 60, pictureHeightPixels: 1080, errorPixels: 1 };
