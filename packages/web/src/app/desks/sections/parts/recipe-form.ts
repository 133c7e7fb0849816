import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { parameterList, recipeSpec, type Json, type NumberParameter, type Parameter, type Recipe } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';

/** A parameter of the recipe in hand. */
interface Row<P extends Parameter = Parameter> {
  readonly field: keyof Recipe;
  readonly parameter: P;
}

const AXES = ['x', 'y', 'z'];

/** Every parameter of a recipe but its seed, from their descriptions. */
@Component({
  selector: 'sv-recipe-form',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="wide"
      >name<input class="cell" #name maxlength="200" [value]="recipe().name" (change)="keepName('name', name)"
    /></label>
    @for (row of numbers(); track row.field) {
      <div class="figure-row" [title]="row.parameter.means">
        <span>{{ row.parameter.words }}</span>
        <sv-number-field
          [label]="row.parameter.words"
          [value]="shown(row)"
          [least]="row.parameter.least * times(row)"
          [most]="row.parameter.most * times(row)"
          (kept)="keep(row, $event)"
          (tried)="try(row, $event)"
        />
        <span class="soft">{{ row.parameter.unit }}</span>
      </div>
    }
    @for (row of others(); track row.field) {
      @switch (row.parameter.as) {
        @case ('corner') {
          <div class="figure-row corner" [title]="row.parameter.means">
            <span>{{ row.parameter.words }}</span>
            @for (axis of axes; track axis; let k = $index) {
              <sv-number-field
                [label]="row.parameter.words + ' ' + axis"
                [value]="point(row)[k]"
                (kept)="keepCorner(row, k, $event)"
              />
            }
          </div>
        }
        @case ('name') {
          <label class="wide" [title]="row.parameter.means"
            >{{ row.parameter.words
            }}<input class="cell" #text maxlength="200" [value]="value(row)" (change)="keepName(row.field, text)"
          /></label>
        }
        @case ('flag') {
          <label class="check" [title]="row.parameter.means"
            ><input
              type="checkbox"
              [checked]="value(row)"
              (change)="changed.emit({ field: row.field, value: !value(row) })"
            />
            {{ row.parameter.words }}</label
          >
        }
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 5px;
      font-size: 13px;
    }
    .wide {
      display: grid;
      grid-template-columns: 66px minmax(0, 1fr);
      align-items: center;
    }
    .figure-row {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 76px 54px;
      gap: 4px;
      align-items: center;
    }
    .corner {
      grid-template-columns: 66px repeat(3, minmax(0, 1fr));
    }
  `,
})
export class RecipeForm {
  readonly recipe = input.required<Recipe>();
  readonly changed = output<{ field: keyof Recipe; value: Json }>();
  /** A number as it is typed; nothing where it is taken back or is none. */
  readonly tried = output<{ field: keyof Recipe; value: Json } | undefined>();
  readonly axes = AXES;
  private readonly kind = computed(() => this.recipe().kind);
  private readonly rows = computed((): readonly Row[] =>
    parameterList(recipeSpec({ kind: this.kind() }).parameters).map(([field, parameter]) => ({
      // A kind's parameters are fields of its recipes.
      field: field as keyof Recipe,
      parameter,
    })),
  );
  readonly numbers = computed(() => this.rows().filter(isNumber));
  readonly others = computed(() => this.rows().filter((row) => !isNumber(row)));

  times({ parameter }: Row<NumberParameter>): number {
    return parameter.shownTimes ?? 1;
  }

  value({ field }: Row): Recipe[keyof Recipe] {
    return this.recipe()[field];
  }

  shown(row: Row<NumberParameter>): number {
    return Number(this.value(row)) * this.times(row);
  }

  point(row: Row): readonly number[] {
    const value = this.value(row);
    return Array.isArray(value) ? value : [];
  }

  keep(row: Row<NumberParameter>, value: number): void {
    this.changed.emit({ field: row.field, value: this.stored(row, value) });
  }

  try(row: Row<NumberParameter>, value: number | null): void {
    this.tried.emit(value === null ? undefined : { field: row.field, value: this.stored(row, value) });
  }

  keepCorner(row: Row, axis: number, value: number): void {
    this.changed.emit({ field: row.field, value: this.point(row).map((old, k) => (k === axis ? value : old)) });
  }

  /** Takes in a name; an empty one goes back to what it was. */
  keepName(field: keyof Recipe, box: HTMLInputElement): void {
    const value = box.value.trim();
    if (value) this.changed.emit({ field, value });
    else box.value = String(this.recipe()[field]);
  }

  private stored(row: Row<NumberParameter>, value: number): number {
    const times = this.times(row);
    if (times !== 1) return Math.round(value * 1e6) / (1e6 * times);
    return row.parameter.isWhole ? Math.round(value) : value;
  }
}

function isNumber(row: Row): row is Row<NumberParameter> {
  return row.parameter.as === 'number';
}
