import type { Type } from '@angular/core';
import type { Routes } from '@angular/router';
import { PackPage } from './pack-page';

/** It draws a level: what it needs for that is fetched with it alone. */
const loadComponent = async (): Promise<Type<unknown>> => (await import('./walk/walk-page')).WalkPage;

export const PACK_ROUTES: Routes = [
  { path: '', component: PackPage },
  { path: 'walk', loadComponent },
  { path: 'walk/:level', loadComponent },
];
