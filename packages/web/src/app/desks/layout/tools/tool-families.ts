import { Injector, inject, runInInjectionContext } from '@angular/core';
import type { ItemKind } from '@stravel/core';
import { RegionDesk } from '../arrange/region-desk';
import { LayoutDesk } from '../editing/layout-desk';
import { ITEM_DESKS, itemDesk } from '../kinds';
import type { ToolFamily } from '../kinds/item-desk';
import { RegionGesture } from '../plan/drags';
import type { Gesture } from '../plan/gesture';
import type { Grips } from '../plan/grips';
import { LevelView } from '../../../plate/level-view';
import { PlanSurface } from '../plan/plan-surface';
import { RuleGesture } from '../plan/rule-gesture';
import { SelectGesture } from './select-gesture';

function selecting(): Gesture {
  const injector = inject(Injector);
  const made = new Map<ItemKind, Grips | undefined>();
  return new SelectGesture(inject(LayoutDesk), inject(PlanSurface), (kind) => {
    const { grips } = itemDesk(kind);
    if (!made.has(kind)) made.set(kind, grips && runInInjectionContext(injector, grips));
    return made.get(kind);
  });
}

function movingRegions(): Gesture {
  const regions = inject(RegionDesk);
  return new RegionGesture((from, to) => void regions.move(from, to));
}

function measuring(): Gesture {
  const [desk, range] = [inject(LayoutDesk), inject(LevelView).range];
  return new RuleGesture(([x, z]) => desk.plate()?.surfaceBelow([x, range().top, z], new Set()));
}

/** All tools as they stand in the tool line: those of the kinds between what is done with any of them. */
export const TOOL_FAMILIES: readonly ToolFamily[] = [
  {
    label: 'select',
    hint: 'click selects, a drag draws a box or moves what is selected, Shift adds',
    tools: { select: selecting },
  },
  ...Object.values(ITEM_DESKS).flatMap(({ tools }) => tools ?? []),
  { label: 'region', hint: 'drag around what should move together', tools: { region: movingRegions } },
  { label: 'rule', hint: 'drag between two points', tools: { rule: measuring } },
];
