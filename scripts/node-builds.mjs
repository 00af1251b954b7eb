// How what runs in Node is built: the command line, the server and the threads that work for it.
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { compiledValidators } from './compiled-validators.mjs';
import { shippedScriptsModule } from './shipped-scripts.mjs';

const server = JSON.parse(readFileSync(new URL('../server/package.json', import.meta.url), 'utf8'));

/** One file with all that the core needs is read several times faster than a tree of packages. */
export const ONE_FILE = {
  absWorkingDir: fileURLToPath(new URL('..', import.meta.url)),
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'bundle',
  // The form in which its tables are part of the code.
  alias: { 'css-tree': 'css-tree/dist/csstree.esm' },
  mainFields: ['module', 'main'],
  sourcemap: true,
  logLevel: 'warning',
  tsconfig: 'tsconfig.json',
  plugins: [compiledValidators, shippedScriptsModule],
};

export const SERVER_BUILD = {
  ...ONE_FILE,
  entryPoints: { server: 'server/source/main.ts', worker: 'server/source/worker/worker.ts' },
  external: Object.keys(server.dependencies),
  outdir: 'server/dist',
  outExtension: { '.js': '.mjs' },
};
