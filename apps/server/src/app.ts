import { existsSync } from 'node:fs';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance } from 'fastify';
import { askForToken, knownNamesOnly } from './access';
import { STUDIO } from './built';
import { footage } from './footage/routes';
import type { RenderDesk } from './renders/desk';
import type { Metrics } from './renders/metrics';
import { FILMS_PATH, renders as renderRoutes } from './renders/routes';

/** What users open comes from anywhere; the page itself talks to this server alone. */
const PAGE_POLICY =
  "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; worker-src 'self' blob:; style-src 'self' 'unsafe-inline'; img-src 'self' blob: data:; font-src 'self' blob: data:; connect-src 'self' blob: data:; object-src 'none'; base-uri 'self'; frame-ancestors 'none'";
/** The worker that unpacks fonts makes functions from text. It has no page, no storage and no network to harm. */
const UNPACKER = /\/app\/[0-9a-f]+\/unpack\.js(\.br)?$/;
const UNPACKER_POLICY =
  "default-src 'none'; script-src 'self' 'wasm-unsafe-eval' 'unsafe-eval'; connect-src data:";

/** What a server does besides giving out the app. */
export interface Services {
  /** Renders what is sent to it. */
  readonly renders?: { readonly desk: RenderDesk; readonly metrics: Metrics };
  /** What is asked for before it does anything. */
  readonly token?: string | undefined;
  /** Bytes that a file of footage may have. */
  readonly footageBytes?: number;
  /** Names by which it is reached, besides those of this machine. */
  readonly names?: readonly string[];
}

/**
 * The server: gives out the built app, makes working copies of footage that browsers do not play, and renders. Every
 * path that is not a file is the app's own, so that a reel's address can be reloaded.
 * @throws {Error} when the app was not built
 */
export function createApp(
  folder = STUDIO,
  { renders, token, names = [], footageBytes }: Services = {},
): FastifyInstance {
  if (!existsSync(`${folder}/index.html`))
    throw new Error('The studio is not built. Run npm start, or npm run build first.');
  const app = Fastify({ logger: false, forceCloseConnections: true });
  app.addHook('onSend', async (_request, reply) => {
    reply.header('X-Content-Type-Options', 'nosniff');
    reply.header('Referrer-Policy', 'no-referrer');
    // A file that is served may have said another one; the address asked for never does.
    if (!reply.raw.hasHeader('Content-Security-Policy')) reply.header('Content-Security-Policy', PAGE_POLICY);
  });
  // What is let in by its token alone needs no name.
  if (token) askForToken(app, token);
  else knownNamesOnly(app, names);
  app.register(footage, footageBytes === undefined ? {} : { most: footageBytes });
  if (renders) {
    app.register(renderRoutes, renders);
    app.addHook('onClose', () => renders.desk.close());
  } else app.get(FILMS_PATH, async () => []);
  app.register(fastifyStatic, {
    root: folder,
    cacheControl: false,
    // The build lays compressed copies beside the files.
    preCompressed: true,
    setHeaders: (reply, path) => {
      if (UNPACKER.test(path)) reply.setHeader('Content-Security-Policy', UNPACKER_POLICY);
      // Names of built files hold their content's hash; everything else may change with a new build.
      reply.setHeader(
        'Cache-Control',
        path.includes('/app/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      );
    },
  });
  app.setNotFoundHandler((request, reply) => {
    const wantsPage = request.method === 'GET' && (request.headers.accept ?? '').includes('text/html');
    if (wantsPage) return reply.sendFile('index.html');
    return reply.code(404).send({ error: `There is nothing at ${request.url}.` });
  });
  return app;
}
