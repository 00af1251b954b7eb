export { numbers } from '../extras/numbers';
