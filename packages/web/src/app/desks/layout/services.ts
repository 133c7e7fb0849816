import type { Provider } from '@angular/core';
import { Dialogs } from '../../ui/dialogs';
import { ArrangeDesk } from './arrange/arrange-desk';
import { RegionDesk } from './arrange/region-desk';
import { AssembliesDesk } from './kinds/assembly/assemblies-desk';
import { UseDesk } from './kinds/assembly/use-desk';
import { BlocksDesk } from './kinds/block/blocks-desk';
import { ContextEntries } from './selecting/context-entries';
import { ContentsDesk } from './selecting/contents-desk';
import { ContextDesk } from './context/context-desk';
import { GroupsDesk } from './groups/groups-desk';
import { LayoutDesk } from './editing/layout-desk';
import { LinksDesk } from './links/links-desk';
import { MasksDesk } from './kinds/mask/masks-desk';
import { OverviewDesk } from './overview/overview-desk';
import { PathsDesk } from './kinds/path/paths-desk';
import { PlanOverlays } from './plan-overlays';
import { ItemNames } from './editing/item-names';
import { ReplacePiece } from './kinds/placement/replace-piece';
import { PlanSurface } from './plan/plan-surface';
import { PlanTools } from './tools/plan-tools';
import { SelectDesk } from './selecting/select-desk';
import { StrataDesk } from './strata/strata-desk';
import { TilesDesk } from './kinds/tile-floor/tiles-desk';
import { WallsDesk } from './kinds/wall/walls-desk';

/** What the Layout desk does, made with its page and ended with it. */
export const LAYOUT_SERVICES: Provider[] = [
  Dialogs,
  ArrangeDesk,
  RegionDesk,
  AssembliesDesk,
  UseDesk,
  BlocksDesk,
  ContentsDesk,
  ContextDesk,
  ContextEntries,
  GroupsDesk,
  ItemNames,
  LayoutDesk,
  LinksDesk,
  MasksDesk,
  OverviewDesk,
  PathsDesk,
  PlanOverlays,
  PlanSurface,
  PlanTools,
  ReplacePiece,
  SelectDesk,
  StrataDesk,
  TilesDesk,
  WallsDesk,
];
