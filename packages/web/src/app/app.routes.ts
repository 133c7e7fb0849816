import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'sets' },
  { path: 'sets', title: 'Sets · Stravel', loadComponent: () => import('./desks/sets').then((m) => m.SetsPage) },
  { path: 'sets/order', title: 'Sets · Stravel', loadComponent: () => import('./desks/sets').then((m) => m.OrderPage) },
  { path: 'sets/whole', title: 'Sets · Stravel', loadComponent: () => import('./desks/sets').then((m) => m.WholePage) },
  { path: 'sets/register/:id', title: 'Sets · Stravel', loadComponent: () => import('./desks/sets').then((m) => m.RegisterPage) },
  { path: 'layout', title: 'Layout · Stravel', loadComponent: () => import('./desks/layout').then((m) => m.LayoutPage) },
  { path: 'layout/:id', title: 'Layout · Stravel', loadComponent: () => import('./desks/layout').then((m) => m.LayoutPage) },
  { path: 'sections', title: 'Sections · Stravel', loadComponent: () => import('./desks/sections').then((m) => m.SectionsPage) },
  { path: 'sections/:id', title: 'Sections · Stravel', loadComponent: () => import('./desks/sections').then((m) => m.SectionsPage) },
  { path: 'cells', title: 'Cells · Stravel', loadComponent: () => import('./desks/cells').then((m) => m.CellsPage) },
  { path: 'cells/:id', title: 'Cells · Stravel', loadComponent: () => import('./desks/cells').then((m) => m.CellsPage) },
  { path: 'detail', title: 'Detail · Stravel', loadComponent: () => import('./desks/detail').then((m) => m.DetailPage) },
  { path: 'sight', title: 'Sight · Stravel', loadComponent: () => import('./desks/sight').then((m) => m.SightPage) },
  { path: 'sight/:id', title: 'Sight · Stravel', loadComponent: () => import('./desks/sight').then((m) => m.SightPage) },
  { path: 'budget', title: 'Budget · Stravel', loadComponent: () => import('./desks/budget').then((m) => m.BudgetPage) },
  { path: 'pack', title: 'Pack · Stravel', loadComponent: () => import('./desks/pack').then((m) => m.PackPage) },
  { path: 'findings', title: 'Findings · Stravel', loadComponent: () => import('./findings/findings-page').then((m) => m.FindingsPage) },
  { path: '**', redirectTo: 'sets' },
];
