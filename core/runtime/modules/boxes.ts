export { boxes } from '../extras/boxes';
