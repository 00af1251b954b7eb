// "npm test": installs what is missing, then type check, lint, unit tests, browser tests; ends with one line over all.
// Words after "--" narrow the tests to files whose path holds them, and leave the rest out.
// The whole decides whether a change lands, so its random tests draw the same for the same code. With "--deep" (`npm run test:deep`) they draw
// anew, which is how new differences are looked for, and more often; what needs minutes runs as well, and all of it in the oldest
// browser, too, that Debian has. "--turn 3" runs a part of that (`test-plan.mjs`).
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
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
import { IN_DEPTH_ONLY, turnOf, TURNS } from './test-plan.mjs';

const SOURCES = ['core', 'server', 'web', 'cli', 'e2e', 'bench', 'scripts'];

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { deep: { type: 'boolean' }, turn: { type: 'string' } },
});
const turn = values.turn === undefined ? null : Number(values.turn);
const isDeep = values.deep === true || turn !== null;
if (turn !== null && !TURNS[turn - 1]) {
  process.stderr.write(`--turn takes a number from 1 to ${TURNS.length}.\n`);
  process.exit(2);
}
const { patterns, without } =
  turn !== null
    ? turnOf(turn)
    : { patterns: positionals, without: isDeep || positionals.length > 0 ? [] : IN_DEPTH_ONLY };
/** Whether all of the house is looked at, not some files alone. */
const isWhole = patterns.length === 0;
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
    ...(without.length > 0 ? [`--testPathIgnorePatterns=${without.map(inRoot).join('|')}`] : []),
  ];
  spawnSync(process.execPath, [...args, ...patterns.map(inRoot)], {
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

/** A data folder after a first start and its end, to be copied; `null` where there is none to be had: then each test begins with nothing. */
async function begunFolder(folder) {
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: root,
    env: { ...process.env, PERIWINKLE_DATA: folder, PERIWINKLE_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const ended = once(child, 'close');
  child.stdout.on('data', text => {
    if (String(text).includes('Periwinkle is at')) child.kill('SIGINT');
  });
  const [status] = await ended;
  return status === 0 ? folder : null;
}

/** Paths are meant from the root: `web/` is no folder further in. */
const inRoot = path => (/^[a-z0-9]+\//.test(path) ? join(root, path) : path);

const scratch = mkdtempSync(join(tmpdir(), 'periwinkle-test-'));
let database = null;
try {
  requireNode();
  requirePackages();
  requireDebian('mariadb-server', 'chromium', 'chromium-driver');
  if (isWhole) {
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
    ...(isDeep && { PERIWINKLE_DEPTH: 'deep' }),
    ...(isWhole && !isDeep && { PERIWINKLE_SEED: process.env.PERIWINKLE_SEED ?? '20261201' }),
  };
  jest('Unit tests', ['core', 'cli', 'server', 'web', 'scripts'], env, 2);
  const begun = await begunFolder(join(scratch, 'begun'));
  if (begun !== null) env.PERIWINKLE_BEGUN = begun;
  jest('Browser tests', ['e2e'], env, 2);
  const older = isDeep && isWhole ? olderChromium() : null;
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
