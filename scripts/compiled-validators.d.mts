import type { Plugin } from 'vite';

/** Schemas compiled when the interface is built. */
export function compiledValidatorsForVite(): Plugin;
