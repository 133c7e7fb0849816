import type { ApplicationConfig } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideStore } from '@ngrx/store';
import { routes } from './app.routes';
import { setsFeature } from './desks/sets/store/sets-store';
import { recordsFeature } from './document/records/records-store';

export const appConfig: ApplicationConfig = {
  providers: [provideRouter(routes, withComponentInputBinding()), provideStore({ [recordsFeature.name]: recordsFeature.reducer, [setsFeature.name]: setsFeature.reducer })],
};
