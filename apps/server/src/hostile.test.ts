import { existsSync, lstatSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hostilePackages } from '@fresh-reel/core/testing/hostilePackages';
import { openPackage } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { list, unpack } from './cli/package';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-hostile-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Every file below a folder, with links among them. */
const allBelow = (at: string): string[] =>
  readdirSync(at, { recursive: true, withFileTypes: true }).map((e) => join(e.parentPath ?? e.path, e.name));

it('two hundred hostile packages: each opens as data alone or is refused in words, and nothing lies outside', async () => {
  const before = { keys: Object.keys(Object.prototype) };
  let refused = 0;
  for (const { name, bytes } of hostilePackages(200, 20_261_128, templateById('name-strap'))) {
    const path = join(folder, `${name}.freshreel`);
    writeFileSync(path, bytes);
    const laid = join(folder, `${name}-laid`);
    const came = await openPackage(path, laid).catch((error: unknown) => error as Error);
    if (came instanceof Error) {
      refused++;
      expect([name, came.message.length > 10]).toEqual([name, true]);
    }
    for (const file of existsSync(laid) ? allBelow(laid) : []) {
      expect(file.startsWith(laid)).toBe(true);
      expect(lstatSync(file).isSymbolicLink()).toBe(false);
    }
    const out = join(folder, `${name}-out`);
    const unpacked = await unpack(path, out).catch((error: unknown) => error as Error);
    expect([name, unpacked instanceof Error]).toEqual([name, !existsSync(out)]);
    await list(path).catch(() => undefined);
    for (const gone of [path, laid, out]) rmSync(gone, { recursive: true, force: true });
  }
  expect(refused).toBeGreaterThan(120);
  expect(Object.keys(Object.prototype)).toEqual(before.keys);
  expect(({} as { taken?: unknown }).taken).toBeUndefined();
  expect(readdirSync(folder)).toEqual([]);
}, 240_000);
