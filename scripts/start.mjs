// "npm start": everything from a fresh checkout to the application's address.
import { dataFolder, startApplication } from './application.mjs';
import { fullDisk } from './database.mjs';
import {
  MissingRequirement,
  requireBuild,
  requireDebian,
  requireNode,
  requirePackages,
  say,
} from './requirements.mjs';

let application = null;
let stopping = false;

async function end(status) {
  if (stopping) return;
  stopping = true;
  await application?.stop();
  process.exit(status);
}

// A signal while starting ends the start once what is under way can be stopped.
let asked = false;
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, () => {
    asked = true;
    if (application) void end(0);
  });
}

/** What the system said of a file that could not be read or written, on one line; `null` of any other error. */
function fileTrouble({ code, path, syscall }) {
  if (code === undefined || syscall === undefined) return null;
  return code === 'ENOSPC'
    ? `The disk is full: “${path ?? dataFolder}” could not be written. Make room, then start again.`
    : `“${path ?? dataFolder}” cannot be used (${code}, ${syscall}): mend that, or set PERIWINKLE_DATA to another folder.`;
}

try {
  requireNode();
  requirePackages();
  if (!process.env.PERIWINKLE_DATABASE_URL) requireDebian('mariadb-server');
  requireBuild();
  application = await startApplication();
  if (asked) await end(0);
  say(`Periwinkle is at ${application.address}`);
  void application.database?.exited.then(() => {
    if (!stopping)
      process.stderr.write(
        `${fullDisk(dataFolder) ?? 'The database has ended. Start again; nothing that was stored is lost.'}\n`,
      );
    void end(1);
  });
  const status = await application.ended;
  await end(stopping ? 0 : status);
} catch (error) {
  const line = error instanceof MissingRequirement ? error.message : fileTrouble(error);
  if (line === null) throw error;
  if (line) process.stderr.write(`${line}\n`);
  process.exit(1);
}
