export { moving } from '../extras/moving';
