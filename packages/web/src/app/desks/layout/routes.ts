import type { Routes } from '@angular/router';
import { levelOrNone } from '../../desk/desk';
import { LayoutPage } from './layout-page';

export const LAYOUT_ROUTES: Routes = [{ matcher: levelOrNone, component: LayoutPage }];
