import { inject, type ApplicationConfig } from '@angular/core';
import { provideRouter, withComponentInputBinding, withNavigationErrorHandler } from '@angular/router';
import { provideStore } from '@ngrx/store';
import { PageAge } from './api/page-age';
import { startMirror, startWorker } from './compute/start-worker';
import { MIRROR_FACTORY, WORKER_FACTORY } from './compute/worker-factory';
import { routes } from './app.routes';
import { bakesFeature } from './bakes/bakes-store';
import { DESKS } from './desk/desk';
import { ALL_DESKS } from './desks';
import { budgetFeature } from './desks/budget/store/budget-store';
import { cellsFeature } from './desks/cells/store/cells-store';
import { detailFeature } from './desks/detail/store/detail-store';
import { layoutFeature } from './desks/layout/store/layout-store';
import { packFeature } from './desks/pack/store/pack-store';
import { sectionsFeature } from './desks/sections/store/sections-store';
import { sightFeature } from './desks/sight/store/sight-store';
import { setsFeature } from './desks/sets/store/sets-store';
import { levelViewsFeature } from './plate/level-views-store';
import { recordsFeature } from './document/records/records-store';

export const appConfig: ApplicationConfig = {
  providers: [
    { provide: DESKS, useValue: ALL_DESKS },
    { provide: WORKER_FACTORY, useValue: startWorker },
    { provide: MIRROR_FACTORY, useValue: startMirror },
    provideRouter(
      routes,
      withComponentInputBinding(),
      withNavigationErrorHandler(({ error }) => inject(PageAge).hearError(error)),
    ),
    provideStore({
      [recordsFeature.name]: recordsFeature.reducer,
      [sightFeature.name]: sightFeature.reducer,
      [budgetFeature.name]: budgetFeature.reducer,
      [setsFeature.name]: setsFeature.reducer,
      [layoutFeature.name]: layoutFeature.reducer,
      [sectionsFeature.name]: sectionsFeature.reducer,
      [cellsFeature.name]: cellsFeature.reducer,
      [detailFeature.name]: detailFeature.reducer,
      [packFeature.name]: packFeature.reducer,
      [levelViewsFeature.name]: levelViewsFeature.reducer,
      [bakesFeature.name]: bakesFeature.reducer,
    }),
  ],
};
