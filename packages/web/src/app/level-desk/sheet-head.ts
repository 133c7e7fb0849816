import { Chevron } from '../ui/chevron';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';

/** The head of a sheet: back, and what it is. */
@Component({
  selector: 'sv-sheet-head',
  imports: [Chevron],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button #back class="plain back" (click)="left.emit()"><sv-chevron to="left" /> Back</button>
    <h2 [title]="heading()">{{ heading() }}</h2>
  `,
  styles: `
    :host {
      display: flex;
      flex: none;
      align-items: center;
      gap: 12px;
      height: 34px;
      padding: 0 12px 0 6px;
      border-bottom: 1px solid var(--line);
      white-space: nowrap;
    }
    h2 {
      overflow: hidden;
      text-overflow: ellipsis;
    }
  `,
})
export class SheetHead {
  private readonly back = viewChild.required<ElementRef<HTMLButtonElement>>('back');
  readonly heading = input.required<string>();
  readonly left = output();

  constructor() {
    // Read aloud, and left by Esc from the keyboard.
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    afterNextRender(() => {
      if (!host.contains(document.activeElement)) this.back().nativeElement.focus();
    });
  }
}
