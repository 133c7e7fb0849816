import type { PlateDrawing } from '../../../../plate/plate-drawing';
import type { Gesture, Hit } from '../../plan/gesture';
import { drawLabel } from '../../plan/plan-drawing';
import { drawOpening } from './opening-drawing';
import type { OpeningForm, PlaceInWalls, WallsDesk } from './walls-desk';

/** Puts a door or a window into the wall under the pointer, by a click. */
export class OpeningGesture implements Gesture {
  readonly clicks = 'none';
  private place: PlaceInWalls | undefined;
  private cursor: Hit['pointer'] | undefined;

  constructor(
    private readonly walls: WallsDesk,
    private readonly form: OpeningForm,
  ) {}

  down(hit: Hit): void {
    this.move(hit);
    if (this.place) void this.walls.addOpening(this.form, this.place);
  }

  move({ pointer, metresPerPixel }: Hit): void {
    this.cursor = pointer;
    this.place = this.walls.placeAt(pointer, metresPerPixel);
  }

  up(hit: Hit): void {
    this.move(hit);
  }

  cancel(): boolean {
    this.place = this.cursor = undefined;
    return false;
  }

  finish(): void {
    // A click is all there is to it.
  }

  draw(drawing: PlateDrawing): void {
    if (this.place) drawOpening(drawing, this.place.wall.item, this.walls.opening(this.form, this.place));
    else if (this.cursor) drawLabel(drawing, this.cursor, `point on a wall for a ${this.form}`);
  }
}
