import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { LayoutDesk } from '../editing/layout-desk';
import type { ToolFamily } from '../kinds/item-desk';
import { layoutActions } from '../store/layout-store';
import { TOOL_COMMANDS, keyOfTool } from '../store/layout-tools';
import { TOOL_FAMILIES } from './tool-families';
import { ToolButton } from '../../../ui/tool-button';
import { ToolOptions } from '../../../ui/tool-options';

/** The tools of the Layout desk, each with what it needs to know. */
@Component({
  selector: 'sv-layout-tools',
  imports: [NgComponentOutlet, ToolButton, ToolOptions],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './layout-tools.html',
  styleUrl: './layout-tools.scss',
})
export class LayoutTools {
  private readonly store = inject(Store);
  private readonly desk = inject(LayoutDesk);
  readonly state = this.desk.state;
  readonly families = TOOL_FAMILIES;
  readonly family = computed(() => TOOL_FAMILIES.find(({ tools }) => Object.hasOwn(tools, this.state().tool)));

  /** Key of the first tool of a family. */
  keyOf(family: ToolFamily): string {
    const first = TOOL_COMMANDS.find(({ id }) => family.tools[id] !== undefined);
    return first ? keyOfTool(first.id) : '';
  }

  /** Chooses the first tool of a family, unless one of it is chosen already. */
  choose(family: ToolFamily): void {
    const first = TOOL_COMMANDS.find(({ id }) => family.tools[id] !== undefined);
    if (first && family !== this.family()) this.store.dispatch(layoutActions.toolChosen({ tool: first.id }));
  }
}
