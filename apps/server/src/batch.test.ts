import { execFileSync } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { EMPTY_FILL, newReel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { PNG } from 'pngjs';
import { batch } from './cli/batch';
import { asked } from './cli/testing';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-batch-'));
  copyFileSync(join(__dirname, '../../../demo/festival-logo.png'), join(folder, 'kite.png'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

async function run(table: string, ...more: string[]): Promise<string[]> {
  return runOf('name-strap', table, ...more);
}

async function runOf(what: string, table: string, ...more: string[]): Promise<string[]> {
  writeFileSync(join(folder, 'people.csv'), table);
  const told: string[] = [];
  const args = [what, '--table', join(folder, 'people.csv'), '--out', join(folder, 'out'), ...more];
  await batch(asked('batch', ...args, '--side', '90', '--rate', '5'), (line) => told.push(line));
  return told;
}

describe('fresh-reel batch', () => {
  it('makes a film of each row in each shape, named by pattern, and says which columns fill nothing', async () => {
    const people = 'Name;Role;Badge;Phone\nIda Brandvik;Pilot;kite.png;12\nBram Oyelaran;;;34\n';
    const told = await run(people, '--codec', 'ffv1', '--shapes', 'wide,tall', '--name', '{#} {name}');
    expect(told[0]).toBe('Columns that fill nothing: Phone.');
    const files = readdirSync(join(folder, 'out')).sort();
    expect(files).toEqual([
      '1-ida-brandvik-tall.mkv',
      '1-ida-brandvik-wide.mkv',
      '2-bram-oyelaran-tall.mkv',
      '2-bram-oyelaran-wide.mkv',
    ]);
    const sizes = files.map((file) =>
      execFileSync(
        'ffprobe',
        [
          '-v',
          'error',
          '-select_streams',
          'v',
          '-show_entries',
          'stream=width,height',
          '-of',
          'csv=p=0',
          join(folder, 'out', file),
        ],
        { encoding: 'utf8' },
      ).trim(),
    );
    expect(sizes).toEqual(['90,160', '160,90', '90,160', '160,90']);
  }, 60_000);

  it('writes pictures that show what each row says', async () => {
    await run('name,ink colour\nIda,\nBram,\n');
    const still = (name: string) =>
      PNG.sync.read(readFileSync(join(folder, 'out', name, `${name}_00014.png`))).data;
    const [ida, bram] = [still('ida'), still('bram')];
    expect(ida.filter((v, i) => i % 4 === 3 && v > 0).length).toBeGreaterThan(200);
    expect(ida.equals(bram)).toBe(false);
  }, 60_000);

  it('makes a film of a whole reel for each row, in its own shape', async () => {
    const reel = newReel(templateById('name-strap'), {
      ...{ id: 'straps', name: 'Straps', now: '2026-06-05T10:00:00Z', shape: 'tall' },
      fill: { ...EMPTY_FILL, slots: { role: 'Rigger' } },
    });
    const path = join(folder, 'straps.freshreel');
    writeFileSync(path, JSON.stringify(reel));
    const told = await runOf(path, 'Name\nIda\nBram\n', '--codec', 'ffv1');
    expect(told).toEqual(['ida.mkv', 'bram.mkv'].map((name) => join(folder, 'out', name)));
    const size = ['-show_entries', 'stream=width,height', '-of', 'csv=p=0'];
    expect(
      execFileSync('ffprobe', ['-v', 'error', '-select_streams', 'v', ...size, told[0]!], {
        encoding: 'utf8',
      }).trim(),
    ).toBe('90,160');
    expect(readFileSync(told[0]!).equals(readFileSync(told[1]!))).toBe(false);
  }, 60_000);

  it('takes the demo table, all of it', async () => {
    const demo = join(__dirname, '../../../demo/flyers.csv');
    const told: string[] = [];
    const args = ['name-strap', '--table', demo, '--out', join(folder, 'out'), '--codec', 'gif'];
    await batch(asked('batch', ...args, '--side', '36', '--rate', '1'), (line) => told.push(line));
    expect(told).toHaveLength(8);
    expect(told[0]).toBe(join(folder, 'out', 'ida-brandvik.gif'));
  }, 60_000);

  it('renders nothing while anything is wrong, and names each row', async () => {
    const wrong = run('name,badge,size\nIda,kite.png,100\nBram,gone.png,huge\n');
    await expect(wrong).rejects.toThrow(
      /Nothing was rendered\. row 3: "size" takes a number; row 3: the file "gone\.png" for "badge" cannot be read\.$/,
    );
    expect(existsSync(join(folder, 'out'))).toBe(false);
    await expect(run('town,height\nMarram,3\n')).rejects.toThrow(
      /No column of .* is named as anything of "Name strap"/,
    );
    await expect(run('name\nIda\n', '--name', '{town}')).rejects.toThrow(/"\{town\}" is no column/);
  });

  it.each([
    [['--table', 't.csv', '--out', 'o'], /missing required argument 'title'/],
    [['name-strap', '--out', 'o'], /required option '--table <file>'/],
    [['name-strap', '--table', 't.csv'], /required option '--out <folder>'/],
    [['name-strap', '--table', 't.csv', '--out', 'o', '--shapes', 'wide,round'], /"round" is none of wide/],
    [['name-strap', '--table', 't.csv', '--out', 'o', '--side', 'big'], /"big" is not from 16 to 4320/],
  ])('%j is refused', (args, why) => {
    expect(() => asked('batch', ...args)).toThrow(why);
  });
});
