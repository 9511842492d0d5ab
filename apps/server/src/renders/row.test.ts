/** Machines in a row: a real Redis, started here, and processes that join in. */
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer as createWebServer } from 'node:http';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { randomAt } from '@fresh-reel/core';
import { Queue } from 'bullmq';
import type { RenderState } from './desk';
import { connectionTo, crewOn, queueName } from './queueCrew';
import { sealOf } from './seal';
import { film, framesOf, heard, order, reelOf, type Serving, serveRenders, temporary } from './testing';

const COMMAND = fileURLToPath(new URL('../../bin/fresh-reel.mjs', import.meta.url));
const folder = temporary();
const started: ChildProcess[] = [];
let port: number;
let redis: ChildProcess;

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = server.address() as { port: number };
      server.close(() => resolve(free));
    });
  });

/** Waits until a process says something. */
const says = (child: ChildProcess, words: string) =>
  new Promise<void>((resolve, reject) => {
    let all = '';
    const hear = (bytes: Buffer) => {
      all += bytes.toString();
      if (all.includes(words)) resolve();
    };
    child.stdout!.on('data', hear);
    child.stderr!.on('data', hear);
    child.once('exit', () => reject(new Error(`It ended, and said: ${all}`)));
  });

async function startRedis(): Promise<ChildProcess> {
  const settings = ['--port', String(port), '--bind', '127.0.0.1', '--save', '', '--appendonly', 'no'];
  const child = spawn('redis-server', [...settings, '--dir', folder.path]);
  started.push(child);
  await says(child, 'Ready to accept connections');
  return child;
}

/**
 * A machine that joins in.
 * @param room bytes that a file of it may have at most (`prlimit` of util-linux), as on a disk that is full
 * @param more what else it is told
 */
async function join_in(name: string, room?: number, more: readonly string[] = []): Promise<ChildProcess> {
  const line = [process.execPath, COMMAND, 'work', '--data', join(folder.path, name), ...more];
  const [program, ...args] = room === undefined ? line : ['prlimit', `--fsize=${room}`, ...line];
  const child = spawn(program!, args, {
    env: { ...process.env, FRESH_REEL_REDIS: `redis://127.0.0.1:${port}` },
  });
  started.push(child);
  await says(child, 'Waiting for ranges');
  return child;
}

async function kill(child: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGKILL');
  await gone;
}

/** Waits until a render has come so far. */
const reached = ({ desk }: Serving, id: string, frame: number) =>
  new Promise<void>((resolve) => {
    const off = desk.hear(id, ({ frames }) => {
      if (frames < frame) return;
      off();
      resolve();
    });
  });

beforeAll(async () => {
  port = await freePort();
  redis = await startRedis();
});
afterAll(async () => {
  for (const child of started) child.kill('SIGKILL');
  folder.remove();
});

const WISH = { size: '192x108', rate: '12', codec: 'ffv1' };
/** The frames of the film that one machine makes. */
let whole: string[];

it('two machines make a film; one is killed, Redis loses all it knew, and the frames are those of one machine', async () => {
  const { builtVersion } = await import('../built');
  const version = await builtVersion();
  const alone = await serveRenders({ folder: join(folder.path, 'alone') });
  const one = (await (await order(alone, reelOf(15), WISH)).json()) as RenderState;

  let address = '';
  const serving = await serveRenders({
    folder: join(folder.path, 'row'),
    crew: crewOn(`redis://127.0.0.1:${port}`, version, () => address),
  });
  address = serving.address;
  const [first, second] = await Promise.all([join_in('first'), join_in('second')]);
  await heard(alone, one.id);
  whole = framesOf(await film(alone, one.id, join(folder.path, 'alone.mkv')));
  await alone.app.close();

  const { id, count } = (await (await order(serving, reelOf(15), WISH)).json()) as RenderState;
  expect(whole.length).toBe(count);
  await reached(serving, id, 30);
  await kill(first);
  await kill(redis);
  redis = await startRedis();
  const told = await heard(serving, id);
  expect(told.at(-1)).toMatchObject({ state: 'done', frames: count });
  expect(framesOf(await film(serving, id, join(folder.path, 'row.mkv')))).toEqual(whole);
  // Told to stop, a machine goes, whether Redis is there or not.
  await kill(redis);
  const gone = new Promise((resolve) => second.once('exit', resolve));
  second.kill('SIGTERM');
  expect(await gone).toBe(0);
  // Nor does a server wait for it that is closed in the middle of a render.
  await order(serving, reelOf(15), { ...WISH, rate: '24' });
  await new Promise((resolve) => setTimeout(resolve, 300));
  await serving.app.close();
}, 120_000);

it('a machine that stands still in the middle of a range is not waited for', async () => {
  const { builtVersion } = await import('../built');
  redis = await startRedis();
  let address = '';
  const serving = await serveRenders({
    folder: join(folder.path, 'slow'),
    crew: crewOn(`redis://127.0.0.1:${port}`, await builtVersion(), () => address, undefined, 2000),
  });
  address = serving.address;
  const [still] = await Promise.all([join_in('still'), join_in('going')]);
  const { id, count } = (await (await order(serving, reelOf(15), WISH)).json()) as RenderState;
  await reached(serving, id, 10);
  still.kill('SIGSTOP');
  expect((await heard(serving, id)).at(-1)).toMatchObject({ state: 'done', frames: count });
  expect(framesOf(await film(serving, id, join(folder.path, 'slow.mkv')))).toEqual(whole);
  await serving.app.close();
}, 120_000);

