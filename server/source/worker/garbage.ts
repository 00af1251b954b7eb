import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

setFlagsFromString('--expose-gc');
const gc = runInNewContext('gc') as (options: { execution: 'async' }) => void;

/** Gives back what large requests have left: a process that has little to do would keep it for long. */
export const collectGarbage = (): void => gc({ execution: 'async' });
