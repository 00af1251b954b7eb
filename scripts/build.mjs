// Builds everything that runs: the web application, the server and the command line.
import { build } from 'esbuild';
import { build as buildWeb } from 'vite';
import { fileURLToPath } from 'node:url';
import { ONE_FILE, SERVER_BUILD } from './node-builds.mjs';

// Whoever calls this may have another setting, as test runners do; what is built is what people use.
process.env.NODE_ENV = 'production';

const root = fileURLToPath(new URL('..', import.meta.url));
const only = process.argv.slice(2);
const wanted = name => only.length === 0 || only.includes(name);

if (wanted('cli')) {
  await build({
    ...ONE_FILE,
    minify: true,
    banner: {
      js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
    },
    entryPoints: { periwinkle: 'cli/source/main.ts' },
    outdir: 'cli/dist',
    outExtension: { '.js': '.mjs' },
  });
}
if (wanted('server')) await build(SERVER_BUILD);
if (wanted('web')) await buildWeb({ configFile: `${root}web/vite.config.ts`, logLevel: 'warn' });
