import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { OpenLevel } from '../../document/level/open-level';
import { LevelView } from '../level-view';
import type { PlateView } from '../plate-view';
import { LONGEST_NAME, MOST_VIEWPOINTS, ViewpointMemory, type Viewpoint } from './viewpoint-memory';

/** Looks at the level that are kept under a name, and come back by a click. */
@Component({
  selector: 'sv-viewpoints',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Viewpoints of this level <span class="soft">in this browser</span></h3>
    @for (one of all(); track one.name) {
      <div class="one">
        <button class="plain" [title]="'Look from ' + one.name" (click)="look(one)">{{ one.name }}</button>
        <button class="plain" [attr.aria-label]="'Remove the viewpoint ' + one.name" (click)="drop(one)">×</button>
      </div>
    }
    <form class="one" (submit)="name.value = keep(name.value); $event.preventDefault()">
      <input #name class="cell" type="text" aria-label="Name of this look" placeholder="Name of this look" [maxLength]="longest" />
      <button class="chip">Keep</button>
    </form>
    @if (isFull()) {
      <p class="over" role="alert">{{ most }} looks at this level are kept already. Remove one first.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      border-top: 1px solid var(--line);
      padding-top: 8px;
    }
    h3,
    p {
      margin: 0;
      font-size: 13px;
    }
    h3 span {
      font-weight: 400;
    }
    .one {
      display: flex;
      gap: 6px;
      align-items: center;
    }
    .one > :first-child {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-align: left;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class Viewpoints {
  readonly plate = input<PlateView>();
  private readonly view = inject(LevelView);
  private readonly memory = inject(ViewpointMemory);
  private readonly level = inject(OpenLevel).level;
  readonly all = computed(() => this.memory.of(this.level()?.id ?? ''));
  readonly longest = LONGEST_NAME;
  readonly most = MOST_VIEWPOINTS;
  readonly isFull = signal(false);

  /** @returns what stays typed */
  keep(typed: string): string {
    const [name, level, plate] = [typed.trim(), this.level(), this.plate()];
    if (name === '' || !level || !plate) return typed;
    const { bottom, storeyMetres } = this.view.shown();
    const isKept = this.memory.keep(level.id, { name, view: { ...plate.view(), heights: [bottom, storeyMetres] } });
    this.isFull.set(!isKept);
    return isKept ? '' : typed;
  }

  look({ view }: Viewpoint): void {
    const [bottom, storeyMetres] = view.heights;
    this.view.put({ bottom, storeyMetres });
    this.plate()?.setView(view);
  }

  drop({ name }: Viewpoint): void {
    this.memory.drop(this.level()?.id ?? '', name);
    this.isFull.set(false);
  }
}
