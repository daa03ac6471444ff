import express, { type Express } from 'express';
import { pino, type Logger } from 'pino';
import { HttpProblem, isDatabaseAway, problemHandler } from '../http/problem';

/** What answers while the database is not there yet: alive, but not ready, and everything else later. */
export function waitingApp(): Express {
  const app = express();
  app.disable('x-powered-by');
  app.get('/api/health', (_request, response) => {
    response.json({ status: 'ok' });
  });
  app.use(() => {
    throw new HttpProblem('not-ready', 'Zelpit is starting and waiting for its database. Try again in a moment.');
  });
  app.use(problemHandler(pino({ level: 'silent' })));
  return app;
}

const pauseMs = 1000;

/** Tries until the database answers. Only a database that is away is waited for; any other fault is thrown. */
export async function whenDatabaseAnswers(prepare: () => Promise<void>, logger: Logger, pause = pauseMs): Promise<void> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      await prepare();
      return;
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
      if (attempt === 1) logger.warn({ reason: (error as Error).message }, 'the database does not answer yet; waiting');
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
}
