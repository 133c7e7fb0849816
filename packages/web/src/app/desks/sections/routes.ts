import type { Routes } from '@angular/router';
import { levelOrNone } from '../../desk/desk';
import { SectionsPage } from './sections-page';

export const SECTIONS_ROUTES: Routes = [{ matcher: levelOrNone, component: SectionsPage }];
