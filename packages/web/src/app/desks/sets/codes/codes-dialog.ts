import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import {
  LOOK_ALIKES,
  codeCount,
  codePatternFault,
  freeCodes,
  type CodePattern,
  type Level,
  type RecordTables,
} from '@stravel/core';
import { randomBelow } from '../../../edits/operations';
import { Dialog } from '../../../ui/dialog';

export interface CodesData {
  readonly tables: Pick<RecordTables, 'level'>;
  readonly pattern: CodePattern;
  /** Levels in use, in order of play. */
  readonly levels: readonly Level[];
  /** Ids of those that are chosen in the table. */
  readonly chosen: ReadonlySet<string>;
}

/** The pattern to keep, and the new codes by level. */
export interface CodesChoice {
  readonly pattern: CodePattern;
  readonly codes: readonly { readonly level: Level; readonly code: string }[];
}

const WHO = {
  chosen: 'the selected levels',
  without: 'play levels without a code',
  clashing: 'levels whose code another has',
} as const;
type Who = keyof typeof WHO;

/** How codes are made, and new ones for some levels. */
@Component({
  selector: 'sv-codes-dialog',
  imports: [CountedPipe, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Codes</h2>
    <mat-dialog-content>
      <div class="form">
        <label
          >Characters
          <input class="cell mono alphabet" #alphabet aria-label="Characters" [value]="pattern().alphabet" (input)="setPattern({ alphabet: alphabet.value.toUpperCase() })" />
        </label>
        <button class="chip" (click)="dropLookAlikes()" [title]="'Leaves out ' + lookAlikes">Without look-alikes</button>
        <label
          >Length <input class="cell mono" #length aria-label="Length" type="number" min="1" max="40" [value]="pattern().length" (input)="setPattern({ length: +length.value })"
        /></label>
      </div>
      @if (fault(); as fault) {
        <p class="over" role="alert">{{ fault }}</p>
      } @else {
        <p class="soft">{{ count() }} codes can be made.</p>
      }
      <div class="form">
        <span>New codes for</span>
        <select class="cell" #who aria-label="New codes for" (change)="whom.set($any(who.value))">
          @for (one of groups(); track one.id) {
            <option [value]="one.id" [selected]="one.id === whom()">{{ one.text }}</option>
          }
        </select>
        <button class="chip" [disabled]="fault() !== null" (click)="again.set(again() + 1)">Generate again</button>
      </div>
      @if (codes().length < levels().length && fault() === null) {
        <p class="over" role="alert">The pattern has only {{ codes().length }} free codes for {{ levels().length }} levels. Make codes longer or of more characters.</p>
      }
      <div class="rows" tabindex="0" role="region" aria-label="New codes">
        <table>
          @for (one of codes(); track one.level.id) {
            <tr>
              <td>{{ one.level.name }}</td>
              <td class="mono soft">{{ one.level.code || '—' }}</td>
              <td class="mono">{{ one.code }}</td>
            </tr>
          } @empty {
            <tr>
              <td class="soft">Every level has a code.</td>
            </tr>
          }
        </table>
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip" [disabled]="fault() !== null || pattern() === data.pattern" (click)="dialog.close({ pattern: pattern(), codes: [] })">Save pattern only</button>
      <button class="chip strong" cdkFocusInitial [disabled]="codes().length === 0" (click)="dialog.close({ pattern: pattern(), codes: codes() })">
        Assign {{ codes().length | counted: 'code' }}
      </button>
    </mat-dialog-actions>
  `,
  styleUrl: '../bulk/preview-rows.scss',
  styles: `
    .form {
      display: flex;
      gap: 10px;
      align-items: center;
      padding: 4px 0;
    }
    .alphabet {
      width: 300px;
    }
    .form button {
      white-space: nowrap;
    }
    input[type='number'] {
      width: 64px;
    }
  `,
})
export class CodesDialog extends Dialog<CodesData, CodesChoice> {
  static readonly size = { width: '640px' };
  readonly lookAlikes = [...LOOK_ALIKES].join(' ');
  readonly pattern = signal(this.data.pattern);
  readonly whom = signal<Who>(this.data.chosen.size > 0 ? 'chosen' : 'without');
  readonly again = signal(0);
  readonly fault = computed(() => codePatternFault(this.pattern()));
  readonly count = computed(() => codeCount(this.pattern()).toLocaleString('en').replaceAll(',', '\u2009'));
  readonly groups = computed(() =>
    (Object.keys(WHO) as Who[])
      .filter((id) => id !== 'chosen' || this.data.chosen.size > 0)
      .map((id) => ({ id, text: `${WHO[id]} (${this.of(id).length})` })),
  );
  readonly levels = computed(() => this.of(this.whom()));
  readonly codes = computed(() => {
    this.again();
    if (this.fault() !== null) return [];
    const levels = this.levels();
    return freeCodes(this.data.tables, this.pattern(), levels.length, randomBelow).map((code, i) => ({
      level: levels[i],
      code,
    }));
  });

  setPattern(part: Partial<CodePattern>): void {
    this.pattern.update((pattern) => ({ ...pattern, ...part }));
  }

  dropLookAlikes(): void {
    this.setPattern({
      alphabet: [...this.pattern().alphabet].filter((letter) => !LOOK_ALIKES.includes(letter)).join(''),
    });
  }

  private of(who: Who): Level[] {
    const { levels, chosen } = this.data;
    if (who === 'chosen') return levels.filter(({ id }) => chosen.has(id));
    if (who === 'without') return levels.filter(({ code, purpose }) => code === '' && purpose === 'play');
    const seen = new Set<string>();
    // The first that has a code keeps it.
    return levels.filter(({ code }) => {
      const key = code.toUpperCase();
      if (key === '' || !seen.has(key)) return void seen.add(key);
      return true;
    });
  }
}
