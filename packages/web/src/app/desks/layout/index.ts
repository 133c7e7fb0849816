export { LayoutPage } from './layout-page';
