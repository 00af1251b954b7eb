export { inForm } from '../extras/form';
