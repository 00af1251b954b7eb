// "npm run bench": runs the benchmarks in bench/, each of which prints ratios measured within one run. Words narrow them.
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { requireBuild, requireDebian, requirePackages, root } from './requirements.mjs';

requirePackages();
requireDebian('mariadb-server', 'chromium', 'chromium-driver');
requireBuild();
const { runBundled } = await import('./run-bundled.mjs');
const wanted = process.argv.slice(2);
const names = readdirSync(join(root, 'bench')).filter(
  name => name.endsWith('.bench.ts') && wanted.every(word => name.includes(word)),
);
process.exitCode = await runBundled(names.map(name => `bench/${name}`));
