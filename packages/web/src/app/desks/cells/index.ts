export { CellsPage } from './cells-page';
