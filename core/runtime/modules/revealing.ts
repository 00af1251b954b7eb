export { revealing } from '../extras/revealing';
