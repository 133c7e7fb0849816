import { Injectable, inject } from '@angular/core';
import {
  MAX_WALL_CORNERS,
  MAX_WALL_OPENINGS,
  detachedBlocks,
  fittedOffset,
  newOpening,
  placeOnWall,
  plainJson,
  toMicro,
  withCorner,
  withoutCorner,
  type PlaceOnWall,
  type PlanPoint,
  type Wall,
  type WallOpening,
} from '@stravel/core';
import { create, newId, remove } from '../../../../edits/operations';
import { setFields } from '../../editing/item-edits';
import { LayoutDesk } from '../../editing/layout-desk';
import { placedItem, refOf, type PlacedItem } from '../../editing/placed-item';
import type { WallSettings } from '../../store/layout-store';

/** What is put in a wall. */
export type OpeningForm = 'door' | 'window';

/** A place in one of the walls of the open level. */
export interface PlaceInWalls {
  readonly wall: PlacedItem<'wall'>;
  readonly at: PlaceOnWall;
}

/** A click this near to a wall means it, pixels. */
const NEAR_PIXELS = 10;
/** Openings that are put by hand go along in steps of this, metres. */
const STEP_METRES = 0.05;

/** A place along a wall on a whole step. */
const stepped = (at: PlaceOnWall): PlaceOnWall => ({
  ...at,
  offsetMetres: toMicro(Math.round(at.offsetMetres / STEP_METRES) * STEP_METRES),
});

/** Width, sill and head of a new opening. */
export function openingSize(
  form: OpeningForm,
  { doorWidth, doorHead, windowWidth, windowSill, windowHead }: WallSettings,
): Pick<WallOpening, 'widthMetres' | 'sillMetres' | 'headMetres'> {
  return form === 'door'
    ? { widthMetres: doorWidth, sillMetres: 0, headMetres: doorHead }
    : { widthMetres: windowWidth, sillMetres: windowSill, headMetres: windowHead };
}

/** What can be done with walls. */
@Injectable()
export class WallsDesk {
  private readonly desk = inject(LayoutDesk);

  /** The place in a wall at a point of the plan; undefined where none is near. */
  placeAt(point: PlanPoint, metresPerPixel: number): PlaceInWalls | undefined {
    let nearest: PlaceInWalls | undefined;
    for (const document of this.desk.openLevel.strata()) {
      for (const item of document.tables.wall.values()) {
        const at = placeOnWall(item, point);
        const reach = item.thicknessMetres / 2 + NEAR_PIXELS * metresPerPixel;
        if (!at || at.awayMetres > reach || (nearest && at.awayMetres >= nearest.at.awayMetres)) continue;
        const wall = placedItem(document.id, 'wall', item);
        if (!this.desk.isItemLocked(refOf(wall))) nearest = { wall, at: stepped(at) };
      }
    }
    return nearest;
  }

  /** A wall with a new opening in it. */
  opening(form: OpeningForm, { wall, at }: PlaceInWalls): WallOpening {
    return newOpening(wall.item, at, openingSize(form, this.desk.settings().wall), newId());
  }

  async addOpening(form: OpeningForm, place: PlaceInWalls): Promise<void> {
    const { openings } = place.wall.item;
    if (openings.length >= MAX_WALL_OPENINGS) {
      this.desk.notify(`A wall has at most ${MAX_WALL_OPENINGS} openings. Draw another wall for more.`);
      return;
    }
    await this.put(place.wall, `add a ${form}`, { openings: [...openings, this.opening(form, place)] });
    this.desk.select([refOf(place.wall)]);
  }

  async changeOpening(one: PlacedItem<'wall'>, id: string, over: Partial<WallOpening>): Promise<void> {
    const openings = one.item.openings.map((opening) => (opening.id === id ? { ...opening, ...over } : opening));
    await this.put(one, 'opening of a wall', { openings });
  }

  async removeOpening(one: PlacedItem<'wall'>, id: string): Promise<void> {
    await this.put(one, 'remove an opening', { openings: one.item.openings.filter((opening) => opening.id !== id) });
  }

  /** The opening of a wall as it would be at a point of the plan, on whichever of its segments is nearest. */
  movedOpening(wall: Wall, opening: WallOpening, point: PlanPoint): WallOpening {
    const place = placeOnWall(wall, point);
    const at = place && stepped(place);
    return at
      ? {
          ...opening,
          corner: at.corner,
          offsetMetres: fittedOffset(wall, at.corner, at.offsetMetres, opening.widthMetres),
        }
      : opening;
  }

  async moveCorner(one: PlacedItem<'wall'>, index: number, position: PlanPoint): Promise<void> {
    const corners = one.item.corners.map((corner, i) => (i === index ? { ...corner, position } : corner));
    await this.put(one, 'move a corner', { corners });
  }

  /** Puts a corner into the middle of the longest segment. */
  async addCorner(one: PlacedItem<'wall'>, at: PlaceOnWall): Promise<void> {
    if (one.item.corners.length >= MAX_WALL_CORNERS) {
      this.desk.notify(`A wall has at most ${MAX_WALL_CORNERS} corners. Draw another wall for more.`);
      return;
    }
    await this.put(one, 'add a corner', withCorner(one.item, at, newId()));
  }

  async removeCorner(one: PlacedItem<'wall'>, id: string): Promise<void> {
    await this.desk.attempt(() => this.put(one, 'remove a corner', withoutCorner(one.item, id)));
  }

  async closeOrOpen(): Promise<void> {
    const one = this.desk.oneOf('wall');
    if (!one) return;
    const { closed, corners, openings } = one.item;
    const last = corners[corners.length - 1].id;
    await this.put(one, closed ? 'open a wall' : 'close a wall', {
      closed: !closed,
      // What is in the segment that goes, goes with it.
      ...(closed ? { openings: openings.filter(({ corner }) => corner !== last) } : {}),
    });
  }

  /** Puts the blocks of walls in their place. */
  async detach(): Promise<void> {
    const walls = this.desk.selectedOf('wall');
    await this.desk.attempt(async () => {
      const made = walls.flatMap(({ stratum, item }) =>
        detachedBlocks(item, newId).map((block) => placedItem(stratum, 'block', block)),
      );
      const operations = [
        ...walls.map(({ stratum, item }) => remove(stratum, 'wall', item)),
        ...made.map(({ stratum, item }) => create(stratum, 'block', item)),
      ];
      const label = walls.length === 1 ? 'turn a wall into blocks' : `turn ${walls.length} walls into blocks`;
      if (await this.desk.commit(label, operations)) this.desk.select(made.map(refOf));
    });
  }

  private async put(
    one: PlacedItem<'wall'>,
    label: string,
    fields: Partial<Pick<Wall, 'corners' | 'openings' | 'closed'>>,
  ): Promise<void> {
    await this.desk.commit(
      label,
      setFields(one, Object.fromEntries(Object.entries(fields).map(([field, value]) => [field, plainJson(value)]))),
    );
  }
}
