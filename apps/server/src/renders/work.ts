import { createReadStream } from 'node:fs';
import { mkdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { messageOf } from '@fresh-reel/core';
import { DelayedError, type Job, Worker } from 'bullmq';
import { builtVersion } from '../built';
import { writeHashed } from '../hashed';
import { CommandError } from '../rendering/command';
import { readDocument } from './document';
import { LIMITS, orderSchema, pieceKey, type RangeTask } from './order';
import { connectionTo, LEAVE, queueName } from './queueCrew';
import { RangeMaker } from './rangeMaker';
import { makeRoom } from './room';
import { isSealed } from './seal';
import { type Kind, STORE_PATH, Store } from './store';

export interface WorkCommand {
  readonly redis: string;
  /** The one server that it works for, as its address; any that asks, when absent. */
  readonly server: string | undefined;
  /** Of that server. */
  readonly token: string | undefined;
  /** Where what is fetched is kept; a folder of this machine's for what goes, when absent. */
  readonly data: string | undefined;
}

/** Milliseconds after which a machine that says nothing counts as gone, and its range goes to another. */
const SILENT = 10_000;
const pause = (ms: number) => new Promise<false>((resolve) => setTimeout(resolve, ms, false));
/** Milliseconds that a machine which cannot work rests, while others take what it gave back. */
const REST = 10_000;
/** Milliseconds until a range that was given back is taken again. */
const GIVEN_BACK = 500;
/** Faults of this machine and of no range: its disk is full or cannot be written, or it has no more files or memory. */
const OWN_FAULTS = ['ENOSPC', 'EDQUOT', 'EFBIG', 'EROFS', 'EIO', 'EACCES', 'EMFILE', 'ENFILE', 'ENOMEM'];

const isOwnFault = (error: unknown): boolean =>
  OWN_FAULTS.includes((error as NodeJS.ErrnoException).code ?? '') ||
  /No space left on device/.test(messageOf(error));

/** Milliseconds between words of how far a range is. */
const WORD_EVERY = 500;

/**
 * Takes ranges from the queue, one after the other, and brings their pieces to the server that asked for them. With a
 * token it makes those alone that are sealed with it, and tells the token to no other server.
 * @param stop ends it, once the range that is under way is made
 */
export async function work(
  { redis, server, token, data = join(tmpdir(), 'fresh-reel-work') }: WorkCommand,
  say: (line: string) => void,
  stop: AbortSignal,
): Promise<void> {
  if (token !== undefined && server === undefined)
    throw new CommandError('--token goes to one server alone. Name it: --server http://studio:4173.');
  await mkdir(data, { recursive: true });
  const store = new Store(data);
  const maker = new RangeMaker(store);
  const headers: Record<string, string> = token ? { Authorization: `Bearer ${token}` } : {};
  const version = await builtVersion();
  let making = false;
  const range = async (job: Job<RangeTask>, token?: string) => {
    making = true;
    try {
      await makeRange(job);
    } catch (error) {
      if (!isOwnFault(error)) throw error;
      // Others make it. This one would take all ranges, one after the other, and make none.
      say(`cannot work, and rests: ${messageOf(error)}`);
      await worker.pause(true);
      const rested = setTimeout(() => !stop.aborted && worker.resume(), REST);
      stop.addEventListener('abort', () => clearTimeout(rested), { once: true });
      await job.moveToDelayed(Date.now() + GIVEN_BACK, token);
      throw new DelayedError();
    } finally {
      making = false;
    }
  };
  const makeRange = async (job: Job<RangeTask>) => {
    if (server !== undefined && job.data.server !== server)
      throw new Error(`This machine works for ${server}, and ${job.data.server} asked for a range.`);
    if (token !== undefined && !isSealed(job.data, token))
      throw new Error(`Who asked for this range does not have the token of ${server}.`);
    const order = orderSchema.parse(job.data.order);
    const from = `${job.data.server}${STORE_PATH}`;
    await fetchInto(store, from, headers, 'documents', order.paint.document);
    const { files, fonts } = await readDocument(store, order.paint.document);
    for (const { hash } of [...files, ...fonts]) await fetchInto(store, from, headers, 'files', hash);
    let frames = 0;
    let told = performance.now();
    const path = await maker.make(order, () => {
      frames++;
      if (performance.now() - told > WORD_EVERY) {
        told = performance.now();
        job.updateProgress(frames).catch(() => undefined);
      }
      return true;
    });
    try {
      await bring(`${from}/pieces/${pieceKey(order)}`, path, headers);
    } finally {
      await rm(path, { force: true });
    }
    say(`frames ${order.first} to ${order.first + order.count - 1}`);
    await makeRoom(await store.kept(), LIMITS.disk);
  };
  const worker = new Worker<RangeTask>(queueName(version), range, {
    connection: connectionTo(redis),
    ...{ concurrency: 1, lockDuration: SILENT, stalledInterval: SILENT / 2, maxStalledCount: 100 },
  });
  // Redis that is away comes back.
  worker.on('error', () => undefined);
  worker.on('failed', (_job, error) => say(`failed: ${error.message}`));
  say(`Waiting for ranges of version ${version}.`);
  await new Promise<void>((resolve) => stop.addEventListener('abort', () => resolve(), { once: true }));
  // It ends with its range, and does not wait for a Redis that is away.
  const closed = worker.close();
  while (!(await Promise.race([closed.then(() => true), pause(LEAVE)])) && making);
  await maker.close();
}

/**
 * Gets what is not here yet; what comes is checked against its hash while it is written.
 * @throws {Error} when the server does not have it, or something else came
 */
async function fetchInto(
  store: Store,
  from: string,
  headers: Record<string, string>,
  kind: Kind,
  hash: string,
): Promise<void> {
  if (await store.has(kind, hash)) return;
  const reply = await fetch(`${from}/${kind}/${hash}`, { headers });
  if (!reply.ok || !reply.body)
    throw new Error(`The server did not give what a range needs (${reply.status}). ${await reply.text()}`);
  const path = await store.beside();
  try {
    const came = await writeHashed(Readable.fromWeb(reply.body as never), path);
    if (came.hash !== hash) throw new Error('What the server gave is not what was asked for.');
    await store.take(kind, hash, path);
  } finally {
    await rm(path, { force: true });
  }
}

/** @throws {Error} when the server does not take it */
async function bring(url: string, path: string, headers: Record<string, string>): Promise<void> {
  const reply = await fetch(url, {
    method: 'PUT',
    headers: {
      ...headers,
      'Content-Type': 'application/octet-stream',
      'Content-Length': String((await stat(path)).size),
    },
    body: Readable.toWeb(createReadStream(path)) as never,
    duplex: 'half',
  } as RequestInit);
  if (!reply.ok) throw new Error(`The server did not take a piece (${reply.status}). ${await reply.text()}`);
}
