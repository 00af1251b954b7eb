export { asking } from '../extras/asking';
