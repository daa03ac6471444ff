import type { Request, RequestHandler } from 'express';
import { isIP } from 'node:net';
import { HttpProblem } from './problem';

export interface Doors {
  /** Where people reach this server; absent for loopback. */
  readonly address?: string;
  /** What it listens on. */
  readonly host: string;
}

const loopbackName = /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/;
const everyInterface = new Set(['0.0.0.0', '::', '']);

/** A name without its port: "studio.example", "[::1]". */
const nameOf = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

/**
 * True where the server is asked under a name that it is served at: its set address, what it listens on, or loopback. A page elsewhere can point a name of its own at
 * this computer, but cannot make a browser ask for it under one of these.
 */
export function isServedAs({ address, host }: Doors, asked: string | undefined): boolean {
  if (asked === undefined) return false;
  const name = nameOf(asked);
  if (loopbackName.test(name) || name === host.toLowerCase()) return true;
  if (address !== undefined && name === new URL(address).hostname) return true;
  // Where it listens on every interface, an address in figures is no name that somebody could point here.
  return everyInterface.has(host) && isIP(name.replace(/^\[|\]$/g, '')) !== 0;
}

/** Refuses what is asked under another name, and what a page of another origin asks for. */
export function doors(served: Doors): RequestHandler {
  return (request, _response, next) => {
    if (!isServedAs(served, request.headers.host)) throw new HttpProblem('wrong-address', wrongAddress(served));
    if (!isOwnOrigin(served, request)) throw new HttpProblem('wrong-origin', 'This was asked by a page of another site. Open Zelpit itself, then try again.');
    next();
  };
}

const wrongAddress = ({ address }: Doors): string =>
  `This server does not answer under this address. Open it at ${address ?? 'http://localhost and its port'}. Whoever runs it can set another one with ZELPIT_ADDRESS.`;

/** A request without an origin is no page's; one with it must come from where this server is asked. */
function isOwnOrigin({ address }: Doors, { headers: { origin, host } }: Request): boolean {
  if (origin === undefined) return true;
  if (address !== undefined && origin === new URL(address).origin) return true;
  return URL.canParse(origin) && new URL(origin).host === host?.toLowerCase();
}
