import type { Route, Routes } from '@angular/router';
import { ALL_DESKS } from './desks';
import { CollectionPage } from './shell/collection-page';
import { DeadAddress } from './shell/dead-address';

export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: 'Stravel',
    loadComponent: () => import('./start/start-page').then((m) => m.StartPage),
  },
  {
    path: 'c/:collection',
    component: CollectionPage,
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'sets' },
      ...ALL_DESKS.map(({ id, label, routes: loadChildren }): Route => ({
        path: id,
        title: `${label} · Stravel`,
        loadChildren,
      })),
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
