import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { EMPTY_FILL, newReel, type Reel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { BlobReader, BlobWriter, ZipReader } from '@zip.js/zip.js/index-native.js';
import type { FastifyInstance } from 'fastify';
import { createApp, type Services } from '../app';
import type { Crew } from './crew';
import { RenderDesk, type RenderState } from './desk';
import { LocalCrew } from './localCrew';
import { Metrics } from './metrics';
import type { Limits } from './order';
import { RENDERS_PATH } from './routes';
import type { Store } from './store';

/** A server that renders, in folders of its own. */
export interface Serving {
  readonly app: FastifyInstance;
  readonly desk: RenderDesk;
  readonly address: string;
}

interface ServingOptions extends Omit<Services, 'renders'> {
  readonly folder: string;
  readonly crew?: (store: Store) => Crew;
  readonly limits?: Partial<Limits>;
}

/** What lies in a zip, by name, in its order. */
export async function zipped(bytes: Buffer): Promise<Map<string, Buffer>> {
  const zip = new ZipReader(new BlobReader(new Blob([new Uint8Array(bytes)])));
  const entries = new Map<string, Buffer>();
  for (const entry of await zip.getEntries())
    if (!entry.directory)
      entries.set(entry.filename, Buffer.from(await (await entry.getData(new BlobWriter())).arrayBuffer()));
  return entries;
}

export function temporary(): { readonly path: string; remove(): void } {
  const path = mkdtempSync(join(tmpdir(), 'fresh-reel-renders-'));
  return { path, remove: () => rmSync(path, { recursive: true, force: true }) };
}

export async function serveRenders({ folder, crew, limits, ...services }: ServingOptions): Promise<Serving> {
  const studio = join(folder, 'studio');
  execFileSync('mkdir', ['-p', studio]);
  writeFileSync(join(studio, 'index.html'), '<title>Fresh Reel</title>');
  const metrics = new Metrics();
  const desk = await RenderDesk.open({
    ...{ folder: join(folder, 'data'), version: 'test', metrics },
    crew: crew ?? ((store) => new LocalCrew(store.folder)),
    ...(limits ? { limits } : {}),
  });
  const app = createApp(studio, { ...services, renders: { desk, metrics } });
  const address = await app.listen({ port: 0, host: '127.0.0.1' });
  desk.start();
  return { app, desk, address };
}

/** A title whose paper lives while it stands, for so many seconds: 1.5 to 15. */
export function reelOf(seconds: number): Reel {
  const template = templateById('quote-card')!;
  const about = { id: 'quote', name: 'Quote', now: '2026-05-01T09:00:00.000Z', shape: 'wide' } as const;
  return newReel(template, { ...about, fill: { ...EMPTY_FILL, controls: { hold: seconds * 60 } } });
}

export async function order(
  { address }: Serving,
  reel: unknown,
  query: Readonly<Record<string, string>>,
  headers: Readonly<Record<string, string>> = {},
): Promise<Response> {
  return fetch(`${address}${RENDERS_PATH}?${new URLSearchParams(query)}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', ...headers },
    body: typeof reel === 'string' ? reel : JSON.stringify(reel),
  });
}

/** Listens to a render until it has ended. @returns all that was told */
export async function heard({ address }: Serving, id: string): Promise<RenderState[]> {
  const reply = await fetch(`${address}${RENDERS_PATH}/${id}/events`);
  return [...(await reply.text()).matchAll(/^event: render\ndata: (.+)$/gm)].map(
    ([, data]) => JSON.parse(data!) as RenderState,
  );
}

export async function film({ address }: Serving, id: string, path: string): Promise<string> {
  const reply = await fetch(`${address}${RENDERS_PATH}/${id}/result`);
  writeFileSync(path, Buffer.from(await reply.arrayBuffer()));
  return path;
}

/** A hash of each frame as ffmpeg decodes it (its `framemd5`). */
export const framesOf = (path: string): string[] =>
  execFileSync('ffmpeg', ['-v', 'error', '-i', path, '-map', '0:v:0', '-f', 'framemd5', '-'], {
    encoding: 'utf8',
  })
    .split('\n')
    .filter((line) => /^\d/.test(line))
    .map((line) => line.split(',').at(-1)!.trim());
