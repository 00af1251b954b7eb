export { holding } from '../extras/holding';
