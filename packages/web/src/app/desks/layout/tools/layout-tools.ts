import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { MARKER_KINDS, PATH_FORMS, VOLUME_FORMS } from '@stravel/core';
import { PlateControls } from '../../../plate/plate-controls';
import { NumberField } from '../../../ui/number-field';
import { MasksDesk } from '../kinds/mask/masks-desk';
import { LayoutDesk } from '../editing/layout-desk';
import { BLOCK_TOOLS, SNAP_TARGETS, layoutActions, type LayoutTool } from '../store/layout-store';
import { kindGroups } from '../kinds/own-values/item-kinds';

const SNAPS = [0, 0.05, 0.1, 0.125, 0.25, 0.5, 1, 2, 4];
/** Tools as they stand in the bar; all that make blocks are one. */
const FAMILIES = ['select', 'block', 'piece', 'marker', 'volume', 'path', 'tiles', 'mask', 'region'] as const;

/** The tools of the Layout desk, each with what it needs to know. */
@Component({
  selector: 'sv-layout-tools',
  imports: [MatMenuModule, NumberField, PlateControls],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './layout-tools.html',
  styleUrl: './layout-tools.scss',
  host: { role: 'toolbar', 'aria-label': 'Layout tools' },
})
export class LayoutTools {
  private readonly store = inject(Store);
  readonly desk = inject(LayoutDesk);
  readonly masks = inject(MasksDesk);
  readonly state = this.desk.state;
  readonly actions = layoutActions;
  readonly families = FAMILIES;
  readonly snaps = SNAPS;
  readonly snapTargets = SNAP_TARGETS;
  readonly blockTools = BLOCK_TOOLS;
  readonly markerKinds = MARKER_KINDS;
  readonly volumeForms = VOLUME_FORMS;
  readonly pathForms = PATH_FORMS;
  readonly volumeKinds = computed(() => kindGroups(this.desk.tables(), 'volume'));
  readonly family = computed(() =>
    (BLOCK_TOOLS as readonly string[]).includes(this.state().tool) ? 'block' : this.state().tool,
  );
  readonly hint = computed(() =>
    this.state().tool === 'piece'
      ? 'choose a piece below, then click where it stands'
      : 'click selects, a drag draws a box or moves what is selected, Shift adds',
  );
  readonly hasHeight = computed(
    () => this.family() === 'block' || (this.state().tool === 'volume' && this.state().volumeForm !== 'sphere'),
  );
  dispatch(action: ReturnType<(typeof layoutActions)[keyof typeof layoutActions]>): void {
    this.store.dispatch(action);
  }

  choose(family: (typeof FAMILIES)[number]): void {
    const tool: LayoutTool = family === 'block' ? 'box' : family;
    if (family !== this.family()) this.dispatch(layoutActions.toolChosen({ tool }));
  }
}
