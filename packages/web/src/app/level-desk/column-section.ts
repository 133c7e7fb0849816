import { Chevron } from '../ui/chevron';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DeskFrame } from '../desk/desk-frame';
import { Help } from '../guide/help';

/** A part of a column under a heading of its own, open or folded as it was left. */
@Component({
  selector: 'sv-section',
  imports: [Chevron, Help],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>
        <button class="plain" [attr.aria-expanded]="isOpen()" (click)="frame?.flip(heading(), before())">
          <sv-chevron [to]="isOpen() ? 'down' : 'right'" />
          {{ heading() }}
        </button>
      </h2>
      @if (about()) {
        <sv-help [about]="about()" [what]="what()" />
      }
      <span class="soft note">{{ note() }}</span>
      <ng-content select="[head]" />
    </header>
    @if (isOpen()) {
      <ng-content />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      padding: 6px 12px 10px;
      border-bottom: 1px solid var(--line);
    }
    header {
      display: flex;
      align-items: center;
      gap: 4px;
      min-height: 26px;
    }
    h2 {
      font-size: 13.5px;
    }
    h2 button {
      display: flex;
      align-items: center;
      gap: 6px;
      margin-left: -4px;
      font-weight: 600;
    }
    .note {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-align: right;
      text-overflow: ellipsis;
      white-space: nowrap;
      font-size: 12px;
    }
  `,
})
export class ColumnSection {
  /** On a page without columns all sections are open. */
  readonly frame = inject(DeskFrame, { optional: true });
  readonly heading = input.required<string>();
  readonly note = input('');
  /** Paragraph of the guide, and the word that it explains. */
  readonly about = input('');
  readonly what = input('');
  /** Whether it is open until a person folds it. */
  readonly before = input(true);
  readonly isOpen = computed(() => this.frame?.isOpen(this.heading(), this.before()) ?? true);
}
