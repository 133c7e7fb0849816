import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NumberField } from '../../../ui/number-field';
import { NumberFields } from '../../../ui/number-fields';
import { SheetHead } from '../../../level-desk/sheet-head';
import { Sheet } from '../../../level-desk/sheets';

/** Things of one sort: a category of groups, or a kind. */
export interface OverviewSort {
  readonly key: string;
  readonly name: string;
  readonly count: number;
}

export interface OverviewChoice {
  readonly sorts: readonly string[];
  readonly reachMetres: number;
}

export interface OverviewData extends OverviewChoice {
  readonly categories: readonly OverviewSort[];
  readonly kinds: readonly OverviewSort[];
}

/** Chooses what is looked at: the rest of the plan fades, and the density of what was chosen is painted. */
@Component({
  selector: 'sv-overview-sheet',
  imports: [SheetHead, NumberField],
  providers: [NumberFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-sheet-head heading="Density" (left)="close()" />
    <div class="body">
      <p class="soft">Selected categories are outlined and their density is painted; the rest fades. For you only.</p>
      @for (group of groups; track group.name) {
        <h4>{{ group.name }}</h4>
        @for (sort of group.sorts; track sort.key) {
          <label
            ><input type="checkbox" [checked]="chosen().has(sort.key)" (change)="toggle(sort.key)" /> {{ sort.name }} <span class="mono soft">{{ sort.count }}</span></label
          >
        } @empty {
          <p class="soft">{{ group.none }}</p>
        }
      }
      <div class="radius">
        <span>Density radius, m</span>
        <sv-number-field label="Density radius in metres" [value]="reach()" [least]="0.1" [most]="10000" (kept)="reach.set($event)" />
      </div>
    </div>
    <div class="row">
      <button class="chip strong" (click)="show()">{{ count() > 0 ? 'Show ' + count() : 'Turn off' }}</button>
    </div>
  `,
  styleUrl: '../../../level-desk/sheet.scss',
  styles: `
    label {
      display: block;
      padding: 2px 0;
    }
    .radius {
      display: grid;
      grid-template-columns: 150px 90px;
      align-items: center;
      margin-top: 10px;
    }
  `,
})
export class OverviewSheet extends Sheet<OverviewData, OverviewChoice> {
  private readonly numbers = inject(NumberFields);
  readonly groups = [
    { name: 'Categories of groups', sorts: this.data.categories, none: 'No group has a category yet.' },
    { name: 'Kinds', sorts: this.data.kinds, none: 'The level is empty.' },
  ];
  readonly chosen = signal<ReadonlySet<string>>(new Set(this.data.sorts));
  readonly reach = signal(this.data.reachMetres);
  readonly count = computed(() =>
    [...this.data.categories, ...this.data.kinds].reduce(
      (sum, { key, count }) => sum + (this.chosen().has(key) ? count : 0),
      0,
    ),
  );

  show(): void {
    if (this.numbers.settle()) this.close({ sorts: [...this.chosen()], reachMetres: this.reach() });
  }

  toggle(key: string): void {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }
}
