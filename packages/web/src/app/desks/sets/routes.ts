import type { Routes } from '@angular/router';

export const SETS_ROUTES: Routes = [
  { path: '', pathMatch: 'full', loadComponent: () => import('./sets-page').then(({ SetsPage }) => SetsPage) },
  { path: 'order', loadComponent: () => import('./order/order-page').then(({ OrderPage }) => OrderPage) },
  { path: 'whole', loadComponent: () => import('./whole/whole-page').then(({ WholePage }) => WholePage) },
  {
    path: 'register/:id',
    loadComponent: () => import('./registers/register-page').then(({ RegisterPage }) => RegisterPage),
  },
];
