import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'sets' },
  { path: 'sets', title: 'Sets · Stravel', loadComponent: () => import('./desks/sets').then((m) => m.SetsPage) },
  { path: '**', redirectTo: 'sets' },
];
