import type { Routes, UrlMatcher, UrlSegment } from '@angular/router';
import { CollectionPage } from './shell/collection-page';
import { DeadAddress } from './shell/dead-address';
import { StartPage } from './start/start-page';

/** A desk of one level, with or without the level in its address: one route, so that the page is made once. */
const ofLevel =
  (desk: string): UrlMatcher =>
  (segments) => {
    if (segments.length < 1 || segments.length > 2 || segments[0].path !== desk) return null;
    const posParams: Record<string, UrlSegment> = segments.length === 2 ? { id: segments[1] } : {};
    return { consumed: [...segments], posParams };
  };

export const routes: Routes = [
  { path: '', pathMatch: 'full', title: 'Stravel', component: StartPage },
  {
    path: 'c/:collection',
    component: CollectionPage,
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'sets' },
      { path: 'sets', title: 'Sets · Stravel', loadComponent: () => import('./desks/sets').then((m) => m.SetsPage) },
      {
        path: 'sets/order',
        title: 'Sets · Stravel',
        loadComponent: () => import('./desks/sets').then((m) => m.OrderPage),
      },
      {
        path: 'sets/whole',
        title: 'Sets · Stravel',
        loadComponent: () => import('./desks/sets').then((m) => m.WholePage),
      },
      {
        path: 'sets/register/:id',
        title: 'Sets · Stravel',
        loadComponent: () => import('./desks/sets').then((m) => m.RegisterPage),
      },
      {
        matcher: ofLevel('layout'),
        title: 'Layout · Stravel',
        loadComponent: () => import('./desks/layout').then((m) => m.LayoutPage),
      },
      {
        matcher: ofLevel('sections'),
        title: 'Sections · Stravel',
        loadComponent: () => import('./desks/sections').then((m) => m.SectionsPage),
      },
      {
        matcher: ofLevel('cells'),
        title: 'Cells · Stravel',
        loadComponent: () => import('./desks/cells').then((m) => m.CellsPage),
      },
      {
        path: 'detail',
        title: 'Detail · Stravel',
        loadComponent: () => import('./desks/detail').then((m) => m.DetailPage),
      },
      {
        matcher: ofLevel('sight'),
        title: 'Sight · Stravel',
        loadComponent: () => import('./desks/sight').then((m) => m.SightPage),
      },
      {
        path: 'budget',
        title: 'Budget · Stravel',
        loadComponent: () => import('./desks/budget').then((m) => m.BudgetPage),
      },
      { path: 'pack', title: 'Pack · Stravel', loadComponent: () => import('./desks/pack').then((m) => m.PackPage) },
      {
        path: 'findings',
        title: 'Findings · Stravel',
        loadComponent: () => import('./findings/findings-page').then((m) => m.FindingsPage),
      },
      {
        path: 'devices',
        title: 'Devices · Stravel',
        loadComponent: () => import('./devices/devices-page').then((m) => m.DevicesPage),
      },
      { path: '**', title: 'Stravel', component: DeadAddress },
    ],
  },
  { path: '**', title: 'Stravel', component: DeadAddress },
];
