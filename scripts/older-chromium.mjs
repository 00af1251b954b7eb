// The oldest Chromium that Debian still has beside the one that is installed, unpacked into a folder of its own: what ships is tried on both.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root, say } from './requirements.mjs';

const PACKAGES = ['chromium', 'chromium-common', 'chromium-driver'];

/**
 * Its version and the folder that holds `chromium` and `chromedriver`; `null` where Debian has no other than the one that is installed, or
 * cannot be asked.
 */
export function olderChromium() {
  const version = olderVersion();
  if (version === null) return null;
  const folder = join(root, '.browsers', `chromium-${version}`);
  if (!existsSync(folder)) unpack(version, folder);
  return { version, folder };
}

/** Versions are listed from the newest to the oldest. */
function olderVersion() {
  const { stdout } = spawnSync('apt-cache', ['madison', 'chromium'], { encoding: 'utf8' });
  const versions = (stdout ?? '').split('\n').flatMap(line => line.split('|')[1]?.trim() ?? []);
  return versions.length > 1 && versions.at(-1) !== versions[0] ? versions.at(-1) : null;
}

function unpack(version, folder) {
  say(`Fetching Chromium ${version} …`);
  const fresh = `${folder}.new`;
  rmSync(fresh, { recursive: true, force: true });
  mkdirSync(fresh, { recursive: true });
  run('apt-get', ['download', '-q', ...PACKAGES.map(name => `${name}=${version}`)], fresh);
  for (const file of readdirSync(fresh)) run('dpkg', ['-x', file, 'root'], fresh);
  // The program finds what belongs to it beside itself.
  renameSync(join(fresh, 'root/usr/bin/chromedriver'), join(fresh, 'root/usr/lib/chromium/chromedriver'));
  renameSync(join(fresh, 'root/usr/lib/chromium'), folder);
  rmSync(fresh, { recursive: true, force: true });
}

function run(command, args, cwd) {
  const { status, stderr } = spawnSync(command, args, { cwd, encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} ${args.join(' ')}: ${stderr}`);
}
