import type { RequestHandler } from 'express';
import { createServer, type Server } from 'node:http';
import type { Pool } from 'pg';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';

const buckets = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5];

/** What a watcher of the server can ask for, as Prometheus reads it. No names, no addresses: methods, routes, times. */
export interface Metrics {
  readonly registry: Registry;
  /** Times every request by its route's pattern. */
  readonly time: RequestHandler;
}

export function createMetrics(pool: Pool): Metrics {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const duration = new Histogram({
    name: 'zelpit_request_seconds',
    help: 'Time from the first byte of a request to the last of its answer.',
    labelNames: ['method', 'route', 'status'],
    buckets,
    registers: [registry],
  });
  new Gauge({
    name: 'zelpit_session_connections',
    help: 'Connections to the database kept for sessions.',
    registers: [registry],
    collect() {
      this.set(pool.totalCount);
    },
  });
  const time: RequestHandler = (request, response, next) => {
    const end = duration.startTimer({ method: request.method });
    response.on('finish', () => {
      const route = request.route as { path?: string } | undefined;
      end({ route: route?.path === undefined ? 'other' : `${request.baseUrl}${route.path}`, status: String(response.statusCode) });
    });
    next();
  };
  return { registry, time };
}

/** Serves the figures on loopback only, apart from the application, so that no proxy in front of it shows them. */
export function serveMetrics(registry: Registry, port: number): Server {
  const server = createServer((request, response) => {
    if (request.url !== '/metrics') {
      response.writeHead(404).end();
      return;
    }
    void registry.metrics().then((text) => response.writeHead(200, { 'content-type': registry.contentType }).end(text));
  });
  return server.listen(port, '127.0.0.1');
}
