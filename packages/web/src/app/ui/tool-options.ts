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
      overflow: hidden;
    }
    .all {
      display: flex;
      align-items: center;
      gap: 6px;
      width: max-content;
      white-space: nowrap;
    }
    .opened {
      position: absolute;
      z-index: 6;
      top: 0;
      left: 0;
      overflow: visible;
      padding: 8px;
      border: 1px solid var(--soft-ink);
      border-radius: 4px;
      background: var(--raised);
    }
    .opened .all {
      flex-wrap: wrap;
      width: 320px;
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
        if (!this.isOpen())
          this.isCut.set(this.all().nativeElement.offsetWidth > this.line().nativeElement.clientWidth + 1);
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
