export { comingParts } from '../extras/coming-parts';
