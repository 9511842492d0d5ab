import { execFileSync } from 'node:child_process';
import { createHash, randomFillSync } from 'node:crypto';
import {
  closeSync,
  createReadStream,
  createWriteStream,
  mkdtempSync,
  openSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { addFile, addTitle, emptyReel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { sharedAsset } from '@fresh-reel/templates/files';
import { BlobWriter, TextReader, ZipWriter } from '@zip.js/zip.js';

/** Files for measuring, in a folder that goes when all is measured. */
export class BenchFiles {
  readonly folder = mkdtempSync(join(tmpdir(), 'fresh-reel-bench-'));

  constructor(private readonly root: string) {}

  close(): void {
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** A clip for measuring, from one of the demo's, over and over. */
  clipFile(
    name: string,
    args: readonly string[],
    source = `${this.root}packages/templates/src/shared/kites-crossing.mp4`,
  ) {
    const path = join(this.folder, name);
    execFileSync('ffmpeg', ['-nostdin', '-v', 'error', '-stream_loop', '-1', '-i', source, ...args, path]);
    return path;
  }

  /** Six seconds at 1080p30 that decode like a camera's. */
  hdClip(name: string, more: readonly string[] = []): string {
    return this.clipFile(name, [
      ...more,
      ...['-vf', 'scale=1920:1080,noise=alls=8:allf=t', '-r', '30', '-t', '6', '-c:v', 'libx264'],
      ...['-preset', 'fast', '-pix_fmt', 'yuv420p', '-b:v', '12M', '-g', '60'],
    ]);
  }

  /** A package of documents by their names in it. @returns where it is */
  async packageFile(name: string, documents: Readonly<Record<string, unknown>>): Promise<string> {
    const zip = new ZipWriter(new BlobWriter());
    for (const [path, document] of Object.entries(documents))
      await zip.add(path, new TextReader(JSON.stringify(document)));
    const file = join(this.folder, name);
    writeFileSync(file, Buffer.from(await (await zip.close()).arrayBuffer()));
    return file;
  }

  /** A reel file of so many minutes, of the demo's clips: three to a minute, and five titles on two tracks. */
  reelFile(minutes: number): string {
    const clips = ['kites-crossing', 'kite-near', 'crowd-on-the-hill', 'drifting-sky', 'market-at-noon'];
    const made = { id: `long-${minutes}`, name: `${minutes} minutes`, now: new Date().toISOString() };
    let reel = emptyReel({ ...made, frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } });
    for (let i = 0; i < minutes * 3; i++) {
      const media = sharedAsset(`${clips[i % clips.length]}.mp4`);
      ({ reel } = addFile(reel, { kind: 'clip', media, name: `${i}.mp4`, duration: 20 }, i * 500));
    }
    const titles = ['name-strap', 'pointer', 'place-date'];
    for (let i = 0; i < minutes * 5; i++) {
      ({ reel } = addTitle(reel, templateById(titles[i % titles.length]!), i * 300 + 5));
    }
    const looped = reel.tracks.map((t) => ({
      ...t,
      items: t.items.map((x) => (x.kind === 'clip' ? { ...x, clip: { end: 'loop' } } : x)),
    }));
    const path = join(this.folder, `${minutes}-minutes.json`);
    writeFileSync(path, JSON.stringify({ ...reel, tracks: looped }));
    return path;
  }
}

/** A sound of noise, which nothing makes smaller. @returns where it is, and its SHA-256 */
export function noiseSound(path: string, bytes: number): { path: string; hash: string } {
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(bytes + 36, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  // PCM, two channels of 16 bits at 48 kHz (RIFF WAVE, Multimedia Programming Interface 1.0).
  for (const [value, at] of [
    [1, 20],
    [2, 22],
    [4, 32],
    [16, 34],
  ] as const)
    head.writeUInt16LE(value, at);
  for (const [value, at] of [
    [48_000, 24],
    [192_000, 28],
    [bytes, 40],
  ] as const)
    head.writeUInt32LE(value, at);
  head.write('data', 36);
  const noise = randomFillSync(Buffer.alloc(1_000_000));
  const hash = createHash('sha256').update(head);
  const file = openSync(path, 'w');
  writeSync(file, head);
  for (let i = 0; i < bytes / noise.length; i++) {
    noise.writeUInt32LE(i, 0);
    writeSync(file, noise);
    hash.update(noise);
  }
  closeSync(file);
  return { path, hash: hash.digest('hex') };
}

/** Copies a file and works its SHA-256 out, and does nothing else. */
export async function copyAndHash(from: string, to: string): Promise<string> {
  const hash = createHash('sha256');
  const through = new Transform({
    transform(piece: Buffer, _, done) {
      hash.update(piece);
      done(null, piece);
    },
  });
  await pipeline(createReadStream(from), through, createWriteStream(to));
  return hash.digest('hex');
}
