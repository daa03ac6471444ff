import type { Request } from 'express';

const loopback = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/;

/** True for a request from the server's own computer; behind a proxy it is what the proxy says of the visitor that counts. */
export function isFromThisComputer(request: Request): boolean {
  return loopback.test(request.ip ?? '');
}

/** Where a one-time link leads: the address that was set, never one that a request names. The token stands behind the #, so that no server's log holds it. */
export function linkAddress(request: Request, configured: string | undefined, token: string): string {
  return `${configured ?? `http://127.0.0.1:${request.socket.localPort ?? 0}`}/link#${token}`;
}
