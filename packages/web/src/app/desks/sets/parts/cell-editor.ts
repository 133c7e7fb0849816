import { ChangeDetectionStrategy, Component, type ElementRef, afterNextRender, input, output, signal, viewChild } from '@angular/core';
import type { FieldType, FieldValue } from '@stravel/core';

/** The right editor for a type. Enter and leaving keep, Escape lets go. What cannot be kept stays typed and says why. */
@Component({
  selector: 'sv-cell-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (type() === 'choice') {
      <select #box class="cell" [attr.aria-label]="label()" (keydown)="key($event)" (blur)="keep()">
        @if (!choices().includes(textOf())) {
          <option [value]="textOf()" selected>{{ textOf() || '—' }}</option>
        }
        @for (choice of choices(); track choice) {
          <option [value]="choice" [selected]="choice === value()">{{ choice }}</option>
        }
      </select>
    } @else if (type() === 'yes/no') {
      <select #box class="cell" [attr.aria-label]="label()" (keydown)="key($event)" (blur)="keep()">
        <option value="" [selected]="value() === null">—</option>
        <option value="yes" [selected]="value() === true">yes</option>
        <option value="no" [selected]="value() === false">no</option>
      </select>
    } @else {
      <input
        #box
        class="cell"
        [type]="type() === 'date' ? 'date' : 'text'"
        [attr.inputmode]="type() === 'number' ? 'decimal' : null"
        [attr.aria-label]="label()"
        [attr.aria-invalid]="fault() !== ''"
        [title]="fault()"
        [value]="textOf()"
        (keydown)="key($event)"
        (blur)="keep()"
      />
    }
    @if (fault()) {
      <span class="fault" role="alert">{{ fault() }}</span>
    }
  `,
  styles: `
    :host {
      flex: 1;
      min-width: 0;
      position: relative;
    }
    .cell {
      width: 100%;
    }
    .cell[aria-invalid='true'] {
      border-color: var(--over);
    }
    .fault {
      position: fixed;
      transform: translateY(2px);
      background: var(--raised);
      border: 1px solid var(--over);
      color: var(--over);
      padding: 2px 8px;
      border-radius: 3px;
      z-index: 10;
    }
  `,
})
export class CellEditor {
  readonly type = input.required<FieldType>();
  readonly label = input.required<string>();
  readonly value = input.required<FieldValue>();
  readonly choices = input<readonly string[]>([]);
  readonly required = input(false);
  readonly kept = output<FieldValue>();
  readonly left = output();
  readonly fault = signal('');
  private readonly box = viewChild.required<ElementRef<HTMLInputElement | HTMLSelectElement>>('box');
  private done = false;

  constructor() {
    afterNextRender(() => {
      const box = this.box().nativeElement;
      box.focus();
      if (box instanceof HTMLInputElement && box.type === 'text') box.select();
    });
  }

  textOf(): string {
    const value = this.value();
    return value === null ? '' : String(value);
  }

  key(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === 'Enter') {
      event.preventDefault();
      this.keep();
    } else if (event.key === 'Escape') {
      this.done = true;
      this.left.emit();
    }
  }

  keep(): void {
    if (this.done) return;
    const read = readValue(this.type(), this.box().nativeElement.value, this.required());
    if (typeof read === 'object' && read !== null) {
      this.fault.set(read.fault);
      return;
    }
    this.done = true;
    this.kept.emit(read);
  }
}

/** What was typed as a value of a type, or why it is none. Nothing is coerced silently. */
export function readValue(type: FieldType, text: string, required: boolean): FieldValue | { fault: string } {
  const trimmed = text.trim();
  if (trimmed === '') return required ? { fault: 'It needs a name.' } : type === 'text' ? '' : null;
  if (type === 'yes/no') return trimmed === 'yes';
  if (type !== 'number') return trimmed;
  const number = Number(trimmed.replace(',', '.'));
  return Number.isFinite(number) ? number : { fault: `“${trimmed}” is not a number.` };
}
