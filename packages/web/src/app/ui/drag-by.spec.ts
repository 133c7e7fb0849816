import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { DragBy, type DraggedBy } from './drag-by';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DragBy],
  template: `<button svDragBy (dragged)="all.push($event)">grip</button>`,
})
class Host {
  readonly all: DraggedBy[] = [];
}

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DragBy],
  template: `<div svDragBy (dragged)="all.push($event)"><button>within</button></div>`,
})
class Line {
  readonly all: DraggedBy[] = [];
}

describe('a grip', () => {
  it('tells how far it was dragged since it was taken, and nothing before and after', () => {
    const fixture = TestBed.createComponent(Host);
    const grip = (fixture.nativeElement as HTMLElement).querySelector('button') as HTMLButtonElement;
    // Not in this browser of the specs.
    grip.setPointerCapture = () => undefined;
    const point = (type: string, x: number, y: number, button = 0): void => {
      grip.dispatchEvent(Object.assign(new MouseEvent(type, { clientX: x, clientY: y, button }), { pointerId: 1 }));
    };
    point('pointermove', 5, 5);
    point('pointerdown', 10, 10, 2);
    point('pointermove', 20, 20);
    expect(fixture.componentInstance.all).toEqual([]);
    point('pointerdown', 10, 10);
    point('pointermove', 25, 4);
    point('pointerup', 25, 4);
    point('pointermove', 90, 90);
    expect(fixture.componentInstance.all).toEqual([
      { x: 0, y: 0, isBegun: true },
      { x: 15, y: -6, isBegun: false },
    ]);
  });

  it('leaves alone what is pressed within it', () => {
    const fixture = TestBed.createComponent(Line);
    const button = (fixture.nativeElement as HTMLElement).querySelector('button') as HTMLButtonElement;
    button.dispatchEvent(Object.assign(new MouseEvent('pointerdown', { bubbles: true }), { pointerId: 1 }));
    const key = new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true, cancelable: true });
    button.dispatchEvent(key);
    expect([fixture.componentInstance.all, key.defaultPrevented]).toEqual([[], false]);
  });

  it('moves by the arrow keys, and keeps them from what else hears them', () => {
    const fixture = TestBed.createComponent(Host);
    const grip = (fixture.nativeElement as HTMLElement).querySelector('button') as HTMLButtonElement;
    const event = new KeyboardEvent('keydown', { key: 'ArrowUp', cancelable: true });
    grip.dispatchEvent(event);
    grip.dispatchEvent(new KeyboardEvent('keydown', { key: 'a' }));
    expect([fixture.componentInstance.all, event.defaultPrevented]).toEqual([
      [
        { x: 0, y: 0, isBegun: true },
        { x: 0, y: -8, isBegun: false },
      ],
      true,
    ]);
  });
});
