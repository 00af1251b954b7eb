#!/usr/bin/env node
// The command as npm links it. The program itself is built into cli/dist by "npm run build".
import { existsSync } from 'node:fs';

const program = new URL('../dist/periwinkle.mjs', import.meta.url);
if (existsSync(program)) {
  await import(program.href);
} else {
  process.stderr.write('periwinkle is not built yet: run "npm run build" first.\n');
  process.exitCode = 2;
}
