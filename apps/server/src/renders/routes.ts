import { createReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import swagger from '@fastify/swagger';
import { filmFacts } from '@fresh-reel/core';
import { writableFilms } from '@fresh-reel/node-host';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import { ownOnly } from '../access';
import { type RenderDesk, RenderRefused, type RenderState } from './desk';
import type { Metrics } from './metrics';
import { wishSchema } from './order';
import { HASH, KINDS, type Kind, STORE_PATH } from './store';

export const RENDERS_PATH = '/api/renders';
/** Which kinds of film are made here; none, where nothing is rendered. */
export const FILMS_PATH = '/api/films';

const idSchema = z.object({ id: z.uuid() });
const hashSchema = z.object({ kind: z.enum(KINDS as [Kind, ...Kind[]]), hash: z.string().regex(HASH) });

/** Milliseconds between signs of life to who listens. */
const ALIVE = 15_000;

const told = {
  type: 'object',
  description: 'A render: waiting, running, done, failed or cancelled, with the frames painted so far.',
  properties: {
    id: { type: 'string', format: 'uuid' },
    state: { enum: ['waiting', 'running', 'done', 'failed', 'cancelled'] },
    fileName: { type: 'string' },
    message: { type: 'string', description: 'Why it failed.' },
    codec: { type: 'string' },
    count: { type: 'integer' },
    frames: { type: 'integer' },
    bytes: { type: 'integer' },
  },
} as const;
const refused = { type: 'object', properties: { error: { type: 'string' } } } as const;
const params = z.toJSONSchema(idSchema);

/** Renders on the server: taken, told of, given out and let go. Described at `/api/openapi.json`. */
export const renders: FastifyPluginAsync<{ desk: RenderDesk; metrics: Metrics }> = async (
  app,
  { desk, metrics },
) => {
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: { title: 'Fresh Reel', description: 'Renders reel files to films.', version: '1' },
    },
  });
  app.addHook('onRequest', ownOnly);
  // What comes in is checked by the schemas themselves; here they describe.
  app.setValidatorCompiler(() => (value) => ({ value }));
  app.setSerializerCompiler(() => (value) => JSON.stringify(value));
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));
  app.setErrorHandler((error, request, reply) => {
    // What was not read of a request would stand before the next one.
    if (!request.raw.complete) reply.header('Connection', 'close');
    if (error instanceof RenderRefused) return reply.code(error.status).send({ error: error.message });
    if (error instanceof z.ZodError)
      return reply
        .code(422)
        .send({ error: error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join(' ') });
    throw error;
  });

  app.get('/api/openapi.json', { schema: { hide: true } }, async () => app.swagger());
  app.get('/metrics', { schema: { hide: true } }, async (_request, reply) =>
    reply.type(metrics.registry.contentType).send(await metrics.registry.metrics()),
  );

  app.get(
    FILMS_PATH,
    {
      schema: {
        summary: 'Kinds of film that are made here',
        response: {
          200: { type: 'array', items: { type: 'object', properties: { codec: { type: 'string' } } } },
        },
      },
    },
    async () => (await writableFilms()).map((codec) => ({ codec, ...filmFacts(codec) })),
  );

  app.post(
    RENDERS_PATH,
    {
      bodyLimit: Number.MAX_SAFE_INTEGER,
      schema: {
        summary: 'Render a reel file',
        description: 'The body is the reel file (.freshreel); what is wished is told in the query.',
        consumes: ['application/octet-stream'],
        querystring: z.toJSONSchema(wishSchema, { io: 'input', unrepresentable: 'any' }),
        response: { 202: told, 413: refused, 422: refused, 429: refused },
      },
    },
    async (request, reply) => {
      const state = await desk.take(request.body as Readable, wishSchema.parse(request.query));
      return reply.code(202).header('Location', `${RENDERS_PATH}/${state.id}`).send(state);
    },
  );

  app.get(
    RENDERS_PATH,
    { schema: { summary: 'All renders', response: { 200: { type: 'array', items: told } } } },
    async () => desk.list(),
  );

  const known = (request: FastifyRequest): RenderState => {
    const { data } = idSchema.safeParse(request.params);
    const state = data && desk.state(data.id);
    if (!state) throw new RenderRefused('This render is not here, or not any more.', 404);
    return state;
  };
  app.get(
    `${RENDERS_PATH}/:id`,
    { schema: { summary: 'One render', params, response: { 200: told, 404: refused } } },
    async (request) => known(request),
  );

  app.get(
    `${RENDERS_PATH}/:id/events`,
    {
      schema: {
        summary: 'A render as it goes on',
        description:
          'Server-sent events named "render", each with what GET of the render tells; the last is of its end.',
        params,
        produces: ['text/event-stream'],
      },
    },
    async (request, reply) => {
      const state = known(request);
      listen(reply, desk, state);
    },
  );

  app.get(
    `${RENDERS_PATH}/:id/result`,
    { schema: { summary: 'The film', params, produces: ['application/octet-stream'] } },
    async (request, reply) => {
      const { id, state } = known(request);
      const film = await desk.film(id);
      if (!film) throw new RenderRefused(`There is no film yet: this render is ${state}.`, 409);
      return reply
        .type('application/octet-stream')
        .header('Content-Length', film.size)
        .header('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(film.name)}`)
        .send(createReadStream(film.path));
    },
  );

  app.delete(
    `${RENDERS_PATH}/:id`,
    {
      schema: {
        summary: 'Stop a render, or let go of its film',
        params,
        response: { 204: {}, 404: refused },
      },
    },
    async (request, reply) => {
      await desk.drop(known(request).id);
      return reply.code(204).send();
    },
  );

  const { store } = desk;
  app.get(`${STORE_PATH}/:kind/:hash`, { schema: { hide: true } }, async (request, reply) => {
    const { kind, hash } = hashSchema.parse(request.params);
    if (!(await store.has(kind, hash))) throw new RenderRefused('This is not here.', 404);
    return reply
      .type('application/octet-stream')
      .header('Content-Length', await store.size(kind, hash))
      .send(store.read(kind, hash));
  });
  // Only pieces come from elsewhere.
  app.put(
    `${STORE_PATH}/pieces/:hash`,
    { bodyLimit: Number.MAX_SAFE_INTEGER, schema: { hide: true } },
    async (request, reply) => {
      const { hash } = hashSchema.parse({ ...(request.params as object), kind: 'pieces' });
      await store.put('pieces', hash, request.body as NodeJS.ReadableStream);
      return reply.code(204).send();
    },
  );
};

/** Tells of a render as it goes on (HTML Living Standard, server-sent events). */
function listen(reply: FastifyReply, desk: RenderDesk, now: RenderState): void {
  const { raw } = reply.hijack();
  raw.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
  const alive = setInterval(() => raw.write(': alive\n\n'), ALIVE);
  let off: () => void = () => undefined;
  const end = () => {
    clearInterval(alive);
    off();
    raw.end();
  };
  const say = (state: RenderState) => {
    raw.write(`event: render\ndata: ${JSON.stringify(state)}\n\n`);
    if (state.state !== 'waiting' && state.state !== 'running') end();
  };
  off = desk.hear(now.id, say);
  raw.on('close', end);
  say(now);
}
