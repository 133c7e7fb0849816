import { Injectable, signal } from '@angular/core';

/** A line of a context menu: something to do, or a menu of its own. */
export interface MenuEntry {
  readonly text: string;
  /** Key that does the same. */
  readonly key?: string;
  readonly isDisabled?: boolean;
  readonly run?: () => unknown;
  readonly entries?: readonly MenuEntry[];
  /** A line is drawn above it. */
  readonly isFirstOfGroup?: boolean;
}

/** A menu that is asked for at a place of the window, pixels. */
export interface AskedMenu {
  readonly x: number;
  readonly y: number;
  readonly entries: readonly MenuEntry[];
}

/** Opens the context menu of the page. */
@Injectable({ providedIn: 'root' })
export class ContextMenus {
  private readonly asking = signal<AskedMenu | undefined>(undefined);
  /** The menu that was asked for last; a new object each time. */
  readonly asked = this.asking.asReadonly();

  open(at: { readonly x: number; readonly y: number }, entries: readonly MenuEntry[]): void {
    if (entries.length > 0) this.asking.set({ x: at.x, y: at.y, entries });
  }

  /** The menu of what has the focus, as a right click on it would bring it. */
  ofFocused(): void {
    const element = document.activeElement;
    if (!element || element === document.body) return;
    const { left, top, width, height } = element.getBoundingClientRect();
    // Small ones open it below, large ones over their middle.
    const isLarge = height > LARGE_PIXELS;
    element.dispatchEvent(
      new MouseEvent('contextmenu', {
        bubbles: true,
        cancelable: true,
        clientX: isLarge ? left + width / 2 : left + Math.min(width, LARGE_PIXELS) / 2,
        clientY: isLarge ? top + height / 2 : top + height,
      }),
    );
  }
}

const LARGE_PIXELS = 120;

/** Gives the focus back when a menu closes, unless something else has taken it. */
export function focusAfterMenu(element: HTMLElement | undefined): void {
  const now = document.activeElement;
  if (!now || now === document.body || now.closest('[role=menu]')) element?.focus();
}
