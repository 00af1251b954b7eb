// How the server is built: its main thread, and the threads that work for it.
import { fileURLToPath } from 'node:url';
import { shippedScriptsModule } from './shipped-scripts.mjs';

export const NODE_BUILD = {
  absWorkingDir: fileURLToPath(new URL('..', import.meta.url)),
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  sourcemap: true,
  logLevel: 'warning',
  tsconfig: 'tsconfig.json',
  plugins: [shippedScriptsModule],
};

export const SERVER_BUILD = {
  ...NODE_BUILD,
  entryPoints: { server: 'server/source/main.ts', worker: 'server/source/work/worker.ts' },
  outdir: 'server/dist',
  outExtension: { '.js': '.mjs' },
};
