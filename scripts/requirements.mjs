// Installs what is missing: npm packages, and as root on Debian the Debian packages. Otherwise says what to install.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync, utimesSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '');

/** A requirement that cannot be met; the message is one line that says what to do. */
export class MissingRequirement extends Error {}

/** Programs by the Debian package that brings them. */
const DEBIAN = { 'mariadb-server': 'mariadbd', chromium: 'chromium', 'chromium-driver': 'chromedriver' };

export function findProgram(name) {
  const folders = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/local/sbin'];
  return folders.map(folder => join(folder, name)).find(file => existsSync(file)) ?? null;
}

export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 19)) return;
  throw new MissingRequirement(`Node 20.19 or newer is needed; this is ${process.versions.node}.`);
}

/** Runs `npm ci` when packages are missing or older than the lock file. */
export function requirePackages() {
  const installed = join(root, 'node_modules/.package-lock.json');
  const lock = join(root, 'package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  say('Installing npm packages …');
  run(
    'npm',
    ['ci', '--no-audit', '--no-fund'],
    'npm could not install the packages; run "npm ci" to see why.',
  );
  const now = new Date();
  utimesSync(installed, now, now);
}

/** Installs Debian packages whose program is not there. */
export function requireDebian(...packages) {
  const missing = packages.filter(name => findProgram(DEBIAN[name]) === null);
  if (missing.length === 0) return;
  const list = missing.join(' ');
  if (process.getuid?.() !== 0 || findProgram('apt-get') === null) {
    throw new MissingRequirement(`Missing: ${list}. Install it first (on Debian: apt-get install ${list}).`);
  }
  say(`Installing ${list} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const failed = `apt-get could not install ${list}; install it by hand.`;
  run('apt-get', ['update', '-q'], failed, env);
  run('apt-get', ['install', '-y', '-q', '--no-install-recommends', ...missing], failed, env);
  stopPackagedServer(missing);
}

/** Debian may start its own MariaDB on installing; ours is private and the packaged one is not needed. */
function stopPackagedServer(missing) {
  if (missing.includes('mariadb-server') && existsSync('/run/mysqld/mysqld.pid')) {
    spawnSync('service', ['mariadb', 'stop'], { stdio: 'ignore' });
  }
}

function run(command, args, failed, env = process.env) {
  const result = spawnSync(command, args, {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'pipe'],
    encoding: 'utf8',
  });
  if (result.status === 0) return;
  process.stderr.write(`${result.stdout ?? ''}${result.stderr ?? ''}`.split('\n').slice(-15).join('\n'));
  throw new MissingRequirement(failed);
}

export function say(line) {
  process.stdout.write(`${line}\n`);
}

/** Newest change of anything below the given places, in ms. */
export function newestBelow(...places) {
  let newest = 0;
  const visit = path => {
    const state = statSync(path, { throwIfNoEntry: false });
    if (!state) return;
    if (!state.isDirectory()) {
      newest = Math.max(newest, state.mtimeMs);
      return;
    }
    for (const name of readdirSync(path))
      if (!['node_modules', 'dist'].includes(name)) visit(join(path, name));
  };
  places.forEach(place => visit(join(root, place)));
  return newest;
}

/** Builds unless what is built is newer than every source. */
export function requireBuild() {
  const parts = ['web/dist/index.html', 'server/dist/server.mjs', 'cli/dist/periwinkle.mjs'].map(path =>
    join(root, path),
  );
  const oldest = Math.min(...parts.map(path => statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0));
  if (oldest > newestBelow('core', 'server', 'web', 'cli', 'package-lock.json', 'tsconfig.json')) return;
  say('Building …');
  run(process.execPath, ['scripts/build.mjs'], 'The build failed; the lines above say why.');
}
