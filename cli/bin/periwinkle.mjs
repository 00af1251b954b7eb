#!/usr/bin/env node
// The command as npm links it. The program itself lies in cli/dist; in a fresh checkout it is built at first use.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const program = new URL('../dist/periwinkle.mjs', import.meta.url);
const build = fileURLToPath(new URL('../../scripts/build.mjs', import.meta.url));
if (!existsSync(program)) {
  // Standard output is for answers alone.
  spawnSync(process.execPath, [build, 'cli'], { stdio: ['ignore', 2, 2] });
}
if (existsSync(program)) {
  await import(program.href);
} else {
  process.stderr.write('periwinkle could not be built: run "npm ci" in its folder first.\n');
  process.exitCode = 2;
}
