import { numberOfSum } from '@stravel/core';
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { NumberFields } from './number-fields';

/** One exact number, typed as such or as a sum. Enter and leaving keep it; what is no number stays typed and says so. */
@Component({
  selector: 'sv-number-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (axis()) {
      <span class="axis" aria-hidden="true">{{ axis() }}</span>
    }
    <input
      #box
      class="cell mono"
      [class.has-axis]="axis() !== ''"
      inputmode="decimal"
      autocomplete="off"
      [attr.aria-label]="label()"
      [attr.aria-invalid]="fault() !== ''"
      [title]="fault() || label()"
      [value]="shown()"
      [disabled]="disabled()"
      (input)="type(box)"
      (keydown.enter)="keep(box)"
      (keydown.escape)="drop(box); $event.stopPropagation()"
      (blur)="keep(box)"
    />
    @if (fault()) {
      <span class="over" role="alert">{{ fault() }}</span>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      min-width: 0;
    }
    input {
      width: 100%;
    }
    .axis {
      position: absolute;
      left: 7px;
      line-height: 26px;
      color: var(--soft-ink);
      font-size: 11.5px;
      pointer-events: none;
    }
    .has-axis {
      padding-left: 20px;
      text-align: right;
    }
    input[aria-invalid='true'] {
      border-color: var(--over);
    }
    .over {
      font-size: 11.5px;
    }
  `,
})
export class NumberField {
  readonly label = input.required<string>();
  /** Stands in the field, before its number. */
  readonly axis = input('');
  readonly value = input.required<number | null>();
  readonly least = input(-100000);
  readonly most = input(100000);
  readonly disabled = input(false);
  readonly kept = output<number>();
  /** What it would be if it were kept now; null where that is what it was. */
  readonly tried = output<number | null>();
  readonly fault = signal('');
  /** Whether something was typed that is not kept yet; leaving after Enter must not keep it twice. */
  protected isTyped = false;
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');

  constructor() {
    const remove = inject(NumberFields, { optional: true })?.add(this);
    if (remove) inject(DestroyRef).onDestroy(remove);
  }

  shown(): string {
    const value = this.value();
    return value === null ? '' : String(Math.round(value * 1e6) / 1e6);
  }

  type(box: HTMLInputElement): void {
    this.isTyped = true;
    const value = numberOfSum(this.textOf(box));
    const isIn = value !== undefined && value >= this.least() && value <= this.most();
    this.tried.emit(isIn ? value : null);
  }

  drop(box: HTMLInputElement): void {
    if (this.isTyped) this.tried.emit(null);
    box.value = this.shown();
    this.isTyped = false;
    this.fault.set('');
  }

  settle(): boolean {
    const box = this.box().nativeElement;
    this.keep(box);
    if (this.fault()) box.focus();
    return this.fault() === '';
  }

  keep(box: HTMLInputElement): void {
    if (!this.isTyped) return;
    const text = this.textOf(box);
    if (text === this.shown()) {
      this.drop(box);
      return;
    }
    const value = numberOfSum(text);
    if (value === undefined) this.fault.set(`“${box.value}” is not a number.`);
    else if (value < this.least() || value > this.most()) this.fault.set(`From ${this.least()} to ${this.most()}.`);
    else {
      this.isTyped = false;
      this.fault.set('');
      this.kept.emit(value);
    }
  }

  private textOf(box: HTMLInputElement): string {
    return box.value.trim().replace(',', '.');
  }
}
