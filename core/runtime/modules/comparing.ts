export { COMPARING } from '../../behaviour/comparing-checks';
