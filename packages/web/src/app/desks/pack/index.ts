export { PackPage } from './pack-page';
