import type { Routes } from '@angular/router';
import { DetailPage } from './detail-page';

export const DETAIL_ROUTES: Routes = [{ path: '', component: DetailPage }];
