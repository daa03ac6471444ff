import compression from 'compression';
import { accountRoutes, longestArchive, longestBook, longestLongTakeBytes, longestTakeBytes, watchRoutes, type FileKind } from '@zelpit/contract';
import express, { type Express, type RequestHandler, type Router } from 'express';
import helmet from 'helmet';
import { randomBytes } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Pool } from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { DataSource } from 'typeorm';
import { AccountRepository } from '../accounts/account.repository';
import { serveAccount } from '../accounts/account.routes';
import { LinkRepository } from '../accounts/link.repository';
import { serveLinks, serveOutbox } from '../accounts/link.routes';
import { MailRepository } from '../accounts/mail.repository';
import { serveOwnStudios } from '../accounts/own-studios.routes';
import { Sessions, visitorOf } from '../accounts/session';
import { sessionAnswers } from '../accounts/session-answer';
import { serveSession } from '../accounts/session.routes';
import { serveStudio } from '../accounts/studio.routes';
import { Tries } from '../accounts/tries';
import { AuditRepository } from '../audit/audit.repository';
import { serveAudit } from '../audit/audit.routes';
import { BlobRepository } from '../blobs/blob.repository';
import type { Database } from '../database/database';
import { describeApi } from '../description/openapi';
import { doors } from '../http/doors';
import { respond, Endpoints } from '../http/endpoints';
import { KeptAnswers } from '../http/kept-answers';
import type { JobWorker } from '../jobs/job-worker';
import { problemHandler, HttpProblem, unknownRoute } from '../http/problem';
import { PutAwayRepository } from '../put-away/put-away.repository';
import { servePutAway } from '../put-away/put-away.routes';
import { things } from '../things/things';
import type { Readers } from '../tunes/readers';
import { allRoutes } from './all-routes';
import type { Config } from './config';
import type { Metrics } from './metrics';
import { Sealer } from './sealer';
import { StudioRoom } from './studio-room';
import { webFiles } from './web-files';

export interface AppParts {
  readonly config: Config;
  readonly dataSource: DataSource;
  /** The same, for repositories. */
  readonly database: Database;
  /** Connections for sessions, apart from those of the tables. */
  readonly pool: Pool;
  readonly logger: Logger;
  /** What reads tunes apart from the server's own thread. */
  readonly readers: Readers;
  /** What does long work. */
  readonly worker: JobWorker;
  /** Absent in tests that watch nothing. */
  readonly metrics?: Metrics;
}

const jsonLimit = 1_000_000;
const fileLimits: Readonly<Record<FileKind, number>> = {
  zip: longestArchive,
  sound: longestTakeBytes,
  'long-sound': longestLongTakeBytes,
  abc: longestBook,
  any: longestBook,
};
const fileLimit = (kind: FileKind): number => fileLimits[kind];

/** The whole server as one Express application, not yet listening. */
export function createApp({ config, dataSource, database, pool, logger, readers, worker, metrics }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  // Only a proxy that was named is believed; what it says of the visitor's address counts for the limit on sign-in.
  app.set('trust proxy', config.proxy ?? false);
  if (metrics !== undefined) app.use(metrics.time);
  app.use(requestLog(logger), headers(isHttps(config)), compression({ threshold: shortestCompressed }), doors(config));
  const sessions = new Sessions({ secret: config.sessionSecret, isSecure: isHttps(config) });
  const endpoints = assemble({ config, dataSource, database, readers, worker }, sessions);
  // Watchers ask without a session.
  app.use('/api', revalidated, endpoints.watched);
  const api = express.Router();
  api.use(sessions.middleware(pool), sessions.requireToken, endpoints.router, unknownRoute);
  app.use('/api', api);

  app.use(...pagePolicy());
  if (config.webRoot !== undefined) app.use(webFiles(config.webRoot));
  app.use(unknownRoute, problemHandler(logger));
  return app;
}

/** A browser may keep an answer for its own person, and asks each time whether it still holds (by its ETag). */
const revalidated: RequestHandler = (_request, response, next) => {
  response.setHeader('cache-control', 'private, no-cache');
  // An answer is no page: where one is opened as such, it may do nothing.
  response.setHeader('content-security-policy', "default-src 'none'; frame-ancestors 'none'");
  next();
};

