/** Somebody who talks to the API: keeps the cookie and sends the token with every write. */
export interface ApiVisitor {
  readonly address: string;
  /** Cookie and token, for requests that are made another way. */
  readonly headers: Record<string, string>;
  send(method: string, path: string, body?: unknown, at?: string): Promise<Response>;
  get<T>(path: string, at?: string): Promise<T>;
  /** The first page of a list. */
  list<T>(path: string, at?: string): Promise<T[]>;
}

const tokenHeader = 'x-zelpit-token';

/** Signs in to the demo studio of a server. */
export async function signInToDemo(address: string): Promise<ApiVisitor> {
  const first = await fetch(`${address}/api/session`);
  const { token, demo } = (await first.json()) as { token: string; demo: { email: string; password: string } };
  const signedIn = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie: cookiesOf(first), [tokenHeader]: token },
    body: JSON.stringify(demo),
  });
  const session = (await signedIn.json()) as { token: string };
  return visitorWith(address, cookiesOf(signedIn), session.token);
}

/** Creates a studio on the server's own computer and signs in as its owner. */
export async function createStudio(address: string, studio: string): Promise<ApiVisitor> {
  const first = await fetch(`${address}/api/session`);
  const { token } = (await first.json()) as { token: string };
  const owner = { studio, name: 'Ada Quill', email: `${crypto.randomUUID()}@tarn-end.example`, password: 'seven lamps beside a slow ferry' };
  const created = await fetch(`${address}/api/studios`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie: cookiesOf(first), [tokenHeader]: token },
    body: JSON.stringify(owner),
  });
  return visitorWith(address, cookiesOf(created), ((await created.json()) as { token: string }).token);
}

const cookiesOf = (response: Response): string =>
  response.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');

function visitorWith(address: string, cookie: string, token: string): ApiVisitor {
  const send: ApiVisitor['send'] = (method, path, body, at = address) =>
    fetch(`${at}${path}`, {
      method,
      headers: { cookie, [tokenHeader]: token, 'content-type': body instanceof Uint8Array ? 'application/octet-stream' : 'application/json' },
      body: body instanceof Uint8Array || body === undefined ? body : JSON.stringify(body),
    } as RequestInit);
  const get: ApiVisitor['get'] = async (path, at) => (await send('GET', path, undefined, at)).json() as never;
  const list: ApiVisitor['list'] = async (path, at) => (await get<{ items: never[] }>(path, at)).items;
  return { address, headers: { cookie, [tokenHeader]: token }, send, get, list };
}