// The queue still holds ranges that the server before asked for, and that are the same: they are none of this one's.
it('a machine whose disk is full gives its range back, and rests', async () => {
  const { builtVersion } = await import('../built');
  let address = '';
  const serving = await serveRenders({
    folder: join(folder.path, 'room'),
    crew: crewOn(`redis://127.0.0.1:${port}`, await builtVersion(), () => address),
  });
  address = serving.address;
  const full = await join_in('full', 1000);
  const { id, count } = (await (await order(serving, reelOf(15), WISH)).json()) as RenderState;
  await says(full, 'cannot work, and rests');
  await join_in('empty');
  expect((await heard(serving, id)).at(-1)).toMatchObject({ state: 'done', frames: count });
  expect(framesOf(await film(serving, id, join(folder.path, 'room.mkv')))).toEqual(whole);
  await serving.app.close();
}, 120_000);

it('a machine with a token works for its own server alone, and tells nobody else its token', async () => {
  const { builtVersion } = await import('../built');
  const version = await builtVersion();
  const asked: string[] = [];
  const stranger = createWebServer((request, reply) => {
    asked.push(`${request.url} ${request.headers.authorization}`);
    reply.end();
  }).listen(0, '127.0.0.1');
  await once(stranger, 'listening');
  const elsewhere = `http://127.0.0.1:${(stranger.address() as { port: number }).port}`;
  // A part of Redis of its own: the machines of other tests have no token.
  const own = `redis://127.0.0.1:${port}/7`;
  const token = 'a-token-of-twenty-letters';
  let address = '';
  const serving = await serveRenders({
    folder: join(folder.path, 'sealed'),
    token,
    crew: crewOn(own, version, () => address, token),
  });
  address = serving.address;
  const queue = new Queue(queueName(version), { connection: connectionTo(own) });
  const order_ = { first: 0, count: 1 };
  await queue.add('range', {
    order: order_,
    server: elsewhere,
    seal: sealOf({ order: order_, server: elsewhere } as never, token),
  });
  await queue.add('range', { order: order_, server: address });
  await queue.add('range', { order: order_, server: address, seal: '00' });
  const machine = await join_in('sealed-machine', undefined, [
    '--redis',
    own,
    '--server',
    address,
    '--token',
    token,
  ]);
  let said = '';
  const heardAll = new Promise<void>((resolve) => {
    machine.stdout!.on('data', (bytes: Buffer) => {
      said += bytes.toString();
      if (said.match(/^failed: /gm)?.length === 3) resolve();
    });
  });
  await heardAll;
  expect(said).toContain(`This machine works for ${address}, and ${elsewhere} asked for a range.`);
  expect(said.match(/does not have the token/g)).toHaveLength(2);
  const asks = { Authorization: `Bearer ${token}` };
  const { id, count } = (await (await order(serving, reelOf(4), WISH, asks)).json()) as RenderState;
  await reached(serving, id, count);
  expect(asked).toEqual([]);
  await queue.close();
  await serving.app.close();
  await kill(machine);
  stranger.close();
}, 120_000);

/** How often a machine is killed, and which moments are drawn: `FRESH_REEL_KILLS=200 FRESH_REEL_SEED=1`. */
const KILLS = Number(process.env.FRESH_REEL_KILLS ?? 3);
const SEED = Number(process.env.FRESH_REEL_SEED ?? 1);
/** Milliseconds up to which machines go on between two kills. */
const LONGEST_PEACE = 1500;

it(
  'machines that are killed at any moment, one after the other, make the same films',
  async () => {
    const { builtVersion } = await import('../built');
    const version = await builtVersion();
    if (redis.exitCode !== null || redis.signalCode !== null) redis = await startRedis();
    const machines = [await join_in('killed-0'), await join_in('killed-1')];
    let kills = 0;
    for (let films = 0; kills < KILLS; films++) {
      let address = '';
      // In a folder of its own: what a store has is not made again.
      const serving = await serveRenders({
        folder: join(folder.path, `killed-film-${films}`),
        crew: crewOn(`redis://127.0.0.1:${port}`, version, () => address, undefined, 2000),
      });
      address = serving.address;
      const { id, count } = (await (await order(serving, reelOf(15), WISH)).json()) as RenderState;
      let told: RenderState | undefined;
      const ended = heard(serving, id).then((all) => {
        told = all.at(-1);
      });
      while (!told && kills < KILLS) {
        await Promise.race([ended, pause(randomAt(SEED, kills) * LONGEST_PEACE)]);
        if (told) break;
        const which = Math.floor(randomAt(SEED, kills, 1) * machines.length);
        await kill(machines[which]!);
        kills++;
        machines[which] = await join_in(`killed-${which}`);
      }
      await ended;
      expect(told).toMatchObject({ state: 'done', frames: count });
      expect(framesOf(await film(serving, id, join(folder.path, 'killed.mkv')))).toEqual(whole);
      await serving.app.close();
    }
  },
  Math.max(120_000, KILLS * 20_000),
);
