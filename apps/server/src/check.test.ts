import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newReel, type Reel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { check, parseCheckCommand } from './cli/check';
import { main } from './cli/main';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-check-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const found = (...args: string[]) => check(parseCheckCommand(args));

/** A reel of plain colours, each for so many frames of 25 a second. */
function ofColours(name: string, frames: number, colours: readonly string[]): string {
  const now = '2026-06-01T00:00:00.000Z';
  const made: Reel = newReel(templateById('name-strap')!, { id: 'r', name, now, shape: 'wide' });
  const items = colours.map((colour, i) => ({
    ...{ kind: 'colour' as const, id: `c${i}`, start: i * frames, length: frames, colour },
  }));
  const reel = { ...made, rate: { num: 25, den: 1 }, templates: {}, tracks: [{ id: 't', items }] };
  const path = join(folder, `${name}.freshreel`);
  writeFileSync(path, JSON.stringify(reel));
  return path;
}

describe('fresh-reel check', () => {
  it('says what is wrong in words and as JSON, and by its exit code', async () => {
    const lines: string[] = [];
    const log = jest.spyOn(console, 'log').mockImplementation((line: string) => void lines.push(line));
    try {
      expect(await main(['check', 'quote-card'])).toBe(1);
      expect(lines.join('\n')).toMatch(/^00:00:0\d:\d\d\twrong\t.*82 characters to read/);
      lines.length = 0;
      expect(await main(['check', 'mask-rise', '--json'])).toBe(0);
      expect(JSON.parse(lines.join('\n'))).toEqual([]);
    } finally {
      log.mockRestore();
    }
  }, 60_000);

  it('finds harmful flashes where they begin, and lets three in a second pass', async () => {
    // Two seconds of grey, then black and white, each for two frames: more than six flashes a second (BT.1702: three).
    const greys = Array.from({ length: 25 }, () => '#404040');
    const flashing = Array.from({ length: 16 }, (_, i) => (i % 2 ? '#ffffff' : '#000000'));
    const flashes = await found(ofColours('flashing', 2, [...greys, ...flashing]));
    expect(flashes.map((f) => [f.kind, f.wrong])).toEqual([['flashes', true]]);
    expect(flashes[0]!.timecode).toMatch(/^00:00:02:/);
    expect(flashes[0]!.text).toMatch(/BT\.1702/);
    // Nine frames each: not three flashes a second.
    expect(await found(ofColours('slow', 9, flashing))).toEqual([]);
    // Saturated red against black, as WCAG 2.3.1 counts it.
    const red = flashing.map((c) => (c === '#ffffff' ? '#ff0000' : c));
    expect((await found(ofColours('red', 2, red))).map((f) => f.kind)).toEqual(['flashes']);
  }, 60_000);

  it('tells what is not as loud as it should be, and gaps of black with their time', async () => {
    const heard = await found('name-strap', '--loudness=-30');
    expect(heard.map((f) => f.kind)).toEqual(['loudness']);
    const [, is, by] = /is (-[\d.]+) LUFS.*by (-[\d.]+) dB/.exec(heard[0]!.text)!;
    expect(Number(by)).toBeCloseTo(-30 - Number(is), 1);
    expect(await found('name-strap', `--loudness=${is}`)).toEqual([]);

    const path = ofColours('gap', 25, ['#204060', '#204060']);
    writeFileSync(path, readFileSync(path, 'utf8').replace('"start":25', '"start":30'));
    expect(await found(path)).toMatchObject([{ kind: 'gap', wrong: true, timecode: '00:00:01:00' }]);
  }, 60_000);

  it('refuses what it does not know, naming it', () => {
    expect(() => parseCheckCommand([])).toThrow(/Name one/);
    expect(() => parseCheckCommand(['a', '--loudness=loud'])).toThrow(/"loud" is not from -40 to -5/);
    expect(() => parseCheckCommand(['a', '--wrong'])).toThrow(/--wrong/);
  });
});
