export { SetsPage } from './sets-page';
