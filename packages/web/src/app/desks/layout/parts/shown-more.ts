import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { DeskFrame } from '../../../desk/desk-frame';
import { CountedPipe } from '../../../ui/counted-pipe';
import { ContextDesk } from '../context/context-desk';
import { OverviewDesk } from '../overview/overview-desk';

/** What Layout can show beside the level: other levels, and how densely things stand. */
@Component({
  selector: 'sv-shown-more',
  imports: [CountedPipe],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button class="chip" title="Show other levels faintly, at their own coordinates" (click)="close(); context.choose()">
      {{ context.shown().length > 0 ? 'With ' + (context.shown().length | counted: 'other') : 'Show other levels…' }}
    </button>
    @if (overview.isMaking()) {
      <button class="chip" (click)="overview.cancel()">Counting… cancel</button>
    } @else {
      <button
        class="chip"
        title="How densely objects of a category or kind are placed; the rest fades"
        [attr.aria-pressed]="overview.shown() !== undefined"
        (click)="close(); overview.choose()"
      >
        Density…
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
  `,
})
export class ShownMore {
  readonly context = inject(ContextDesk);
  readonly overview = inject(OverviewDesk);
  private readonly frame = inject(DeskFrame);

  /** What is chosen lies beside the plate, or over the page. */
  close(): void {
    this.frame.isShownOpen.set(false);
  }
}
