import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'sets' },
  { path: 'sets', title: 'Sets · Stravel', loadComponent: () => import('./desks/sets').then((m) => m.SetsPage) },
  { path: 'layout', title: 'Layout · Stravel', loadComponent: () => import('./desks/layout').then((m) => m.LayoutPage) },
  { path: 'layout/:id', title: 'Layout · Stravel', loadComponent: () => import('./desks/layout').then((m) => m.LayoutPage) },
  { path: 'sight', title: 'Sight · Stravel', loadComponent: () => import('./desks/sight').then((m) => m.SightPage) },
  { path: 'sight/:id', title: 'Sight · Stravel', loadComponent: () => import('./desks/sight').then((m) => m.SightPage) },
  { path: 'budget', title: 'Budget · Stravel', loadComponent: () => import('./desks/budget').then((m) => m.BudgetPage) },
  { path: 'findings', title: 'Findings · Stravel', loadComponent: () => import('./findings/findings-page').then((m) => m.FindingsPage) },
  { path: '**', redirectTo: 'sets' },
];
