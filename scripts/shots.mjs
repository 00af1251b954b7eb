// "npm run shots": takes the pictures in docs/screenshots anew.
import { requireBuild, requireDebian, requirePackages } from './requirements.mjs';

requirePackages();
requireDebian('mariadb-server', 'chromium', 'chromium-driver');
requireBuild();
const { runBundled } = await import('./run-bundled.mjs');
process.exitCode = await runBundled(['e2e/screenshots.ts']);
