import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { NumberField } from '../../../../ui/number-field';
import { LayoutDesk } from '../../editing/layout-desk';
import { HeightOption } from '../../parts/height-option';
import { layoutActions, type WallSettings } from '../../store/layout-store';
import { WALL_FORMS } from '../../store/layout-tools';

interface Measure {
  readonly field: keyof WallSettings;
  readonly text: string;
  readonly label: string;
  readonly min: number;
}

const MEASURES: { readonly [F in (typeof WALL_FORMS)[number]]: readonly Measure[] } = {
  wall: [{ field: 'thickness', text: 'thick', label: 'Thickness of new walls, metres', min: 0.01 }],
  door: [
    { field: 'doorWidth', text: 'width', label: 'Width of new doors, metres', min: 0.01 },
    { field: 'doorHead', text: 'height', label: 'Height of new doors, metres', min: 0.01 },
  ],
  window: [
    { field: 'windowWidth', text: 'width', label: 'Width of new windows, metres', min: 0.01 },
    { field: 'windowSill', text: 'sill', label: 'Sill of new windows above the floor, metres', min: 0 },
    { field: 'windowHead', text: 'head', label: 'Head of new windows above the floor, metres', min: 0.01 },
  ],
};

/** What is drawn, and its measures. */
@Component({
  selector: 'sv-wall-options',
  imports: [HeightOption, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <select class="cell" #form aria-label="Wall, door or window" (change)="choose(form.selectedIndex)">
      @for (one of forms; track one) {
        <option [selected]="state().tool === one">{{ one }}</option>
      }
    </select>
    @if (state().tool === 'wall') {
      <sv-height-option />
    }
    @for (one of measures(); track one.field) {
      <span class="inline">{{ one.text }} <sv-number-field [label]="one.label" [least]="one.min" [value]="settings()[one.field]" (kept)="set(one.field, $event)" /></span>
    }
    @if (state().tool === 'wall') {
      <label class="inline" title="A closed wall gets a floor and a ceiling 0.2 m thick"><input type="checkbox" [checked]="settings().slab > 0" (change)="set('slab', settings().slab > 0 ? 0 : slabMetres)" /> floor and ceiling</label>
    }
  `,
  styleUrl: '../../plan/tool-options.scss',
})
export class WallOptions {
  private readonly store = inject(Store);
  private readonly desk = inject(LayoutDesk);
  readonly state = this.desk.state;
  readonly forms = WALL_FORMS;
  readonly slabMetres = 0.2;
  readonly settings = computed(() => this.desk.settings().wall);
  readonly measures = computed(() => {
    const form = WALL_FORMS.find((one) => one === this.state().tool);
    return form ? MEASURES[form] : [];
  });

  choose(index: number): void {
    this.store.dispatch(layoutActions.toolChosen({ tool: WALL_FORMS[index] }));
  }

  set(field: keyof WallSettings, metres: number): void {
    this.desk.put({ wall: { ...this.settings(), [field]: metres } });
  }
}
