import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Sheets } from './sheets';

/** A column with its card, or the sheet that lies over it. */
@Component({
  selector: 'sv-sheet-host',
  imports: [NgComponentOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (sheets.shown(); as sheet) {
      <ng-container *ngComponentOutlet="sheet.type; injector: sheet.injector" />
    } @else {
      <ng-content />
    }
  `,
  styles: `
    :host {
      min-width: 0;
      display: flex;
      flex: 1;
      flex-direction: column;
      min-height: 0;
    }
  `,
})
export class SheetHost {
  readonly sheets = inject(Sheets);
}
