import type { Request } from 'express';

const loopback = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/;

const forwarding = ['x-forwarded-for', 'x-real-ip', 'forwarded'] as const;

/**
 * True for a request from the server's own computer. Behind a proxy that was named it is what the proxy says of the visitor that counts; one that was not named but hands
 * requests on is nobody's own computer.
 */
export function isFromThisComputer(request: Request): boolean {
  const isHandedOn = forwarding.some((name) => request.headers[name] !== undefined);
  if (isHandedOn && request.app.get('trust proxy') === false) return false;
  return loopback.test(request.ip ?? '');
}

/** Where a one-time link leads: the address that was set, never one that a request names. The token stands behind the #, so that no server's log holds it. */
export function linkAddress(request: Request, configured: string | undefined, token: string): string {
  return `${configured ?? `http://127.0.0.1:${request.socket.localPort ?? 0}`}/link#${token}`;
}
