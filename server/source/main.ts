import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino, type Logger } from 'pino';
import { createApp } from './http/app';
import { ConfigError, readConfig, type Config } from './config';
import type { OpenDatabase } from './storage/open-database';
import { openDatabase, PACKET_BYTES, packetBytes } from './storage/database';
import { DatabaseError } from './storage/database-error';
import { loadDemo } from './storage/demo';
import { causeOf } from './http/problem';
import { printedAddress } from './http/printed-address';
import { latestSystems } from './storage/systems';
import { Workers } from './worker/workers';

/** One clear line, and an exit status that is not 0. */
function giveUp(line: string): never {
  process.stderr.write(`${line}\n`);
  process.exit(1);
}

async function main(): Promise<void> {
  const config = configOrGiveUp();
  const logger: Logger = pino({ level: config.logLevel });
  const migrations = fileURLToPath(new URL('../migrations', import.meta.url));
  const database = await openDatabase(config.databaseUrl, migrations).catch((error: unknown) => {
    if (error instanceof DatabaseError) giveUp(error.message);
    throw error;
  });
  const bytes = await packetBytes(database);
  if (bytes < PACKET_BYTES)
    logger.warn(
      { bytes },
      `max_allowed_packet of the database is small for large documents: set ${PACKET_BYTES}`,
    );
  if (config.demoFolder !== null) await loadDemo(database.db, config.demoFolder);
  const workers = new Workers(new URL('./worker.mjs', import.meta.url), config.databaseUrl, error =>
    logger.error(causeOf(error), 'a thread ended'),
  );
  for (const id of await latestSystems(database.db)) workers.makeReady(id);
  listen(config, database, workers, logger);
}

function configOrGiveUp(): Config {
  try {
    return readConfig(process.env);
  } catch (error) {
    if (error instanceof ConfigError) giveUp(error.message);
    throw error;
  }
}

function listen(config: Config, database: OpenDatabase, workers: Workers, logger: Logger): void {
  const server = createServer(createApp(config, database, workers, logger));
  // Who takes nothing of an answer for so long is gone; listeners hear from us more often.
  server.setTimeout(60_000);
  server.once('error', (error: NodeJS.ErrnoException) => {
    const taken = error.code === 'EADDRINUSE';
    giveUp(
      taken
        ? `Port ${config.port} is taken: set PERIWINKLE_PORT to another one.`
        : `The application cannot listen on ${config.host}:${config.port} (${error.code ?? error.message}).`,
    );
  });
  server.listen(config.port, config.host, () => {
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : config.port;
    const visited = printedAddress(config.host, port);
    // Whoever started us as a child says the address, once everything else is ready too.
    if (process.send) process.send({ port, address: visited });
    else process.stdout.write(`Periwinkle is at ${visited}\n`);
  });
  const stop = (): void => {
    server.close(
      () =>
        void workers
          .close()
          .then(database.close)
          .then(() => process.exit(0)),
    );
    server.closeAllConnections();
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  // Started as a child: without the parent nobody would ever stop us.
  process.once('disconnect', stop);
}

await main();
