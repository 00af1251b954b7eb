/** What every field's script needs. */
export { attachWith } from '../attach';
