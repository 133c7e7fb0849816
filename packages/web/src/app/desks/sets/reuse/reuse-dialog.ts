import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { Level, RecordTables, SetNode } from '@stravel/core';
import {
  STRATUM_CHOICES,
  sharingText,
  strataOf,
  usualChoices,
  type StratumChoice,
  type StratumChoices,
} from './reuse-levels';
import { Dialog } from '../../../ui/dialog';

export interface ReuseData {
  readonly tables: RecordTables;
  /** Levels that are duplicated; none: a template is to be chosen. */
  readonly levels: readonly Level[];
  /** From which a template is chosen, in order of play. */
  readonly all: readonly Level[];
  readonly tree: readonly SetNode[];
  /** Set in which a new level would go. */
  readonly set: string;
}

export interface ReuseChoice {
  readonly levels: readonly Level[];
  readonly choices: StratumChoices;
  /** Name of the one new level; undefined when there are several. */
  readonly name: string | undefined;
  /** Set that was chosen for a level from a template. */
  readonly set: string | undefined;
}

/** Duplicates levels, or makes one from a template: for every stratum share, copy or leave out. */
@Component({
  selector: 'sv-reuse-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ title() }}</h2>
    <mat-dialog-content>
      <div class="form">
        @if (isTemplate) {
          <label
            >Template
            <select class="cell" #template aria-label="Template" cdkFocusInitial (change)="chooseTemplate(template.value)">
              <option value="">choose a level</option>
              @for (level of data.all; track level.id) {
                <option [value]="level.id" [selected]="levels().at(0)?.id === level.id">{{ level.name }}{{ level.purpose === 'play' ? '' : ' (' + level.purpose + ')' }}</option>
              }
            </select></label
          >
          <label
            >In
            <select class="cell" #within aria-label="Set" (change)="set.set(within.value)">
              @for (one of sets; track one.id) {
                <option [value]="one.id" [selected]="one.id === set()">{{ one.name }}</option>
              }
            </select></label
          >
        }
        @if (levels().length === 1) {
          <label>Name <input class="cell" #name aria-label="Name" [value]="newName()" (input)="newName.set(name.value)" (keydown.enter)="agree()" /></label>
        }
      </div>
      @if (strata().length > 0) {
        <div class="form">
          <span class="soft">All strata:</span>
          @for (choice of words; track choice) {
            <button class="chip" (click)="chooseAll(choice)">{{ choice }}</button>
          }
        </div>
        <div class="rows" tabindex="0" role="region" aria-label="Strata">
          <table>
            @for (one of strata(); track one.stratum.id) {
              <tr>
                <td>{{ one.stratum.name }}</td>
                <td class="soft">{{ one.stratum.role }}{{ levels().length > 1 ? ' · ' + one.from.join(', ') : '' }}</td>
                <td class="soft">{{ one.stratum.owner === null ? 'shared by ' + one.reach.length : 'owned' }}</td>
                <td>
                  @for (choice of words; track choice) {
                    <button
                      class="chip"
                      [attr.aria-pressed]="choices().get(one.stratum.id) === choice"
                      [attr.aria-label]="choice + ' ' + one.stratum.name"
                      (click)="choose(one.stratum.id, choice)"
                    >
                      {{ choice }}
                    </button>
                  }
                </td>
              </tr>
            }
          </table>
        </div>
        <section aria-live="polite" aria-label="Who will share what">
          @for (line of sharing(); track line) {
            <p class="reach">{{ line }}</p>
          } @empty {
            <p class="soft">Nothing will be shared: later changes affect one level only.</p>
          }
        </section>
      } @else if (levels().length > 0) {
        <p class="soft">There are no strata to share or copy. Fields and settings are copied.</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="levels().length === 0" (click)="agree()">{{ isTemplate ? 'Create level' : 'Duplicate' }}</button>
    </mat-dialog-actions>
  `,
  styleUrl: '../bulk/preview-rows.scss',
  styles: `
    .form {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 14px;
      align-items: center;
      padding: 4px 0;
    }
    td .chip {
      margin-right: 4px;
    }
    .reach {
      margin: 6px 0;
    }
  `,
})
export class ReuseDialog extends Dialog<ReuseData, ReuseChoice> {
  static readonly size = { width: '720px', maxWidth: '94vw' };
  readonly words = STRATUM_CHOICES;
  readonly isTemplate = this.data.levels.length === 0;
  readonly sets = flat(this.data.tree, []);
  readonly levels = signal(this.data.levels);
  readonly set = signal(this.data.set);
  readonly newName = signal(this.data.levels.length === 1 ? `${this.data.levels[0].name} copy` : 'New level');
  readonly strata = computed(() => strataOf(this.data.tables, this.levels()));
  readonly choices = signal<StratumChoices>(usualChoices(this.strata()));
  readonly title = computed(() => {
    if (this.isTemplate) return 'New level from a template';
    return this.levels().length === 1
      ? `Duplicate ${this.levels()[0].name}`
      : `Duplicate ${this.levels().length} levels`;
  });
  readonly sharing = computed(() =>
    sharingText(this.strata(), this.choices(), (name) =>
      this.levels().length === 1 ? this.newName() : `${name} copy`,
    ),
  );

  chooseTemplate(id: string): void {
    const level = this.data.all.find((one) => one.id === id);
    this.levels.set(level ? [level] : []);
    this.choices.set(usualChoices(this.strata()));
  }

  choose(stratum: string, choice: StratumChoice): void {
    this.choices.update((choices) => new Map(choices).set(stratum, choice));
  }

  chooseAll(choice: StratumChoice): void {
    this.choices.set(new Map(this.strata().map(({ stratum }) => [stratum.id, choice])));
  }

  agree(): void {
    const levels = this.levels();
    if (levels.length === 0) return;
    const name = levels.length === 1 ? this.newName().trim() || 'New level' : undefined;
    this.dialog.close({ levels, choices: this.choices(), name, set: this.isTemplate ? this.set() : undefined });
  }
}

/** Sets with the names of those above them, in order. */
function flat(nodes: readonly SetNode[], above: readonly string[]): { readonly id: string; readonly name: string }[] {
  return nodes.flatMap(({ set, sets }) => {
    const path = [...above, set.name];
    return [{ id: set.id, name: path.join(' › ') }, ...flat(sets, path)];
  });
}
