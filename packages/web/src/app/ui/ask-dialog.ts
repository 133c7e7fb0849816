import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { NumberField } from './number-field';
import { NumberFields } from './number-fields';
import { Dialog } from './dialog';

/** One thing that is asked for. */
export type Question =
  | {
      readonly key: string;
      readonly label: string;
      readonly kind: 'number';
      readonly value: number;
      readonly least?: number;
      readonly most?: number;
    }
  | {
      readonly key: string;
      readonly label: string;
      readonly kind: 'text';
      readonly value: string;
      readonly suggestions?: readonly string[];
    }
  | {
      readonly key: string;
      readonly label: string;
      readonly kind: 'choice';
      readonly value: string;
      readonly choices: readonly { readonly value: string; readonly name: string }[];
    };

export type Answers = Readonly<Record<string, number | string>>;

export interface AskData {
  readonly title: string;
  readonly text?: string;
  /** Lines under it, such as what was found. */
  readonly notes?: readonly string[];
  readonly questions: readonly Question[];
  readonly command: string;
  /** What is wrong with the answers, '' when nothing; what was typed stays. */
  readonly fault?: (answers: Answers) => string;
}

/** Asks for a few numbers, texts and choices. */
@Component({
  selector: 'sv-ask-dialog',
  imports: [MatDialogModule, NumberField],
  providers: [NumberFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      @if (data.text) {
        <p class="soft">{{ data.text }}</p>
      }
      @if (data.notes?.length) {
        <ul class="notes">
          @for (note of data.notes; track note) {
            <li>{{ note }}</li>
          }
        </ul>
      }
      @for (one of data.questions; track one.key) {
        <div class="row">
          <span>{{ one.label }}</span>
          @switch (one.kind) {
            @case ('number') {
              <sv-number-field [label]="one.label" [value]="$any(answers()[one.key])" [least]="one.least ?? -100000" [most]="one.most ?? 100000" (kept)="put(one.key, $event)" />
            }
            @case ('text') {
              <input
                #box
                class="cell"
                [attr.aria-label]="one.label"
                [value]="answers()[one.key]"
                [attr.list]="one.suggestions ? 'ask-' + one.key : null"
                (input)="put(one.key, box.value)"
                (keydown.enter)="agree()"
              />
              @if (one.suggestions) {
                <datalist [id]="'ask-' + one.key">
                  @for (text of one.suggestions; track text) {
                    <option [value]="text"></option>
                  }
                </datalist>
              }
            }
            @case ('choice') {
              <select #chosen class="cell" [attr.aria-label]="one.label" (change)="put(one.key, chosen.value)">
                @for (choice of one.choices; track choice.value) {
                  <option [value]="choice.value" [selected]="choice.value === answers()[one.key]">{{ choice.name }}</option>
                }
              </select>
            }
          }
        </div>
      }
      @if (fault()) {
        <p class="over" role="alert">{{ fault() }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" (click)="agree()">{{ data.command }}</button>
    </mat-dialog-actions>
  `,
  styles: `
    .row {
      display: grid;
      grid-template-columns: 140px minmax(0, 1fr);
      align-items: center;
      gap: 8px;
      margin: 6px 0;
    }
    .over {
      margin-top: 8px;
    }
    .notes {
      margin: 0;
      padding-left: 18px;
      overflow-wrap: anywhere;
    }
  `,
})
export class AskDialog extends Dialog<AskData, Answers> {
  static readonly size = { width: '420px' };
  private readonly numbers = inject(NumberFields);
  readonly answers = signal<Answers>(Object.fromEntries(this.data.questions.map(({ key, value }) => [key, value])));
  readonly fault = signal('');

  put(key: string, value: number | string): void {
    this.answers.update((answers) => ({ ...answers, [key]: value }));
    this.fault.set('');
  }

  agree(): void {
    if (!this.numbers.settle()) return;
    const fault = this.data.fault?.(this.answers()) ?? '';
    if (fault) this.fault.set(fault);
    else this.dialog.close(this.answers());
  }
}
