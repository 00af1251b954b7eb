export { nestedButtons } from '../extras/nested-buttons';
