export { BudgetPage } from './budget-page';
