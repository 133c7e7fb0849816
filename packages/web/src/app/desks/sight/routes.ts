import type { Routes } from '@angular/router';
import { levelOrNone } from '../../desk/desk';
import { SightPage } from './sight-page';

export const SIGHT_ROUTES: Routes = [{ matcher: levelOrNone, component: SightPage }];
