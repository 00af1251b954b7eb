export { taking } from '../extras/taking';
