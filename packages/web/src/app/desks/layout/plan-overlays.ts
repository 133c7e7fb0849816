import { Injectable, computed, inject } from '@angular/core';
import { OpenLevel } from '../../document/level/open-level';
import type { PlateDrawing } from '../../plate/plate-drawing';
import { ContextDesk } from './context/context-desk';
import { drawContext } from './context/context-drawing';
import { MasksDesk } from './kinds/mask/masks-desk';
import { drawSurvey } from './kinds/mask/survey-drawing';
import { OverviewDesk } from './overview/overview-desk';
import { drawOverview } from './overview/overview-drawing';
import { PathsDesk } from './kinds/path/paths-desk';
import { drawDistanceShade } from './kinds/path/shade-drawing';
import { TilesDesk } from './kinds/tile-floor/tiles-desk';
import { drawWay } from './kinds/tile-floor/way-drawing';

/** What was asked of a level, drawn over it: density, other levels, distances, a mask's survey, a way over tile floors. */
@Injectable()
export class PlanOverlays {
  private readonly openLevel = inject(OpenLevel);
  private readonly overview = inject(OverviewDesk);
  private readonly context = inject(ContextDesk);
  private readonly paths = inject(PathsDesk);
  private readonly masks = inject(MasksDesk);
  private readonly tiles = inject(TilesDesk);

  /** A new function whenever any of it changes. */
  readonly draw = computed(() => {
    const overview = this.overview.shown();
    const others = this.context.strata();
    const pieces = this.openLevel.pieces();
    const distances = this.paths.shade();
    const survey = this.masks.shown()?.survey;
    const solved = this.tiles.solved();
    const step = this.tiles.step();
    return (drawing: PlateDrawing): void => {
      if (overview) drawOverview(drawing, overview);
      if (others.length > 0) drawContext(drawing, others, pieces);
      if (solved) drawWay(drawing, solved, step);
      if (distances) drawDistanceShade(drawing, distances);
      if (survey) drawSurvey(drawing, survey);
    };
  });
}
