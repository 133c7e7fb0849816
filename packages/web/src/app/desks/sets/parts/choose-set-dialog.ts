import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { SetNode } from '@stravel/core';
import { Dialog } from '../../../ui/dialog';

export interface ChooseSetData {
  readonly title: string;
  readonly tree: readonly SetNode[];
}

/** Picks one set of the tree. */
@Component({
  selector: 'sv-choose-set-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      @for (entry of entries; track entry.id) {
        <button class="plain" [style.padding-left.px]="8 + entry.depth * 18" (click)="dialog.close(entry.id)">{{ entry.name }}</button>
      }
    </mat-dialog-content>
    <mat-dialog-actions><button class="chip" mat-dialog-close>Cancel</button></mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content button {
      display: block;
      width: 100%;
      padding-block: 5px;
    }
  `,
})
export class ChooseSetDialog extends Dialog<ChooseSetData, string> {
  static readonly size = { width: '420px' };
  readonly entries = flatten(this.data.tree);
}

function flatten(tree: readonly SetNode[]): { id: string; name: string; depth: number }[] {
  return tree.flatMap(({ set, depth, sets }) => [{ id: set.id, name: set.name, depth }, ...flatten(sets)]);
}
