import type { Routes } from '@angular/router';
import { PackPage } from './pack-page';

export const PACK_ROUTES: Routes = [{ path: '', component: PackPage }];
