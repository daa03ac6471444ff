import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { randomBytes } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Pool } from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { DataSource } from 'typeorm';
import { AccountRepository } from '../accounts/account.repository';
import { accountRoutes } from '../accounts/account.routes';
import { requireSignIn, requireToken, sessions } from '../accounts/session';
import { sessionRoutes } from '../accounts/session.routes';
import { expectJson, problemHandler, HttpProblem, unknownRoute } from '../http/problem';
import { PutAwayRepository } from '../put-away/put-away.repository';
import { putAwayRoutes } from '../put-away/put-away.routes';
import { SheetRepository } from '../sheets/sheet.repository';
import { sheetRoutes } from '../sheets/sheet.routes';
import { StudentRepository } from '../students/student.repository';
import { studentRoutes } from '../students/student.routes';
import { TuneRepository } from '../tunes/tune.repository';
import { tuneRoutes } from '../tunes/tune.routes';
import type { Config } from './config';
import type { Metrics } from './metrics';
import { webFiles } from './web-files';

export interface AppParts {
  readonly config: Config;
  readonly dataSource: DataSource;
  /** Connections for sessions, apart from those of the tables. */
  readonly pool: Pool;
  readonly logger: Logger;
  /** Absent in tests that watch nothing. */
  readonly metrics?: Metrics;
}

const jsonLimit = '300kb';

/** The whole server as one Express application, not yet listening. */
export function createApp({ config, dataSource, pool, logger, metrics }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  // A reverse proxy on the same computer may stand in front; what it says of the visitor's address counts for the limit on sign-in.
  app.set('trust proxy', 'loopback');
  if (metrics !== undefined) app.use(metrics.time);
  app.use(requestLog(logger), contentPolicy(), compression());
  app.get('/api/health', (_request, response) => {
    response.json({ status: 'ok' });
  });
  app.get('/api/ready', async (_request, response) => {
    if (!(await answersInTime(dataSource))) throw new HttpProblem(503, 'Not ready', 'The database does not answer.');
    response.json({ status: 'ready' });
  });

  const students = new StudentRepository(dataSource);
  const tunes = new TuneRepository(dataSource);
  const api = express.Router();
  api.use(noStore, sessions(pool, config.sessionSecret), requireToken, express.json({ limit: jsonLimit, type: 'application/json' }), expectJson);
  const accounts = new AccountRepository(dataSource);
  api.use(sessionRoutes(accounts, config.isDemo));
  api.use(requireSignIn(accounts));
  api.use(accountRoutes(accounts));
  api.use(studentRoutes(students), tuneRoutes(tunes), sheetRoutes(new SheetRepository(dataSource), students, tunes));
  api.use(putAwayRoutes(new PutAwayRepository(dataSource)));
  api.use(unknownRoute);
  app.use('/api', api);

  if (config.webRoot !== undefined) app.use(webFiles(config.webRoot));
  app.use(unknownRoute, problemHandler(logger));
  return app;
}

const noStore: RequestHandler = (_request, response, next) => {
  response.setHeader('cache-control', 'no-store');
  next();
};

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
function contentPolicy(): RequestHandler[] {
  const nonce: RequestHandler = (_request, response, next) => {
    response.locals['nonce'] = randomBytes(16).toString('base64');
    next();
  };
  const policy = helmet({
    contentSecurityPolicy: {
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
    },
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'same-origin' },
  });
  return [nonce, policy];
}

const readyTimeoutMs = 2000;

async function answersInTime(dataSource: DataSource): Promise<boolean> {
  const timeout = new Promise<boolean>((resolve) => setTimeout(() => resolve(false), readyTimeoutMs).unref());
  const answer = dataSource.query('SELECT 1').then(
    () => true,
    () => false,
  );
  return Promise.race([answer, timeout]);
}
