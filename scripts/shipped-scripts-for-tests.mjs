import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

// What `periwinkle:shipped` is where tests run: bundled by another process, since test runners change how modules are found.
const bundler = pathToFileURL(join(process.cwd(), 'scripts/shipped-scripts.mjs')).href;
const script = `import(${JSON.stringify(bundler)}).then(({ shippedScripts }) => process.stdout.write(JSON.stringify(shippedScripts())))`;

export const SCRIPTS = JSON.parse(
  execFileSync(process.execPath, ['-e', script], { maxBuffer: 1e8, encoding: 'utf8' }),
);
