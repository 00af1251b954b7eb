// Database and application together, as "npm start" and the tests run them.
import { fork } from 'node:child_process';
import { accessSync, constants, mkdirSync, readFileSync, realpathSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { createHash } from 'node:crypto';
import { fullDisk, startDatabase, stopProcess } from './database.mjs';
import { MissingRequirement, root } from './requirements.mjs';

/** Where data lies unless said otherwise. */
export const dataFolder = resolve(process.env.PERIWINKLE_DATA || join(root, '.data'));

/**
 * Starts the application, and the private database unless `PERIWINKLE_DATABASE_URL` names another. When any part fails,
 * what was started before it is stopped again. Returns the address, a promise of the end, and a function that stops all.
 */
export async function startApplication({ web = join(root, 'web/dist'), folder = dataFolder } = {}) {
  requireFolder(folder);
  const mark = join(folder, 'running.json');
  const claim = await claimed(folder, mark);
  let database = null;
  let server = null;
  const stop = async () => {
    if (server) await stopProcess(server);
    if (database) await database.stop();
    rmSync(mark, { force: true });
    claim.close();
  };
  try {
    const url = process.env.PERIWINKLE_DATABASE_URL;
    if (!url) database = await startDatabase(folder);
    server = fork(join(root, 'server/dist/server.mjs'), [], {
      env: {
        // The C library would keep for each thread what large requests have left.
        MALLOC_ARENA_MAX: '1',
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
    const full = fullDisk(folder);
    throw full === null ? error : new MissingRequirement(full);
  }
}

/** A folder for data that can be written. Throws `MissingRequirement` with what to do. */
function requireFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch (error) {
    throw new MissingRequirement(
      `The data folder “${folder}” cannot be used (${error.code}): set PERIWINKLE_DATA to a folder that can be written.`,
    );
  }
}

function listening(server) {
  return new Promise((resolve, reject) => {
    server.once('message', resolve);
    // The application has said why on standard error.
    server.once('exit', () => reject(new MissingRequirement('')));
  });
}

/**
 * Claims a data folder for this process, so that of several starts at one moment one goes on, and the others say where it is. The claim is a
 * socket without a file (unix(7), abstract): it ends with the process, however that ends.
 */
function claimed(folder, mark) {
  const name = createHash('sha256').update(realpathSync(folder)).digest('hex').slice(0, 32);
  const claim = createServer(socket => socket.destroy());
  claim.unref();
  return new Promise((done, refuse) => {
    claim.once('error', error => refuse(error.code === 'EADDRINUSE' ? runsAlready(mark) : error));
    claim.listen(`\0periwinkle-${name}`, () => done(claim));
  });
}

function runsAlready(mark) {
  let running = {};
  try {
    running = JSON.parse(readFileSync(mark, 'utf8'));
  } catch {
    // It says where it is once it answers.
  }
  const { address, pid } = running ?? {};
  const where = address ? `at ${address} (process ${pid})` : 'and still starting';
  return new MissingRequirement(`Periwinkle is running already ${where}.`);
}
