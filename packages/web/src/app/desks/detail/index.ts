export { DetailPage } from './detail-page';
