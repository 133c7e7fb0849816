import type { Routes } from '@angular/router';
import { BudgetPage } from './budget-page';

export const BUDGET_ROUTES: Routes = [{ path: '', component: BudgetPage }];
