import { timingSafeEqual } from 'node:crypto';
import { isIP } from 'node:net';
import { hostname } from 'node:os';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';

/** Name of the cookie by which a browser that was let in once is known. */
const COOKIE = 'fresh-reel-token';

/** Whether a request comes from a page of this server, or from no page: those of others have no business here. */
export function isOwn({ headers }: FastifyRequest): boolean {
  const site = headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  const { origin, host } = headers;
  return origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
}

/** A name in `Host`, without its port, as it is compared. */
const nameIn = (host: string | undefined) => (host ?? '').replace(/:\d+$/, '').toLowerCase();

/**
 * Refuses what is asked for under a name that is not this server's. A page of another site may have its own name point to
 * this machine, and is then of the same origin as the server; numbers cannot be pointed elsewhere.
 * @param names further ones by which it is reached
 */
export function knownNamesOnly(app: FastifyInstance, names: readonly string[]): void {
  const own = hostname().toLowerCase();
  const known = new Set(['localhost', own, `${own}.local`, ...names.map((name) => name.toLowerCase())]);
  app.addHook('onRequest', async ({ headers }, reply) => {
    const name = nameIn(headers.host);
    const isNumber = isIP(name.replace(/^\[(.*)\]$/, '$1')) !== 0;
    if (isNumber || known.has(name) || name.endsWith('.localhost')) return;
    return reply.code(421).send({
      error: `This server is not known as "${name}". If it should be, start it with --name ${name}.`,
    });
  });
}

/** Refuses what pages of other sites ask for. */
export async function ownOnly(request: FastifyRequest, reply: FastifyReply): Promise<void> {
  if (!isOwn(request)) await reply.code(403).send({ error: 'Only the app itself may ask for this.' });
}

/**
 * Asks for a token wherever the server does something: in `Authorization: Bearer`, or once in the address of the app
 * (`/?token=`), after which the browser keeps it in a cookie that scripts do not see.
 */
export function askForToken(app: FastifyInstance, token: string): void {
  app.addHook('onRequest', async (request, reply) => {
    const { pathname, searchParams } = new URL(request.url, 'http://server');
    if (same(searchParams.get('token'), token))
      return reply
        .header('Set-Cookie', `${COOKIE}=${encodeURIComponent(token)}; HttpOnly; SameSite=Strict; Path=/`)
        .redirect(pathname);
    if (!pathname.startsWith('/api/') && pathname !== '/metrics') return;
    const bearer = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
    if (same(bearer ?? cookieOf(request), token)) return;
    return reply
      .code(401)
      .header('WWW-Authenticate', 'Bearer')
      .send({ error: 'This server asks for its token: send "Authorization: Bearer <token>".' });
  });
}

function cookieOf({ headers }: FastifyRequest): string | undefined {
  const found = headers.cookie?.split(/; */).find((c) => c.startsWith(`${COOKIE}=`));
  return found && decodeURIComponent(found.slice(COOKIE.length + 1));
}

/** Compares with a secret without telling by the time it takes how much of it is right. */
export function same(given: string | null | undefined, token: string): boolean {
  if (!given) return false;
  const [a, b] = [Buffer.from(given), Buffer.from(token)];
  return a.length === b.length && timingSafeEqual(a, b);
}

/** Whether an address is of this machine alone. */
export const isLoopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || /^127\./.test(host);
