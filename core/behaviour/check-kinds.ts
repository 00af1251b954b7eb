import { COMPARING } from './comparing';
import { ALONE } from './judging';

/** Kinds of check that the machine knows. */
export const CHECK_KINDS: readonly string[] = [...Object.keys(ALONE), ...Object.keys(COMPARING), 'ask'];
