// "npm test": installs what is missing, then type check, lint, unit tests, browser tests; ends with one line over all.
// Words after "--" narrow the tests to files whose path holds them, and leave the rest out.
// The whole decides whether a change lands, so its random tests draw the same for the same code; with "--deep" (`npm run test:deep`) they draw
// anew, which is how new differences are looked for, and
// run in the oldest browser, too, that Debian has.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';
import { olderChromium } from './older-chromium.mjs';
import {
  MissingRequirement,
  requireBuild,
  requireDebian,
  requireNode,
  requirePackages,
  root,
  say,
} from './requirements.mjs';

const SOURCES = ['core', 'server', 'web', 'cli', 'e2e', 'bench', 'scripts'];

const isDeep = process.argv.includes('--deep');
const patterns = process.argv.slice(2).filter(word => word !== '--deep');
let passed = 0;
let failed = 0;

/** One step that either holds or does not. */
function step(words, command, args) {
  say(`${words} …`);
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit' });
  if (result.status === 0) passed++;
  else failed++;
}

/** Runs projects of the tests; a file that could not be run at all counts as one failure. */
function jest(words, projects, env, workers) {
  say(`${words} …`);
  const report = join(scratch, `${projects[0]}.json`);
  const args = [
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    ...projects,
    '--json',
    `--outputFile=${report}`,
    '--passWithNoTests',
    `--maxWorkers=${workers}`,
    // A machine with much else to do is slow, which is no fault.
    '--testTimeout=30000',
  ];
  spawnSync(process.execPath, [...args, ...patterns], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, ...env },
  });
  try {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    passed += result.numPassedTests;
    failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  } catch {
    failed++;
  }
}

const scratch = mkdtempSync(join(tmpdir(), 'periwinkle-test-'));
let database = null;
try {
  requireNode();
  requirePackages();
  requireDebian('mariadb-server', 'chromium', 'chromium-driver');
  if (patterns.length === 0) {
    step('Types', process.execPath, ['node_modules/typescript/bin/tsc', '--noEmit']);
    step('Lint', process.execPath, ['node_modules/eslint/bin/eslint.js', '.']);
    step('Layers', process.execPath, [
      'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
      ...SOURCES,
    ]);
    step('Unused', process.execPath, ['node_modules/knip/bin/knip.js']);
    step('Format', process.execPath, [
      'node_modules/prettier/bin/prettier.cjs',
      '--check',
      '--log-level',
      'warn',
      '.',
    ]);
  }
  requireBuild();
  database = await startDatabase(join(scratch, 'database'));
  const env = {
    PERIWINKLE_TEST_DATABASE_URL: database.url,
    ...(patterns.length === 0 && !isDeep && { PERIWINKLE_SEED: process.env.PERIWINKLE_SEED ?? '20261201' }),
  };
  jest('Unit tests', ['core', 'cli', 'server', 'web', 'scripts'], env, 2);
  jest('Browser tests', ['e2e'], env, 2);
  const older = isDeep ? olderChromium() : null;
  if (older)
    jest(
      `Browser tests on Chromium ${older.version}`,
      ['e2e'],
      { ...env, PERIWINKLE_CHROMIUM: older.folder },
      2,
    );
} catch (error) {
  failed++;
  process.stderr.write(`${error instanceof MissingRequirement ? error.message : error.stack}\n`);
} finally {
  await database?.stop();
  rmSync(scratch, { recursive: true, force: true, maxRetries: 5 });
}
say(`${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
