import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { BAKE_STATE_WORDS, type BakeState } from '../bakes/bakes-store';

/** Told apart by form: a square, three shortening strokes, a dotted ring. */
const FORMS: Readonly<Record<BakeState, string>> = {
  fresh: 'M2 2h8v8H2z',
  stale: 'M1 2.5h10M1 6h7M1 9.5h4',
  unknown: 'M6 1.5a4.5 4.5 0 1 0 .01 0',
  none: 'M6 1.5a4.5 4.5 0 1 0 .01 0',
};

/** How a bake stands, and the button that makes it; while it is made, its progress. */
@Component({
  selector: 'sv-bake-state',
  imports: [MatProgressBarModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (progress(); as one) {
      <div class="progress">
        <mat-progress-bar [value]="one.fraction * 100" [attr.aria-label]="making() + ': ' + one.stage" />
        <span class="soft" [title]="one.stage">{{ one.stage }}</span>
      </div>
      <button class="chip" (click)="cancelled.emit()">Cancel</button>
    } @else {
      <span class="state" [title]="words()" [class.good]="state() === 'fresh'" [class.near]="isNear()">
        <svg viewBox="0 0 12 12" aria-hidden="true"><path [attr.d]="forms[state()]" [attr.stroke-dasharray]="state() === 'none' || state() === 'unknown' ? '2 2' : null" /></svg
        ><span class="words">{{ words() }}</span></span
      >
      <button class="chip strong" [disabled]="disabled()" (click)="asked.emit()">
        {{ action() }}
        @if (key()) {
          <kbd>{{ key() }}</kbd>
        }
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex: none;
      align-items: center;
      gap: 8px;
    }
    .state {
      display: flex;
      align-items: center;
      gap: 5px;
      white-space: nowrap;
    }
    svg {
      width: 12px;
      height: 12px;
      fill: none;
      stroke: currentcolor;
      stroke-width: 1.6;
    }
    /* On a very small page its form says it, and its words are read aloud. */
    @media (width < 1000px) {
      .words {
        position: absolute;
        width: 1px;
        height: 1px;
        overflow: hidden;
        clip-path: inset(50%);
      }
    }
    .progress {
      display: grid;
      gap: 2px;
      width: 130px;
      font-size: 12px;
    }
    .progress span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .chip {
      white-space: nowrap;
    }
  `,
})
export class BakeStateLine {
  readonly state = input.required<BakeState>();
  readonly none = input<string>(BAKE_STATE_WORDS.none);
  /** Before its state, where it is not the only one of its page. */
  readonly prefix = input('');
  readonly action = input.required<string>();
  readonly key = input('');
  readonly making = input.required<string>();
  readonly disabled = input(false);
  readonly progress = input<{ readonly fraction: number; readonly stage: string }>();
  readonly asked = output();
  readonly cancelled = output();
  readonly forms = FORMS;
  readonly isNear = computed(() => this.state() === 'stale' || this.state() === 'unknown');
  readonly words = computed(() =>
    [this.prefix(), this.state() === 'none' ? this.none() : BAKE_STATE_WORDS[this.state()]].filter(Boolean).join(' '),
  );
}
