export { SetsPage } from './sets-page';
export { RegisterPage } from './registers/register-page';
export { OrderPage } from './order/order-page';
export { WholePage } from './whole/whole-page';
