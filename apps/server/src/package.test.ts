import { execFileSync } from 'node:child_process';
import {
  createWriteStream,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { newReel } from '@fresh-reel/core';
import { openPackage } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { BlobReader, TextReader, ZipWriter } from '@zip.js/zip.js/index-native.js';
import { list, pack, unpack } from './cli/package';
import { asked } from './cli/testing';

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

describe('the commands for packages', () => {
  const at = (name: string) => join(folder, name);

  it('say what a package holds and lacks', async () => {
    const path = await packed(3000);
    expect(await list(path)).toEqual([
      { what: 'reel', name: 'One' },
      { what: 'title', name: 'Name strap' },
      { what: 'file', name: 'a.png', bytes: 3000 },
    ]);
    const document = await laidOut('lacking');
    const text = readFileSync(document, 'utf8');
    const lacking = `sha256:${'c'.repeat(64)}`;
    writeFileSync(document, text.replace(/sha256:[0-9a-f]{64}/, lacking));
    const without = await pack(at('lacking'), at('without.freshreel'));
    expect((await list(without)).at(-1)).toEqual({ what: 'lacking', name: lacking });
    expect(() => asked('open', path)).toThrow("required option '--list'");
    writeFileSync(at('no.freshreel'), 'nothing');
    await expect(list(at('no.freshreel'))).rejects.toThrow('is no package: it is not a zip');
  });

  /** A package laid out in a new folder. @returns its document */
  async function laidOut(name: string): Promise<string> {
    return join(await unpack(await packed(3000), at(name)), 'reel.json');
  }

  it('lay one out and make one of it that holds the same, read by Debian’s unzip', async () => {
    await laidOut('out');
    const again = await pack(at('out'), at('again.freshreel'));
    expect(await list(again)).toEqual(await list(await packed(3000)));
    execFileSync('unzip', ['-q', again, '-d', at('unzipped')]);
    for (const file of ['reel.json', 'contents.json', 'media/a'])
      expect(readFileSync(join(at('unzipped'), file)).equals(readFileSync(join(at('out'), file)))).toBe(true);
    // The same folder makes the same bytes.
    const twice = await pack(at('out'), at('twice.freshreel'));
    expect(readFileSync(twice).equals(readFileSync(again))).toBe(true);
  });

  it('read what Debian’s zip packs, compressed or not', async () => {
    await laidOut('zipped');
    for (const level of ['-0', '-9']) {
      const made = at(`made${level}.freshreel`);
      execFileSync('zip', ['-q', '-r', level, made, '.'], { cwd: at('zipped') });
      expect(await list(made)).toEqual(await list(await packed(3000)));
    }
  });

  it('write nothing where something is wrong, and over nothing that is there', async () => {
    await laidOut('there');
    await expect(unpack(await packed(3000), at('there'))).rejects.toThrow('is there already');
    await expect(unpack(await packed(80_000_000), at('bombed'))).rejects.toThrow('far more than it is');
    expect(existsSync(at('bombed'))).toBe(false);
    writeFileSync(at('secret'), 'not of the package');
    rmSync(join(at('there'), 'media/a'));
    symlinkSync(at('secret'), join(at('there'), 'media/a'));
    await expect(pack(at('there'), at('link.freshreel'))).rejects.toThrow('is in the list and is no file');
    writeFileSync(join(at('there'), 'reel.json'), '{"format":"freshreel/reel","version":3}');
    await expect(pack(at('there'), at('link.freshreel'))).rejects.toThrow('This reel is damaged');
    expect(existsSync(at('link.freshreel'))).toBe(false);
    expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toEqual([]);
  });

  it('make one of a template that ships, with all its media, which opens, paints and packs as itself', async () => {
    const path = await pack('gust-sting', at('gust.freshreel'));
    const template = templateById('gust-sting');
    const held = await list(path);
    expect(held[0]).toEqual({ what: 'template', name: template.name });
    expect(held.filter(({ what }) => what === 'file')).toHaveLength(
      new Set(Object.values(template.assets)).size,
    );
    expect(held.some(({ what }) => what === 'lacking')).toBe(false);
    // Each file is what its name says, by its own hash.
    const opened = await openPackage(path, at('gust'));
    expect(opened!.template).toEqual(template);
    expect(opened!.contents.media.every(({ type }) => /^(image|audio|video)\//.test(type))).toBe(true);
    const again = await pack(await unpack(path, at('gust-out')), at('gust-again.freshreel'));
    expect(await list(again)).toEqual(held);
    await expect(pack('gust-stink', at('none.freshreel'))).rejects.toThrow('"gust-stink" is no template');
    expect(existsSync(at('none.freshreel'))).toBe(false);
  });
});
