import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  afterNextRender,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { acceptOf, errorText, type Field, type FieldValue } from '@stravel/core';
import { faultOfFile } from '../../../ui/chosen-file';

const PICTURES = ['png', 'jpeg', 'webp'] as const;

/** Keeps a picture's file; gives the name of its asset. */
export type UploadPicture = (file: Blob) => Promise<string>;

/** Chooses the file of a picture, or lets the picture go. */
@Component({
  selector: 'sv-picture-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="card" role="group" [attr.aria-label]="label()" (keydown)="key($event)">
      <input #box type="file" [accept]="pictureFiles" [attr.aria-label]="'File for ' + label()" (change)="choose()" />
      @if (value() !== null) {
        <button class="chip" (click)="kept.emit(null)">Remove</button>
      }
      <button class="chip" (click)="left.emit()">Cancel</button>
      @if (text()) {
        <span [class.over]="!isBusy()" role="alert">{{ text() }}</span>
      }
    </div>
  `,
  styles: `
    .card {
      position: fixed;
      z-index: 10;
      display: flex;
      gap: 8px;
      align-items: center;
      transform: translateY(-16px);
      padding: 6px 8px;
      background: var(--raised);
      border: 1px solid var(--brine);
    }
  `,
})
export class PictureEditor {
  readonly pictureFiles = acceptOf(PICTURES);
  readonly field = input.required<Field>();
  readonly label = input.required<string>();
  readonly value = input.required<FieldValue>();
  readonly upload = input.required<UploadPicture>();
  readonly kept = output<FieldValue>();
  readonly left = output();
  readonly text = signal('');
  readonly isBusy = signal(false);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');

  constructor() {
    afterNextRender(() => this.box().nativeElement.focus());
  }

  key(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === 'Escape') this.left.emit();
  }

  async choose(): Promise<void> {
    const file = this.box().nativeElement.files?.[0];
    if (!file) return;
    const fault = await faultOfFile(file, PICTURES);
    if (fault) {
      this.text.set(fault);
      return;
    }
    this.isBusy.set(true);
    this.text.set('Sending…');
    try {
      const name = await this.upload()(file);
      const value = this.value();
      this.kept.emit(this.field().list ? [...(Array.isArray(value) ? (value as readonly string[]) : []), name] : name);
    } catch (error) {
      this.isBusy.set(false);
      this.text.set(errorText(error));
    }
  }
}
