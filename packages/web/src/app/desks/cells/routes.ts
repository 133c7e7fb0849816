import type { Routes } from '@angular/router';
import { levelOrNone } from '../../desk/desk';
import { CellsPage } from './cells-page';

export const CELLS_ROUTES: Routes = [{ matcher: levelOrNone, component: CellsPage }];
