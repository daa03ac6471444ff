import express, { Router } from 'express';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const year = 365 * 24 * 3600 * 1000;
const hashed = /[-.][A-Z0-9]{8}\.[a-z0-9]+$/;

/** An address that names a file: it is never answered with the page. */
const fileAddress = /\.[a-z0-9]{2,5}$/i;

/** Serves the built web application; every address that names no file is the application's own page. */
export function webFiles(root: string): Router {
  const router = Router();
  const page = readFileSync(join(root, 'index.html'), 'utf8');
  router.use(
    express.static(root, {
      index: false,
      setHeaders: (response, path) => response.setHeader('cache-control', hashed.test(path) ? `public, max-age=${year / 1000}, immutable` : 'no-cache'),
    }),
  );
  router.get('/{*path}', (request, response, next) => {
    if (fileAddress.test(request.path)) {
      next();
      return;
    }
    const nonce = (response.locals['nonce'] as string | undefined) ?? randomBytes(16).toString('base64');
    response.setHeader('cache-control', 'no-store');
    response.type('html').send(page.replaceAll('CSP_NONCE', nonce));
  });
  return router;
}
