import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  inject,
  signal,
  viewChild,
} from '@angular/core';

/** Options of the tool in hand: one line, and what has no room is opened by a button after it. */
@Component({
  selector: 'sv-tool-options',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="line" #line [class.opened]="isOpen()">
      <div class="all" #all><ng-content /></div>
    </div>
    @if (isCut() || isOpen()) {
      <button class="plain" aria-label="More options of the tool" [attr.aria-expanded]="isOpen()" (click)="isOpen.set(!isOpen())">…</button>
    }
  `,
  styles: `
    :host {
      position: relative;
      display: flex;
      align-items: center;
      min-width: 0;
      max-width: 320px;
    }
    .line {
      min-width: 0;
    }
    /* What has no room goes to a second line, which is not seen: nothing is cut in its middle. */
    .all {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      align-content: flex-start;
      gap: 6px;
      height: 32px;
      overflow: hidden;
      white-space: nowrap;
    }
    .all > * {
      min-height: 32px;
    }
    .opened {
      position: absolute;
      z-index: 6;
      top: 0;
      left: 0;
      padding: 8px;
      border: 1px solid var(--soft-ink);
      border-radius: 4px;
      background: var(--raised);
    }
    .opened .all {
      width: 320px;
      height: auto;
    }
    .opened + button {
      margin-left: auto;
    }
    button {
      flex: none;
      min-width: 24px;
      min-height: 24px;
      text-align: center;
    }
  `,
  host: { '(keydown.escape)': 'close($event)' },
})
export class ToolOptions {
  private readonly line = viewChild.required<ElementRef<HTMLElement>>('line');
  private readonly all = viewChild.required<ElementRef<HTMLElement>>('all');
  readonly isCut = signal(false);
  readonly isOpen = signal(false);

  constructor() {
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      const observer = new ResizeObserver(() => {
        const { scrollHeight, clientHeight } = this.all().nativeElement;
        if (!this.isOpen()) this.isCut.set(scrollHeight > clientHeight + 2);
      });
      observer.observe(this.line().nativeElement);
      observer.observe(this.all().nativeElement);
      destroyed.onDestroy(() => observer.disconnect());
    });
  }

  close(event: Event): void {
    if (!this.isOpen()) return;
    event.stopPropagation();
    this.isOpen.set(false);
  }
}
