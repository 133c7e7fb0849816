export { SightPage } from './sight-page';
