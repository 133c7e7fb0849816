import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { ItemKind } from '@stravel/core';

export const ARRANGE_COMMANDS = [
  'move by',
  'align',
  'distribute',
  'array',
  'mirror',
  'drop',
  'vary',
  'replace',
  'ungroup',
] as const;
export const SELECT_COMMANDS = ['find', 'similar', 'invert', 'keep'] as const;
export const BLOCK_COMMANDS = ['cut', 'join', 'hollow', 'move face', 'surface', 'planes'] as const;
export const PATH_COMMANDS = [
  'resample',
  'offset',
  'reverse',
  'join paths',
  'close',
  'form',
  'distances',
  'shade',
] as const;
export const ASSEMBLY_COMMANDS = ['make assembly', 'replace assembly', 'part ways', 'own copy'] as const;
export type SelectionCommand =
  | (typeof ARRANGE_COMMANDS)[number]
  | (typeof SELECT_COMMANDS)[number]
  | (typeof BLOCK_COMMANDS)[number]
  | (typeof PATH_COMMANDS)[number]
  | (typeof ASSEMBLY_COMMANDS)[number]
  | 'duplicate'
  | 'delete'
  | 'turn'
  | 'link';

const WORDS: Readonly<
  Record<
    | (typeof ARRANGE_COMMANDS)[number]
    | (typeof BLOCK_COMMANDS)[number]
    | (typeof PATH_COMMANDS)[number]
    | (typeof ASSEMBLY_COMMANDS)[number],
    string
  >
> = {
  'move by': 'Move by exact amounts…',
  align: 'Align…',
  distribute: 'Space evenly…',
  array: 'Copies in a row…',
  mirror: 'Mirror…',
  drop: 'Drop to the surface below',
  vary: 'Vary by chance…',
  replace: 'Replace the piece…',
  ungroup: 'Take out of groups',
  cut: 'Cut by a plane…',
  join: 'Join two into one',
  hollow: 'Hollow into walls…',
  'move face': 'Move a face…',
  surface: 'Surface of a face…',
  planes: 'Exact planes…',
  resample: 'Knots at equal spacing…',
  offset: 'Offset…',
  reverse: 'Reverse',
  'join paths': 'Join two into one',
  close: 'Close or open it',
  form: 'Straight or smooth',
  distances: 'Distance of markers from it…',
  shade: 'Distance as a shade on the plan',
  'make assembly': 'Make an assembly of it…',
  'replace assembly': 'Replace the assembly…',
  'part ways': 'Part ways: things of this stratum',
  'own copy': 'Own copy of the assembly…',
};

/** What can be done with what is selected, and with the selection itself. */
@Component({
  selector: 'sv-selection-bar',
  imports: [MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div role="toolbar" aria-label="What to do with the selection">
      @if (kinds().length > 0) {
        <button class="chip" (click)="asked.emit('duplicate')">Duplicate</button>
        <button class="chip" (click)="asked.emit('turn')">Turn 15°</button>
        <button class="chip" [matMenuTriggerFor]="arrange">Arrange ▾</button>
        <button class="chip" [matMenuTriggerFor]="assembly">Assembly ▾</button>
        @if (allOf('block')) {
          <button class="chip" [matMenuTriggerFor]="blocks">Block ▾</button>
        }
        @if (allOf('path')) {
          <button class="chip" [matMenuTriggerFor]="paths">Path ▾</button>
        }
        @if (kinds().length === 1 && (allOf('volume') || allOf('marker'))) {
          <button class="chip" (click)="asked.emit('link')">Link…</button>
        }
      }
      <button class="chip" [matMenuTriggerFor]="select">Select ▾</button>
      @if (kinds().length > 0) {
        <button class="chip" (click)="asked.emit('delete')">Delete</button>
      }
    </div>
    <mat-menu #arrange="matMenu">
      @for (command of arrangeCommands; track command) {
        <button mat-menu-item [disabled]="command === 'replace' && !allOf('placement')" (click)="asked.emit(command)">{{ words[command] }}</button>
      }
    </mat-menu>
    <mat-menu #assembly="matMenu">
      @for (command of assemblyCommands; track command) {
        <button mat-menu-item [disabled]="command !== 'make assembly' && (!allOf('assembly') || (command === 'own copy' && kinds().length > 1))" (click)="asked.emit(command)">
          {{ words[command] }}
        </button>
      }
    </mat-menu>
    <mat-menu #blocks="matMenu">
      @for (command of blockCommands; track command) {
        <button mat-menu-item [disabled]="command === 'join' ? kinds().length !== 2 : command !== 'cut' && command !== 'hollow' && kinds().length > 1" (click)="asked.emit(command)">
          {{ words[command] }}
        </button>
      }
    </mat-menu>
    <mat-menu #paths="matMenu">
      @for (command of pathCommands; track command) {
        <button mat-menu-item [disabled]="kinds().length !== (command === 'join paths' ? 2 : 1)" (click)="asked.emit(command)">{{ words[command] }}</button>
      }
    </mat-menu>
    <mat-menu #select="matMenu">
      <button mat-menu-item (click)="asked.emit('find')">By name, piece, size…</button>
      <button mat-menu-item [disabled]="kinds().length !== 1" (click)="asked.emit('similar')">What is like it</button>
      <button mat-menu-item (click)="asked.emit('invert')">All but these</button>
      <button mat-menu-item [disabled]="kinds().length === 0" (click)="asked.emit('keep')">Keep this selection…</button>
      @for (name of saved(); track name) {
        <button mat-menu-item (click)="savedPicked.emit(name)">{{ name }} <span class="soft">kept</span></button>
      }
    </mat-menu>
  `,
  styles: `
    [role='toolbar'] {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
    [role='toolbar'] .chip {
      padding: 3px 7px;
    }
  `,
})
export class SelectionBar {
  /** Kinds of what is selected, one for each thing. */
  readonly kinds = input.required<readonly ItemKind[]>();
  /** Names of selections that were kept. */
  readonly saved = input<readonly string[]>([]);
  readonly asked = output<SelectionCommand>();
  readonly savedPicked = output<string>();
  readonly words = WORDS;
  readonly arrangeCommands = ARRANGE_COMMANDS;
  readonly blockCommands = BLOCK_COMMANDS;
  readonly pathCommands = PATH_COMMANDS;
  readonly assemblyCommands = ASSEMBLY_COMMANDS;
  private readonly distinct = computed(() => new Set(this.kinds()));

  allOf(kind: ItemKind): boolean {
    return this.distinct().size === 1 && this.distinct().has(kind);
  }
}
