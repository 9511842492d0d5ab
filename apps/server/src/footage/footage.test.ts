import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { FastifyInstance } from 'fastify';
import { createApp } from '../app';
import type { CopyState } from './copyDesk';
import { FOOTAGE_PATH } from './routes';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-desk-test-'));
const clip = join(folder, 'phone.mov');
const dist = join(folder, 'dist');
let app: FastifyInstance;

beforeAll(() => {
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=2'],
    ...['-c:v', 'libx265', '-x265-params', 'log-level=none', '-tag:v', 'hvc1', clip],
  ]);
  mkdirSync(dist);
  writeFileSync(join(dist, 'index.html'), '<p>app</p>');
});
let address: string;
beforeEach(async () => {
  app = createApp(dist);
  address = await app.listen({ port: 0, host: '127.0.0.1' });
});
afterEach(() => app.close());

const send = (body: Buffer, headers: Record<string, string> = {}) =>
  fetch(address + FOOTAGE_PATH, {
    method: 'POST',
    body: new Uint8Array(body),
    headers: { 'content-type': 'application/octet-stream', ...headers },
  });
const sentState = async (body: Buffer) => (await (await send(body)).json()) as CopyState;
const ask = (id: string, what = '') => fetch(`${address}${FOOTAGE_PATH}/${id}${what}`);
const drop = (id: string) => fetch(`${address}${FOOTAGE_PATH}/${id}`, { method: 'DELETE' });
const left = () => readdirSync(tmpdir()).filter((f) => f.startsWith('fresh-reel-footage-'));

async function done(id: string): Promise<CopyState> {
  for (let i = 0; i < 300; i++) {
    const state = (await (await ask(id)).json()) as CopyState;
    if (state.state === 'done' || state.state === 'failed') return state;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('The copy took too long.');
}

it('a file that is larger than is taken is refused in words, and nothing of it stays', async () => {
  const small = createApp(dist, { footageBytes: 100_000 });
  const to = await small.listen({ port: 0, host: '127.0.0.1' });
  const reply = await fetch(to + FOOTAGE_PATH, {
    method: 'POST',
    body: new Uint8Array(300_000),
    headers: { 'content-type': 'application/octet-stream' },
  });
  expect([reply.status, await reply.json()]).toEqual([
    413,
    { error: 'The file has more than the 100000 bytes that are taken here.' },
  ]);
  const [own] = left().sort(
    (a, b) => statSync(join(tmpdir(), b)).mtimeMs - statSync(join(tmpdir(), a)).mtimeMs,
  );
  expect(readdirSync(join(tmpdir(), own!))).toEqual([]);
  await small.close();
});

it('what a server that was killed has left goes when the next takes something', async () => {
  const forgotten = mkdtempSync(join(tmpdir(), 'fresh-reel-footage-'));
  writeFileSync(join(forgotten, 'film'), 'x');
  const young = mkdtempSync(join(tmpdir(), 'fresh-reel-footage-'));
  const long = new Date(Date.now() - 2 * 24 * 3600 * 1000);
  utimesSync(forgotten, long, long);
  await send(readFileSync(clip));
  expect([existsSync(forgotten), existsSync(young)]).toEqual([false, true]);
  rmSync(young, { recursive: true });
});

it('a file is sent, known by its hash, copied, fetched, and let go', async () => {
  const before = left().length;
  const bytes = readFileSync(clip);
  const sent = await sentState(bytes);
  expect(sent).toMatchObject({
    hash: createHash('sha256').update(bytes).digest('hex'),
    size: bytes.length,
    footage: { codec: 'hevc', width: 320, height: 180 },
    type: 'video/mp4',
  });
  expect(await done(sent.id)).toMatchObject({ state: 'done', part: 1 });
  const copy = await ask(sent.id, '/copy');
  expect(copy.headers.get('content-type')).toBe('video/mp4');
  const copied = Buffer.from(await copy.arrayBuffer());
  expect(Number(copy.headers.get('content-length'))).toBe(copied.length);
  const path = join(folder, 'copy.mp4');
  writeFileSync(path, copied);
  const said = execFileSync('ffprobe', [
    ...[
      '-v',
      'error',
      '-count_frames',
      '-of',
      'csv=p=0',
      '-show_entries',
      'stream=codec_name,nb_read_frames',
    ],
    path,
  ]);
  expect(said.toString().trim()).toBe('h264,50');
  expect((await drop(sent.id)).status).toBe(204);
  expect((await ask(sent.id)).status).toBe(404);
  await app.close();
  expect(left().length).toBe(before);
});

it('what is no footage is refused in words, and nothing of it stays', async () => {
  const reply = await send(Buffer.from('not a clip at all'));
  expect(reply.status).toBe(422);
  const { error } = (await reply.json()) as { error: string };
  expect(error).not.toMatch(/fresh-reel-footage|\/tmp/);
  expect(error.length).toBeGreaterThan(5);
  expect(left().flatMap((f) => readdirSync(join(tmpdir(), f)))).toEqual([]);
});

it('a copy that is let go while it is made is stopped', async () => {
  const { id } = await sentState(readFileSync(clip));
  expect((await ask(id, '/copy')).status).toBe(409);
  await drop(id);
  expect((await ask(id)).status).toBe(404);
});

it('only pages of its own may send', async () => {
  const bytes = Buffer.from('x');
  expect((await send(bytes, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await send(bytes, { origin: 'https://elsewhere.example' })).status).toBe(403);
  expect((await send(bytes, { origin: address })).status).toBe(422);
  expect((await ask('nobody')).status).toBe(404);
});
