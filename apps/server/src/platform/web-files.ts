import { Router } from 'express';
import expressStaticGzip from 'express-static-gzip';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { ServerResponse } from 'node:http';
import { join } from 'node:path';

const year = 365 * 24 * 3600 * 1000;
/** Built files carry a hash of their content in their names. */
const hashed = /\.(js|css|woff2?)$/;

/** An address that names a file: it is never answered with the page. */
const fileAddress = /\.[a-z0-9]{2,5}$/i;

/** Serves the built web application; every address that names no file is the application's own page. */
export function webFiles(root: string): Router {
  const router = Router();
  const page = readFileSync(join(root, 'index.html'), 'utf8');
  router.use(
    expressStaticGzip(root, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        index: false,
        setHeaders: (response: ServerResponse, path: string) =>
          response.setHeader('cache-control', hashed.test(path.replace(/\.(br|gz)$/, '')) ? `public, max-age=${year / 1000}, immutable` : 'no-cache'),
      },
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
