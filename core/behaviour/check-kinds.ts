import { COMPARING } from './comparing-checks';
import { ALONE } from './validation';

/** Kinds of check that the machine knows. */
export const CHECK_KINDS: readonly string[] = [...Object.keys(ALONE), ...Object.keys(COMPARING), 'ask'];
