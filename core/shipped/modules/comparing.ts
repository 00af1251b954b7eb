export { COMPARING } from '../../behaviour/comparing';
