import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { PlateControls } from '../../../plate/plate-controls';
import { LayoutDesk } from '../editing/layout-desk';
import type { ToolFamily } from '../kinds/item-desk';
import { SNAP_TARGETS, layoutActions } from '../store/layout-store';
import { TOOL_COMMANDS } from '../store/layout-tools';
import { TOOL_FAMILIES } from './tool-families';
import { Help } from '../../../guide/help';

const SNAPS = [0, 0.05, 0.1, 0.125, 0.25, 0.5, 1, 2, 4];

/** The tools of the Layout desk, each with what it needs to know. */
@Component({
  selector: 'sv-layout-tools',
  imports: [Help, MatMenuModule, NgComponentOutlet, PlateControls],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './layout-tools.html',
  styleUrl: './layout-tools.scss',
  host: { role: 'toolbar', 'aria-label': 'Layout tools' },
})
export class LayoutTools {
  private readonly store = inject(Store);
  private readonly desk = inject(LayoutDesk);
  readonly state = this.desk.state;
  readonly actions = layoutActions;
  readonly families = TOOL_FAMILIES;
  readonly snaps = SNAPS;
  readonly snapTargets = SNAP_TARGETS;
  readonly family = computed(() => TOOL_FAMILIES.find(({ tools }) => Object.hasOwn(tools, this.state().tool)));

  dispatch(action: ReturnType<(typeof layoutActions)[keyof typeof layoutActions]>): void {
    this.store.dispatch(action);
  }

  /** Chooses the first tool of a family, unless one of it is chosen already. */
  choose(family: ToolFamily): void {
    const first = TOOL_COMMANDS.find(({ id }) => family.tools[id] !== undefined);
    if (first && family !== this.family()) this.dispatch(layoutActions.toolChosen({ tool: first.id }));
  }
}
