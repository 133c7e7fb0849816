import { NgTemplateOutlet } from '@angular/common';
import type { TemplateRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChild,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import type { SquareCode } from '@stravel/core';
import { OpenLevel } from '../document/level/open-level';
import { LevelSections } from '../document/level/level-sections';
import { ALL_GROUPS, type HiddenGroups } from '../document/unseen-groups';
import { KitLibrary } from '../plate/kit-library';
import { LevelView } from '../plate/level-view';
import type { PickItem } from '../plate/pick-item';
import type { PlanPointer, PlateDrawing } from '../plate/plate-drawing';
import { PlateView } from '../plate/plate-view';
import { Session } from '../session';
import { DeadAddress } from '../shell/dead-address';

type Part = TemplateRef<unknown>;

/**
 * The frame of every desk that works on one level: its plate between a line of tools and what stands below, with a column
 * beside the plate, and one to its left where a desk has that. The page gives each as a template: tools, beside, left, below.
 */
@Component({
  selector: 'sv-level-desk',
  imports: [DeadAddress, NgTemplateOutlet, PlateView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (openLevel.level(); as level) {
      <ng-container [ngTemplateOutlet]="left() ?? null" />
      <div class="work">
        <ng-container [ngTemplateOutlet]="tools()" />
        <sv-plate
          [strata]="sections.drawn()"
          [hidden]="hidden()"
          [hiddenGroups]="hiddenGroups()"
          [legend]="legend()"
          [pieces]="openLevel.pieces()"
          [meshes]="kits.meshes()"
          [selection]="selection()"
          [range]="view.range()"
          [views]="view.shown().views"
          [theme]="session.theme()"
          [gridMetres]="gridMetres()"
          [overlay]="overlay()"
          [paint]="paint()"
          [planLabel]="'Plan of ' + level.name + planNote()"
          (planPointer)="planPointer.emit($event)"
          (modelPicked)="modelPicked.emit($event)"
        >
          @if (fault()) {
            <p class="card over" role="alert">
              {{ fault() }}
              @if (canRetry()) {
                <button class="plain" (click)="retried.emit()">Make it again</button>
              }
            </p>
          }
          <ng-container [ngTemplateOutlet]="beside()" />
        </sv-plate>
        <ng-container [ngTemplateOutlet]="below() ?? null" />
      </div>
    } @else {
      <sv-dead-address [key]="id()" />
    }
  `,
  styleUrl: './level-desk.scss',
  host: { '[class.has-left]': 'left() !== undefined' },
})
export class LevelDesk {
  readonly openLevel = inject(OpenLevel);
  readonly sections = inject(LevelSections);
  readonly kits = inject(KitLibrary);
  readonly view = inject(LevelView);
  readonly session = inject(Session);

  /** Key of the level in the address. */
  readonly id = input<string>();
  readonly hidden = input<ReadonlySet<string>>(new Set());
  readonly hiddenGroups = input<HiddenGroups>(ALL_GROUPS);
  readonly legend = input<readonly SquareCode[]>([]);
  readonly selection = input<ReadonlyMap<string, PickItem>>(new Map());
  readonly gridMetres = input(1);
  readonly overlay = input<(drawing: PlateDrawing) => void>(() => undefined);
  readonly paint = input<(drawing: PlateDrawing) => void>(() => undefined);
  /** What the plan shows beside the level, for those who hear it. */
  readonly planNote = input('');
  /** What went wrong on the desk itself. */
  readonly failure = input('');
  /** Whether what failed can be asked for again. */
  readonly canRetry = input(false);
  readonly planPointer = output<PlanPointer>();
  readonly modelPicked = output<{ hits: PickItem[]; event: PointerEvent }>();
  readonly retried = output();

  readonly plate = viewChild(PlateView);
  readonly fault = computed(() => this.failure() || this.openLevel.failure());
  protected readonly tools = contentChild.required<Part>('tools');
  protected readonly beside = contentChild.required<Part>('beside');
  protected readonly left = contentChild<Part>('left');
  protected readonly below = contentChild<Part>('below');
}
