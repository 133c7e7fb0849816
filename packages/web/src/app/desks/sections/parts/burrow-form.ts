import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Json, Recipe } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';

/** A number of a recipe: how it is called, what it may be, what it is shown times. */
interface Figure {
  readonly field: keyof Recipe;
  readonly name: string;
  readonly least: number;
  readonly most: number;
  readonly times: number;
  readonly unit: string;
}

const FIGURES: readonly Figure[] = [
  { field: 'columns', name: 'columns', least: 3, most: 2000, times: 1, unit: 'squares' },
  { field: 'rows', name: 'rows', least: 3, most: 2000, times: 1, unit: 'squares' },
  { field: 'squareMetres', name: 'square', least: 0.25, most: 100, times: 1, unit: 'm' },
  { field: 'heightMetres', name: 'height', least: 0.5, most: 1000, times: 1, unit: 'm' },
  { field: 'openShare', name: 'open floor', least: 0.1, most: 100, times: 100, unit: '%' },
  { field: 'border', name: 'border', least: 1, most: 100, times: 1, unit: 'squares' },
  { field: 'mostWalkers', name: 'walkers, at most', least: 1, most: 1000, times: 1, unit: '' },
  { field: 'birthChance', name: 'birth chance', least: 0, most: 100, times: 100, unit: '%' },
  { field: 'stepLimit', name: 'step limit', least: 1, most: 1e9, times: 1, unit: 'steps' },
];
const AXES = ['x', 'y', 'z'];

/** Every parameter of a burrow. */
@Component({
  selector: 'sv-burrow-form',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="wide"
      >name<input
        class="cell"
        #name
        maxlength="200"
        [value]="recipe().name"
        (change)="name.value.trim() ? changed.emit({ field: 'name', value: name.value.trim() }) : (name.value = recipe().name)"
    /></label>
    @for (figure of figures; track figure.field) {
      <div class="figure-row">
        <span>{{ figure.name }}</span>
        <sv-number-field [label]="figure.name" [value]="number(figure)" [least]="figure.least" [most]="figure.most" (kept)="keep(figure, $event)" />
        <span class="soft">{{ figure.unit }}</span>
      </div>
    }
    <div class="figure-row corner">
      <span>corner</span>
      @for (axis of axes; track axis; let k = $index) {
        <sv-number-field [label]="'corner ' + axis" [value]="recipe().position[k]" (kept)="keepCorner(k, $event)" />
      }
    </div>
    <label class="wide"
      >material<input
        class="cell"
        #material
        maxlength="200"
        [value]="recipe().material"
        (change)="material.value.trim() ? changed.emit({ field: 'material', value: material.value.trim() }) : (material.value = recipe().material)"
    /></label>
    <label class="check"
      ><input type="checkbox" [checked]="recipe().hasMarkers" (change)="changed.emit({ field: 'hasMarkers', value: !recipe().hasMarkers })" /> spawn where the walk starts, exit
      farthest from it</label
    >
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 5px 16px;
      font-size: 13px;
    }
    .wide,
    .check,
    .corner {
      grid-column: 1 / -1;
    }
    .wide {
      display: grid;
      grid-template-columns: 66px minmax(0, 1fr);
      align-items: center;
    }
    .figure-row {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 62px 44px;
      gap: 4px;
      align-items: center;
    }
    .corner {
      grid-template-columns: 66px repeat(3, minmax(0, 1fr));
    }
  `,
})
export class BurrowForm {
  readonly recipe = input.required<Recipe>();
  readonly changed = output<{ field: keyof Recipe; value: Json }>();
  readonly figures = FIGURES;
  readonly axes = AXES;

  number({ field, times }: Figure): number {
    return (this.recipe()[field] as number) * times;
  }

  keep({ field, times }: Figure, value: number): void {
    const isShare = times !== 1;
    const isMetres = field === 'squareMetres' || field === 'heightMetres';
    this.changed.emit({
      field,
      value: isShare ? Math.round(value * 1e6) / (1e6 * times) : isMetres ? value : Math.round(value),
    });
  }

  keepCorner(axis: number, value: number): void {
    this.changed.emit({ field: 'position', value: this.recipe().position.map((old, k) => (k === axis ? value : old)) });
  }
}
