export { SectionsPage } from './sections-page';
