// Runs TypeScript programs of ours (benchmarks, pictures) by bundling each into one module first.
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { root } from './requirements.mjs';
import { shippedScriptsModule } from './shipped-scripts.mjs';

/** Runs the files one after another; gives the first exit status that is not 0. */
export async function runBundled(files) {
  const out = mkdtempSync(join(root, 'node_modules/.bundled-'));
  let status = 0;
  try {
    for (const file of files) {
      const outfile = join(out, basename(file).replace(/\.ts$/, '.mjs'));
      await build({
        entryPoints: [join(root, file)],
        outfile,
        bundle: true,
        platform: 'node',
        format: 'esm',
        packages: 'external',
        plugins: [shippedScriptsModule],
        tsconfig: join(root, 'tsconfig.json'),
        logLevel: 'warning',
      });
      status ||= spawnSync(process.execPath, [outfile], { cwd: root, stdio: 'inherit' }).status ?? 1;
    }
  } finally {
    rmSync(out, { recursive: true, force: true });
  }
  return status;
}