/** Repositories and routes put together. */
function assemble(
  { config, dataSource, database, readers, worker }: Pick<AppParts, 'config' | 'dataSource' | 'database' | 'readers' | 'worker'>,
  sessions: Sessions,
): { readonly router: Router; readonly watched: Router } {
  const sealer = new Sealer(config.sessionSecret);
  const accounts = new AccountRepository(database);
  const audit = new AuditRepository(database);
  const room = new StudioRoom(database, config.studioBytes);
  const parts = { database, keptAnswers: new KeptAnswers(database, sealer), audit, room, visitorOf: visitorOf(accounts), jsonLimit, fileLimit };
  const endpoints = new Endpoints(parts);
  const answer = sessionAnswers(database, accounts, sessions, config);
  const account = {
    database,
    accounts,
    links: new LinkRepository(database),
    tries: new Tries(database),
    mail: new MailRepository(database, sealer),
    address: config.address,
  };
  serveSession(endpoints, accounts, account.tries, sessions, answer);
  serveStudio(endpoints, account, answer);
  endpoints.serve(accountRoutes.studioRoom, async ({ visitor: { studioId } }) => respond(200, await room.of(studioId)));
  serveOwnStudios(endpoints, accounts);
  serveLinks(endpoints, account, audit, answer);
  serveOutbox(endpoints, account, config.hasOutbox);
  serveAccount(endpoints, account);
  serveAudit(endpoints, audit);
  const blobs = new BlobRepository(database);
  for (const { serve } of things) serve(endpoints, { database, address: config.address, readers, sealer, blobs, worker });
  servePutAway(endpoints, new PutAwayRepository(database, things));
  return { router: endpoints.router, watched: watchedRoutes(new Endpoints(parts), dataSource) };
}

/** Whether the server lives and can work, and what its API is. */
function watchedRoutes(endpoints: Endpoints, dataSource: DataSource): Router {
  endpoints.serveAnyone(watchRoutes.health, async () => respond(200, { status: 'ok' }));
  endpoints.serveAnyone(watchRoutes.ready, async () => {
    if (!(await answersInTime(dataSource))) throw new HttpProblem('not-ready', 'The database does not answer.');
    return respond(200, { status: 'ready' });
  });
  const description = describeApi(allRoutes);
  endpoints.serveAnyone(watchRoutes.description, async () => respond(200, { ...description }));
  return endpoints.router;
}

/** Method, path, status and time: no bodies, cookies, addresses or queries of people. */
function requestLog(logger: Logger): RequestHandler {
  return pinoHttp({
    logger,
    autoLogging: { ignore: (request: IncomingMessage) => request.url === '/api/health' },
    serializers: {
      req: (request: { method: string; url: string }) => ({ method: request.method, path: request.url.split('?')[0] }),
      res: (response: { statusCode: number }) => ({ status: response.statusCode }),
      err: (error: { type: string; message: string; stack: string }) => ({ type: error.type, message: error.message, stack: error.stack }),
    },
    customLogLevel: (_request: IncomingMessage, response: ServerResponse) => (response.statusCode >= 500 ? 'error' : 'debug'),
  });
}

/** The one style element that abcjs 6.7.2 puts into every engraving, by its hash. */
const engraverStyle = "'sha256-BCpnf71gZdCsSCHDzyB1RsBbZ0qQdqseK6v+yJsgg30='";

/** Everything from this server only; inline styles only with the page's own nonce. */
function pagePolicy(): RequestHandler[] {
  const nonce: RequestHandler = (_request, response, next) => {
    response.locals['nonce'] = randomBytes(16).toString('base64');
    next();
  };
  const policy = helmet.contentSecurityPolicy({
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      baseUri: ["'self'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
      objectSrc: ["'none'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      scriptSrc: ["'self'"],
      scriptSrcAttr: ["'none'"],
      styleSrc: ["'self'", engraverStyle, (_request, response) => `'nonce-${(response as unknown as { locals: { nonce: string } }).locals.nonce}'`],
      styleSrcAttr: ["'unsafe-inline'"],
      workerSrc: ["'self'"],
      connectSrc: ["'self'"],
    },
  });
  return [nonce, policy];
}

/** What every answer says to a browser beside its content policy. */
function headers(isSecure: boolean): RequestHandler {
  return helmet({
    contentSecurityPolicy: false,
    strictTransportSecurity: isSecure && { maxAge: halfYear, includeSubDomains: false },
    referrerPolicy: { policy: 'same-origin' },
  });
}

/** Shorter answers go as they are, in bytes: packing them takes longer than sending. */
const shortestCompressed = 4096;

/** Seconds for which a browser asks for this name by https only. */
const halfYear = 180 * 24 * 3600;

const isHttps = ({ address }: Config): boolean => address?.startsWith('https:') === true;

const readyTimeoutMs = 2000;

async function answersInTime(dataSource: DataSource): Promise<boolean> {
  const timeout = new Promise<boolean>((resolve) => setTimeout(() => resolve(false), readyTimeoutMs).unref());
  const answer = dataSource.query('SELECT 1').then(
    () => true,
    () => false,
  );
  return Promise.race([answer, timeout]);
}
