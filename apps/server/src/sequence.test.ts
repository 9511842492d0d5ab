import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FRAME_SLACK, type Op } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { createCanvas } from '@napi-rs/canvas';
import { BlobReader, BlobWriter, ZipWriter } from '@zip.js/zip.js/index-native.js';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-sequence-'));
const COUNT = 12;

/** A zip as the studio keeps a sequence, whose pictures are each of a grey of their own. */
async function sequence(name: string, missing?: number): Promise<string> {
  const zip = new ZipWriter(new BlobWriter(), { level: 0 });
  const frames = Array.from({ length: COUNT }, (_, i) => `kite_${String(i + 1).padStart(4, '0')}.png`);
  const document = { format: 'freshreel/sequence', version: 1, rate: { num: 24000, den: 1001 }, frames };
  await zip.add('sequence.json', new BlobReader(new Blob([JSON.stringify(document)])));
  for (const [i, frame] of frames.entries()) {
    if (i === missing) continue;
    const canvas = createCanvas(32, 18);
    const context = canvas.getContext('2d');
    context.fillStyle = `rgb(${i * 20} ${i * 20} ${i * 20})`;
    context.fillRect(0, 0, 32, 18);
    await zip.add(frame, new BlobReader(new Blob([new Uint8Array(await canvas.encode('png'))])));
  }
  const path = join(folder, name);
  writeFileSync(path, new Uint8Array(await (await zip.close()).arrayBuffer()));
  return path;
}

it('the command line shows a picture sequence as the studio does, frame by frame', async () => {
  const studio = await NodeStudio.start();
  await studio.addFile('sha256:climb', await sequence('climb.zip'));
  expect(studio.mediaFacts('sha256:climb')).toEqual({
    width: 32,
    height: 18,
    duration: (COUNT * 1001) / 24000,
    rate: 24000 / 1001,
    sound: false,
  });
  const greys: number[] = [];
  // Backwards and forwards: any frame can be asked for first.
  for (const n of [11, 0, 5, 6, 4]) {
    const at = (n * 1001) / 24000 + FRAME_SLACK;
    await studio.framesReady([[{ op: 'picture', picture: 'sha256:climb', at } as Op]]);
    const { canvas, context } = pixelOf(studio.clipFrame('sha256:climb', at)!);
    greys.push(context.getImageData(16, 9, 1, 1).data[0]! / 20);
    expect(canvas.width).toBe(32);
  }
  expect(greys).toEqual([11, 0, 5, 6, 4]);
  studio.close();
});

it('a sequence that lacks a picture is refused', async () => {
  const studio = await NodeStudio.start();
  await expect(studio.addFile('sha256:gap', await sequence('gap.zip', 7))).rejects.toThrow(/gap.zip/);
  studio.close();
});

function pixelOf({ image, width, height }: { image: unknown; width: number; height: number }) {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.drawImage(image as Parameters<typeof context.drawImage>[0], 0, 0);
  return { canvas, context };
}
