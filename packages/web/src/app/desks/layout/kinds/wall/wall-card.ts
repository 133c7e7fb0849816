import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import {
  blocksOfWall,
  counted,
  heldAt,
  openingsThatDoNotFit,
  wallPlan,
  type PlanPoint,
  type WallOpening,
} from '@stravel/core';
import { ColumnSection } from '../../../../level-desk/column-section';
import { NumberField } from '../../../../ui/number-field';
import { LayoutDesk } from '../../editing/layout-desk';
import type { PlacedItem } from '../../editing/placed-item';
import { NumbersCard } from '../cards/numbers-card';
import { SolidFields } from '../cards/solid-fields';
import type { ItemCard } from '../item-desk';
import { WallsDesk } from './walls-desk';

/** A measure of a wall that is a field of its own. */
interface WallMeasure {
  readonly field: 'heightMetres' | 'thicknessMetres' | 'baseMetres' | 'floorMetres' | 'ceilingMetres';
  readonly text: string;
  readonly min: number;
}

const MEASURES: readonly WallMeasure[] = [
  { field: 'heightMetres', text: 'Height', min: 0.01 },
  { field: 'thicknessMetres', text: 'Thickness', min: 0.01 },
  { field: 'baseMetres', text: 'Base Y', min: -100000 },
];
const SLABS: readonly WallMeasure[] = [
  { field: 'floorMetres', text: 'Floor thickness', min: 0 },
  { field: 'ceilingMetres', text: 'Ceiling thickness', min: 0 },
];

const OPENING_MEASURES: readonly {
  readonly field: keyof WallOpening & `${string}Metres`;
  readonly text: string;
  readonly min: number;
}[] = [
  { field: 'offsetMetres', text: 'Offset', min: 0 },
  { field: 'widthMetres', text: 'Width', min: 0.01 },
  { field: 'sillMetres', text: 'Sill', min: 0 },
  { field: 'headMetres', text: 'Head', min: 0.01 },
];

/** One wall: its measures, its doors and windows, its corners. */
@Component({
  selector: 'sv-wall-card',
  imports: [ColumnSection, NumberField, NumbersCard, SolidFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './wall-card.html',
  styleUrl: './wall-card.scss',
})
export class WallCard implements ItemCard<'wall'> {
  readonly desk = inject(LayoutDesk);
  private readonly walls = inject(WallsDesk);
  readonly item = input.required<PlacedItem<'wall'>>();
  readonly disabled = input(false);
  readonly axes = ['X', 'Z'] as const;
  readonly openingMeasures = OPENING_MEASURES;
  readonly measures = computed(() => (this.item().item.closed ? [...MEASURES, ...SLABS] : MEASURES));
  readonly note = computed(() => {
    const { stratum, item } = this.item();
    return `${counted(blocksOfWall(item).length, 'block')} · ${heldAt(this.desk.tables().stratum, stratum)?.name ?? ''}`;
  });
  readonly lengthMetres = computed(() =>
    wallPlan(this.item().item).segments.reduce((sum, { lengthMetres }) => sum + lengthMetres, 0),
  );
  /** Doors and windows in the order of the wall's segments, each with where it begins. */
  readonly openings = computed(() => {
    const { corners, openings } = this.item().item;
    const cutOff = new Set(openingsThatDoNotFit(this.item().item));
    return openings
      .map((opening) => ({
        opening,
        corner: corners.findIndex(({ id }) => id === opening.corner) + 1,
        name: opening.sillMetres > 0 ? 'Window' : 'Door',
        isCutOff: cutOff.has(opening),
      }))
      .sort((a, b) => a.corner - b.corner || a.opening.offsetMetres - b.opening.offsetMetres);
  });

  setMeasure(field: WallMeasure['field'], metres: number): void {
    void this.desk.set(this.item(), field, metres);
  }

  setOpening(id: string, field: string, metres: number): void {
    void this.walls.changeOpening(this.standing(), id, { [field]: metres });
  }

  removeOpening(id: string): void {
    void this.walls.removeOpening(this.standing(), id);
  }

  moveCorner(index: number, axis: number, value: number): void {
    const one = this.standing();
    const [x, z] = one.item.corners[index].position.map((old, k) => (k === axis ? value : old));
    void this.walls.moveCorner(one, index, [x, z] satisfies PlanPoint);
  }

  /** Puts a corner into the middle of the segment that begins at one. */
  splitAt(corner: string): void {
    const one = this.standing();
    const segment = wallPlan(one.item).segments.find((of) => of.corner === corner);
    if (segment) void this.walls.addCorner(one, { corner, offsetMetres: segment.lengthMetres / 2, awayMetres: 0 });
  }

  removeCorner(id: string): void {
    void this.walls.removeCorner(this.standing(), id);
  }

  hasSegment(index: number): boolean {
    const { closed, corners } = this.item().item;
    return closed || index < corners.length - 1;
  }

  /** What is shown may be older than what was typed a moment ago. */
  private standing(): PlacedItem<'wall'> {
    return this.desk.oneOf('wall') ?? this.item();
  }
}
