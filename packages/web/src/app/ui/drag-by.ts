import { Directive, output } from '@angular/core';

/** How far something was dragged since it was taken, CSS pixels. */
export interface DraggedBy {
  readonly x: number;
  readonly y: number;
  /** Whether this drag begins: what moves keeps where it stood. */
  readonly isBegun: boolean;
}

/** An arrow key drags as far as this. */
const KEY_PIXELS = 8;
const BY_KEY: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-KEY_PIXELS, 0],
  ArrowRight: [KEY_PIXELS, 0],
  ArrowUp: [0, -KEY_PIXELS],
  ArrowDown: [0, KEY_PIXELS],
};

/** Something that is dragged by the pointer, or moved by the arrow keys while it has the focus. */
@Directive({
  selector: '[svDragBy]',
  host: {
    '(pointerdown)': 'down($event)',
    '(pointermove)': 'move($event)',
    '(pointerup)': 'from = undefined',
    '(pointercancel)': 'from = undefined',
    '(keydown)': 'key($event)',
  },
})
export class DragBy {
  readonly dragged = output<DraggedBy>();
  protected from: { readonly x: number; readonly y: number } | undefined;

  protected down(event: PointerEvent): void {
    const { currentTarget: grip, target } = event;
    if (event.button !== 0 || !(grip instanceof Element) || !(target instanceof Element)) return;
    // What can be pressed within a grip is pressed: a captured pointer would click the grip.
    const pressed = target.closest('button, input, select, label, a');
    if (pressed && pressed !== grip && grip.contains(pressed)) return;
    grip.setPointerCapture(event.pointerId);
    this.from = { x: event.clientX, y: event.clientY };
    this.dragged.emit({ x: 0, y: 0, isBegun: true });
  }

  protected move({ clientX, clientY }: PointerEvent): void {
    if (this.from) this.dragged.emit({ x: clientX - this.from.x, y: clientY - this.from.y, isBegun: false });
  }

  protected key(event: KeyboardEvent): void {
    // What is typed within a grip is meant for what it is typed into.
    if (event.target !== event.currentTarget || !Object.hasOwn(BY_KEY, event.key)) return;
    const [x, y] = BY_KEY[event.key];
    event.preventDefault();
    // The arrow keys move what is selected, too.
    event.stopPropagation();
    this.dragged.emit({ x: 0, y: 0, isBegun: true });
    this.dragged.emit({ x, y, isBegun: false });
  }
}
