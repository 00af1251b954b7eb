import express, { type Express } from 'express';
import helmet from 'helmet';
import { join } from 'node:path';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Config } from '../config';
import { fewAtOnce, fewOnAConnection } from '../admission/crowding';
import type { OpenDatabase } from '../storage/open-database';
import { EventTail } from './event-tail';
import { allowHosts, sameOriginWrites } from './guards';
import { problemResponses } from './problem';
import { apiRoutes } from './routes';
import { unknownPath } from './unknown-path';
import type { Workers } from '../worker/workers';

/** Puts the application together. It keeps no state: several may run on one database. */
export function createApp(config: Config, database: OpenDatabase, workers: Workers, logger: Logger): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(fewOnAConnection(QUOTAS.requestsAtOnce));
  app.use(pinoHttp({ logger, autoLogging: config.logLevel === 'debug' || config.logLevel === 'info' }));
  app.use(allowHosts(config.allowedHosts));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          workerSrc: ["'self'"],
          // Specimens are styled through constructed sheets; React writes style attributes for measures of the plate.
          styleSrc: ["'self'"],
          styleSrcAttr: ["'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          formAction: ["'self'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      // Served over plain HTTP on loopback by default.
      strictTransportSecurity: false,
    }),
  );
  app.use(sameOriginWrites, fewAtOnce(QUOTAS.answersAtOnce));
  app.use('/api', apiRoutes(database, workers, new EventTail(database.db), config.authorHeader), unknownPath);
  if (config.webFolder !== null) serveWeb(app, config.webFolder);
  app.use(unknownPath);
  app.use(problemResponses(logger));
  return app;
}

/** The built web application; every address of a screen gives the same page, which reads the address itself. */
function serveWeb(app: Express, folder: string): void {
  app.use(
    '/assets',
    express.static(join(folder, 'assets'), {
      immutable: true,
      maxAge: '1y',
      index: false,
      fallthrough: false,
    }),
  );
  app.use(express.static(folder, { index: false, maxAge: 0, etag: true }));
  app.get('/*path', (_, response) => void response.sendFile(join(folder, 'index.html')));
  app.get('/', (_, response) => void response.sendFile(join(folder, 'index.html')));
}
