// "npm test": installs what is missing, then type check, lint, unit tests, browser tests; ends with the slowest files and one line over all.
// It leaves out what takes minutes; "--rest" (`npm run test:rest`) runs that, at the same numbers. Words after "--" narrow the tests to files
// whose path holds them, and leave the rest out. Both draw the same for the same code, since they decide whether a change lands. With "--deep"
// (`npm run test:deep`) random tests draw anew, which is how new differences are looked for, and more often, and all browser tests run in the
// oldest browser, too, that Debian has. "--turn 3" runs a part of that (`test-plan.mjs`).
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
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
import { planOf, TURNS } from './test-plan.mjs';

const SOURCES = ['core', 'protocol', 'server', 'web', 'cli', 'e2e', 'bench', 'scripts'];

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { deep: { type: 'boolean' }, rest: { type: 'boolean' }, turn: { type: 'string' } },
});
const turn = values.turn === undefined ? null : Number(values.turn);
const isDeep = values.deep === true || turn !== null;
if (turn !== null && !TURNS[turn - 1]) {
  process.stderr.write(`--turn takes a number from 1 to ${TURNS.length}.\n`);
  process.exit(2);
}
const { patterns, without } = planOf({ isDeep, isRest: values.rest === true, turn, words: positionals });
/** Whether all of the house is looked at, not some files alone. */
const isWhole = patterns.length === 0;
const draws = !isDeep && (isWhole || values.rest === true) ? 'the same' : 'anew';
let passed = 0;
let failed = 0;
const times = [];

/** What either holds or does not, and what it needs; each keeps what it has found out about files that have not changed. */
const CACHE = 'node_modules/.cache';
const CHECKS = [
  ['Types', 'typescript/bin/tsc', ['--noEmit', '--incremental', '--tsBuildInfoFile', `${CACHE}/types.json`]],
  ['Lint', 'eslint/bin/eslint.js', ['.']],
  [
    'Format',
    'prettier/bin/prettier.cjs',
    ['--check', '--log-level', 'warn', '--cache', '--cache-location', `${CACHE}/format.json`, '.'],
  ],
  ['Layers', 'dependency-cruiser/bin/dependency-cruise.mjs', SOURCES],
  ['Unused', 'knip/bin/knip.js', []],
];

/** Runs a check; what it says is shown in one piece, and only where it does not hold. */
async function check([words, script, args]) {
  const child = spawn(process.execPath, [join('node_modules', script), ...args], { cwd: root });
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', chunk => said.push(chunk));
  const [status] = await once(child, 'close');
  if (status === 0) passed++;
  else failed++;
  say(status === 0 ? `${words}: right` : `${words}:\n${Buffer.concat(said)}`);
}

/** Two at a time. */
async function checkAll() {
  const waiting = [...CHECKS];
  const next = async () => {
    for (let each = waiting.shift(); each; each = waiting.shift()) await check(each);
  };
  await Promise.all([next(), next()]);
}

/** Runs projects of the tests; a file that could not be run at all counts as one failure. */
function jest(words, projects, env, workers) {
  say(`${words} …`);
  const report = join(scratch, `${projects[0]}.json`);
  const args = [
    'node_modules/jest/bin/jest.js',
    // First: behind an option that takes several values they would be some of these.
    ...patterns.map(inRoot),
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
  spawnSync(process.execPath, args, {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, ...env },
  });
  try {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    passed += result.numPassedTests;
    failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
    for (const { name, startTime, endTime } of result.testResults)
      times.push({ name: relative(root, name), seconds: (endTime - startTime) / 1000 });
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
    await checkAll();
  }
  requireBuild();
  // What is thrown away need not outlive a power cut.
  database = await startDatabase(join(scratch, 'database'), {
    settings: [
      '--innodb-flush-log-at-trx-commit=0',
      '--innodb-flush-method=nosync',
      '--innodb-doublewrite=OFF',
    ],
  });
  const env = {
    PERIWINKLE_TEST_DATABASE_URL: database.url,
    ...(isDeep && { PERIWINKLE_DEPTH: 'deep' }),
    ...(draws === 'the same' && { PERIWINKLE_SEED: process.env.PERIWINKLE_SEED ?? '20261201' }),
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
const slowest = times.toSorted((a, b) => b.seconds - a.seconds).slice(0, 8);
if (slowest.length > 1)
  say(`Slowest: ${slowest.map(({ name, seconds }) => `${name} ${seconds.toFixed(0)} s`).join(', ')}`);
say(`${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
