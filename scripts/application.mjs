// Database and application together, as "npm start" and the tests run them.
import { fork } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { startDatabase, stopProcess } from './database.mjs';
import { MissingRequirement, root } from './requirements.mjs';

/** Where data lies unless said otherwise. */
export const dataFolder = process.env.PERIWINKLE_DATA ?? join(root, '.data');

/**
 * Starts the application, and the private database unless `PERIWINKLE_DATABASE_URL` names another. When any part fails,
 * what was started before it is stopped again. Returns the address, a promise of the end, and a function that stops all.
 */
export async function startApplication({ web = join(root, 'web/dist'), folder = dataFolder } = {}) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const mark = join(folder, 'running.json');
  await refuseSecond(mark);
  // Said before anything starts, so that a start at the same moment sees it.
  writeFileSync(mark, JSON.stringify({ pid: process.pid }));
  let database = null;
  let server = null;
  const stop = async () => {
    if (server) await stopProcess(server);
    if (database) await database.stop();
    rmSync(mark, { force: true });
  };
  try {
    const url = process.env.PERIWINKLE_DATABASE_URL;
    if (!url) database = await startDatabase(folder);
    server = fork(join(root, 'server/dist/server.mjs'), [], {
      env: {
        ...process.env,
        PERIWINKLE_DATABASE_URL: url ?? database.url,
        PERIWINKLE_WEB: web,
        PERIWINKLE_DEMO: process.env.PERIWINKLE_DEMO ?? join(root, 'demo/quayside'),
      },
      detached: true,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    const { port, address } = await listening(server);
    writeFileSync(
      mark,
      JSON.stringify({
        pid: process.pid,
        port,
        address,
        server: server.pid,
        database: database?.pid ?? null,
      }),
    );
    const ended = new Promise(resolve => server.once('exit', code => resolve(code ?? 1)));
    return { port, address, server, database, ended, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

function listening(server) {
  return new Promise((resolve, reject) => {
    server.once('message', resolve);
    // The application has said why on standard error.
    server.once('exit', () => reject(new MissingRequirement('')));
  });
}

/** A second start on the same data says where the first one is. */
async function refuseSecond(mark) {
  if (!existsSync(mark)) return;
  let running;
  try {
    running = JSON.parse(readFileSync(mark, 'utf8'));
  } catch {
    return;
  }
  if (running.pid === process.pid || !isStart(running.pid)) return;
  const where = running.address ? `at ${running.address}` : 'and still starting';
  throw new MissingRequirement(`Periwinkle is running already ${where} (process ${running.pid}).`);
}

function isStart(pid) {
  try {
    return /scripts\/(start|dev|test|bench|shots)\.mjs/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'));
  } catch {
    return false;
  }
}
