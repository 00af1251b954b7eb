import type { Plugin } from 'vite';

/** The modules that ship with every system, by name of the file. */
export function shippedScripts(): Record<string, { text: string; needs: string[] }>;

/** The same as a module that code asks for. */
export function shippedScriptsForVite(): Plugin;
