// "npm run bench": runs the benchmarks in bench/, each of which prints ratios measured within one run.
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { requireBuild, requireDebian, requirePackages, root } from './requirements.mjs';

requirePackages();
requireDebian('mariadb-server', 'chromium', 'chromium-driver');
requireBuild();
const wanted = process.argv.slice(2);
const names = readdirSync(join(root, 'bench')).filter(
  name => name.endsWith('.bench.ts') && wanted.every(word => name.includes(word)),
);
const out = mkdtempSync(join(root, 'node_modules/.bench-'));
let status = 0;
try {
  for (const name of names) {
    const file = join(out, name.replace(/\.ts$/, '.mjs'));
    await build({
      entryPoints: [join(root, 'bench', name)],
      outfile: file,
      bundle: true,
      platform: 'node',
      format: 'esm',
      packages: 'external',
      tsconfig: join(root, 'tsconfig.json'),
      logLevel: 'warning',
    });
    status ||= spawnSync(process.execPath, [file], { cwd: root, stdio: 'inherit' }).status ?? 1;
  }
} finally {
  rmSync(out, { recursive: true, force: true });
}
process.exitCode = status;
