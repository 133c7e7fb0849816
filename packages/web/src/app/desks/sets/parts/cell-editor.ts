import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  afterNextRender,
  computed,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { fieldText, readFieldText, type Field, type FieldValue, type LinkLookup } from '@stravel/core';
import { PictureEditor, type UploadPicture } from './picture-editor';

/** Gives names that begin like what was typed into a link, best first. */
export type SuggestLinks = (field: Field, text: string) => readonly string[];

/** The right editor for a field. Enter and leaving keep, Escape lets go. What cannot be kept stays typed and says why. */
@Component({
  selector: 'sv-cell-editor',
  imports: [PictureEditor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (isPicture() && upload(); as send) {
      <sv-picture-editor [field]="field()" [label]="label()" [value]="value()" [upload]="send" (kept)="kept.emit($event)" (left)="left.emit()" />
    } @else if (choices(); as choices) {
      <select #box class="cell" [attr.aria-label]="label()" (keydown)="key($event)" (blur)="keep()">
        @if (!choices.includes(text())) {
          <option [value]="text()" selected>{{ text() || '—' }}</option>
        }
        @if (!field().required && text() !== '') {
          <option value="">—</option>
        }
        @for (choice of choices; track choice) {
          <option [value]="choice" [selected]="choice === text()">{{ choice }}</option>
        }
      </select>
    } @else if (field().type === 'long text' && !field().list) {
      <textarea
        #box
        class="cell long"
        rows="5"
        [attr.aria-label]="label()"
        [attr.aria-invalid]="fault() !== ''"
        [value]="text()"
        (keydown)="key($event)"
        (blur)="keep()"
      ></textarea>
    } @else {
      <input
        #box
        class="cell"
        [type]="field().type === 'date' && !field().list ? 'date' : 'text'"
        [attr.inputmode]="isNumber() ? 'decimal' : null"
        [attr.aria-label]="label()"
        [attr.aria-invalid]="fault() !== ''"
        [attr.list]="isLink() ? 'link-suggestions' : null"
        [placeholder]="hint()"
        [title]="fault() || field().help || ''"
        [value]="text()"
        (input)="typed.set(box.value)"
        (keydown)="key($event)"
        (blur)="keep()"
      />
      @if (isLink()) {
        <datalist id="link-suggestions">
          @for (name of suggestions(); track name) {
            <option [value]="name"></option>
          }
        </datalist>
      }
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
    .long {
      position: fixed;
      width: 320px;
      height: auto;
      z-index: 10;
      transform: translateY(-14px);
      line-height: 1.4;
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
      z-index: 11;
    }
  `,
})
export class CellEditor {
  readonly field = input.required<Field>();
  readonly label = input.required<string>();
  readonly value = input.required<FieldValue>();
  readonly links = input.required<LinkLookup>();
  readonly suggest = input<SuggestLinks>(() => []);
  /** Without it pictures cannot be chosen. */
  readonly upload = input<UploadPicture>();
  readonly kept = output<FieldValue>();
  readonly left = output();
  readonly fault = signal('');
  readonly typed = signal('');
  private readonly box = viewChild<ElementRef<HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement>>('box');
  private done = false;

  readonly text = computed(() => fieldText(this.field(), this.value(), this.links()));
  readonly choices = computed(() => {
    const { type, list, choices } = this.field();
    if (list) return undefined;
    return type === 'choice' ? choices : type === 'yes/no' ? ['yes', 'no'] : undefined;
  });
  readonly isPicture = computed(() => this.field().type === 'picture');
  readonly isLink = computed(() => this.field().type === 'level' || this.field().type === 'entry');
  readonly isNumber = computed(
    () => (this.field().type === 'number' || this.field().type === 'whole number') && !this.field().list,
  );
  readonly hint = computed(() =>
    this.field().list
      ? 'one; two; three'
      : this.field().type === 'colour'
        ? '#a6452b'
        : this.field().type === 'point'
          ? 'x, y, z'
          : '',
  );
  readonly suggestions = computed(() => {
    const text = this.typed();
    const cut = this.field().list ? text.lastIndexOf(';') + 1 : 0;
    return this.suggest()(this.field(), text.slice(cut).trim()).map((name) =>
      cut > 0 ? `${text.slice(0, cut)} ${name}` : name,
    );
  });

  constructor() {
    afterNextRender(() => {
      const box = this.box()?.nativeElement;
      box?.focus();
      if (box instanceof HTMLInputElement && box.type === 'text') box.select();
    });
  }

  key(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      this.keep();
    } else if (event.key === 'Escape') {
      this.done = true;
      this.left.emit();
    }
  }

  keep(): void {
    const box = this.box();
    if (this.done || !box) return;
    const field = this.field();
    const text = box.nativeElement.value;
    const read = readFieldText(field, text, this.links());
    // What was there already may stay, though it does not fit.
    if (read.fault !== undefined && text === this.text()) {
      this.done = true;
      this.left.emit();
      return;
    }
    const fault = read.fault ?? (read.value === null && field.required ? `${field.name} must be filled.` : '');
    if (fault !== '') {
      this.fault.set(fault);
      return;
    }
    this.done = true;
    this.kept.emit(read.value ?? null);
  }
}
