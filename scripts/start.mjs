// "npm start": everything from a fresh checkout to the application's address.
import { startApplication } from './application.mjs';
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
      process.stderr.write('The database has ended. Start again; nothing that was stored is lost.\n');
    void end(1);
  });
  const status = await application.ended;
  await end(stopping ? 0 : status);
} catch (error) {
  if (!(error instanceof MissingRequirement)) throw error;
  if (error.message) process.stderr.write(`${error.message}\n`);
  process.exit(1);
}
