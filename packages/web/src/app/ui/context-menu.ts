import { ChangeDetectionStrategy, Component, ElementRef, effect, inject, viewChild } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { ContextMenus, focusAfterMenu } from './context-menus';

/** The one context menu of the page. */
@Component({
  selector: 'sv-context-menu',
  imports: [MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span #anchor [matContextMenuTriggerFor]="menu" [matContextMenuTriggerRestoreFocus]="false" (menuClosed)="giveBack()" aria-hidden="true"></span>
    <mat-menu #menu="matMenu" class="context-menu">
      <ng-template matMenuContent>
        @for (entry of menus.asked()?.entries; track entry.text) {
          @if (entry.isFirstOfGroup) {
            <hr />
          }
          @if (entry.entries; as more) {
            <button mat-menu-item [matMenuTriggerFor]="sub" [disabled]="entry.isDisabled">{{ entry.text }}</button>
            <mat-menu #sub="matMenu">
              @for (one of more; track one.text) {
                <button mat-menu-item [disabled]="one.isDisabled" (click)="one.run?.()">{{ one.text }} @if (one.key) { <kbd>{{ one.key }}</kbd> }</button>
              }
            </mat-menu>
          } @else {
            <button mat-menu-item [disabled]="entry.isDisabled" (click)="entry.run?.()">{{ entry.text }} @if (entry.key) { <kbd>{{ entry.key }}</kbd> }</button>
          }
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    span {
      position: fixed;
      top: 0;
      left: 0;
    }
    hr {
      border: 0;
      border-top: 1px solid var(--line);
    }
  `,
})
export class ContextMenu {
  readonly menus = inject(ContextMenus);
  private readonly anchor = viewChild.required<string, ElementRef<HTMLElement>>('anchor', { read: ElementRef });
  /** What had the focus when it was opened. */
  private before: HTMLElement | undefined;

  constructor() {
    effect(() => {
      const asked = this.menus.asked();
      if (!asked) return;
      this.before = document.activeElement instanceof HTMLElement ? document.activeElement : undefined;
      this.anchor().nativeElement.dispatchEvent(
        new MouseEvent('contextmenu', { clientX: asked.x, clientY: asked.y, cancelable: true }),
      );
    });
  }

  giveBack(): void {
    focusAfterMenu(this.before);
  }
}
