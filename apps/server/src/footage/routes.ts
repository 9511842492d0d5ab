import { createReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { hasFfmpeg } from '@fresh-reel/node-host';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import { ownOnly } from '../access';
import { TooLarge } from '../hashed';
import { CopyDesk, FootageError } from './copyDesk';

/** Where the app sends footage that the browser does not play. */
export const FOOTAGE_PATH = '/api/footage';

const params = z.object({ id: z.uuid() });

/**
 * Working copies of footage: a file is sent (`POST`), asked after (`GET /:id`), its copy fetched (`GET /:id/copy`), and
 * let go (`DELETE /:id`), which also stops it.
 */
export const footage: FastifyPluginAsync<{ readonly most?: number }> = async (app, { most }) => {
  const desk = new CopyDesk(most);
  app.addHook('onClose', () => desk.close());
  app.addHook('onRequest', ownOnly);
  // A file goes by piece by piece, however large; nothing of it is parsed.
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));

  app.get(FOOTAGE_PATH, async () => ({ takes: await hasFfmpeg() }));

  app.post(FOOTAGE_PATH, { bodyLimit: Number.MAX_SAFE_INTEGER }, async (request, reply) => {
    try {
      return await desk.take(request.body as Readable);
    } catch (error) {
      if (error instanceof FootageError) return reply.code(422).send({ error: error.message });
      if (error instanceof TooLarge) return reply.code(413).send({ error: error.message });
      if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
        return reply
          .code(507)
          .send({ error: 'The disk of the server is full. Make room on it, and send it again.' });
      throw error;
    }
  });

  const known = async (request: FastifyRequest, reply: FastifyReply) => {
    const { data } = params.safeParse(request.params);
    const state = data && desk.state(data.id);
    if (!state) await reply.code(404).send({ error: 'This file is not here any more. Send it again.' });
    return state;
  };
  app.get(`${FOOTAGE_PATH}/:id`, async (request, reply) => (await known(request, reply)) ?? reply);
  app.get(`${FOOTAGE_PATH}/:id/copy`, async (request, reply) => {
    const state = await known(request, reply);
    if (!state) return reply;
    const file = await desk.file(state.id);
    if (!file) return reply.code(409).send({ error: 'Its working copy is not done yet.' });
    return reply.type(file.type).header('Content-Length', file.size).send(createReadStream(file.path));
  });
  app.delete(`${FOOTAGE_PATH}/:id`, async (request, reply) => {
    const state = await known(request, reply);
    if (!state) return reply;
    await desk.drop(state.id);
    return reply.code(204).send();
  });
};
