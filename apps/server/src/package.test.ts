import { createWriteStream, mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { newReel } from '@fresh-reel/core';
import { openPackage } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { BlobReader, TextReader, ZipWriter } from '@zip.js/zip.js/index-native.js';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-package-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A reel's package with one file of so many bytes, all alike, packed as small as they get. */
async function packed(bytes: number): Promise<string> {
  const path = join(folder, `${bytes}.freshreel`);
  const zip = new ZipWriter(Writable.toWeb(createWriteStream(path)) as WritableStream<Uint8Array>, {
    useWebWorkers: false,
  });
  const about = { id: 'one', name: 'One', now: '2026-05-01T09:00:00.000Z', shape: 'wide' } as const;
  const json = (data: unknown) => new TextReader(JSON.stringify(data));
  await zip.add('reel.json', json(newReel(templateById('name-strap')!, about)));
  await zip.add('media/a', new BlobReader(new Blob([new Uint8Array(bytes)])));
  const media = [{ id: 'sha256:a', path: 'media/a', name: 'a.png', type: 'image/png' }];
  await zip.add('contents.json', json({ format: 'freshreel/contents', version: 1, media, fonts: [] }));
  await zip.close();
  return path;
}

describe('a package', () => {
  it('is laid out, however well it is packed', async () => {
    const opened = await openPackage(await packed(3_000_000), join(folder, 'laid'));
    expect(opened!.media.map((m) => statSync(m.path).size)).toEqual([3_000_000]);
  });

  it('that would be far larger than itself is refused before it fills the disk', async () => {
    const path = await packed(80_000_000);
    expect(statSync(path).size).toBeLessThan(1_000_000);
    const target = join(folder, 'bomb');
    await expect(openPackage(path, target)).rejects.toThrow('unpacked as far more than it is');
    const written = readdirSync(join(target, 'media')).map((f) => statSync(join(target, 'media', f)).size);
    expect(Math.max(...written)).toBeLessThanOrEqual(64 * 1024 * 1024);
  });
});
