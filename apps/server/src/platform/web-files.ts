import express, { Router } from 'express';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const year = 365 * 24 * 3600 * 1000;
const hashed = /[-.][A-Z0-9]{8}\.[a-z0-9]+$/;

/** Serves the built web application; every address that is no file is the application's own page. */
export function webFiles(root: string): Router {
  const router = Router();
  const page = readFileSync(join(root, 'index.html'), 'utf8');
  router.use(
    express.static(root, {
      index: false,
      setHeaders: (response, path) => response.setHeader('cache-control', hashed.test(path) ? `public, max-age=${year / 1000}, immutable` : 'no-cache'),
    }),
  );
  router.get('/{*path}', (_request, response) => {
    const nonce = (response.locals['nonce'] as string | undefined) ?? randomBytes(16).toString('base64');
    response.setHeader('cache-control', 'no-store');
    response.type('html').send(page.replaceAll('CSP_NONCE', nonce));
  });
  return router;
}
