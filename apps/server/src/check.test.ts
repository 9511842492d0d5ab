import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newReel, type Reel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { check } from './cli/check';
import { main } from './cli/main';
import { asked } from './cli/testing';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-check-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const found = (...args: string[]) => check(asked('check', ...args));

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
      // A hundred characters and their speaker's eight, in a little more than five seconds.
      const fill = join(folder, 'fill.json');
      writeFileSync(
        fill,
        JSON.stringify({ slots: { quote: 'kites '.repeat(17).slice(0, 100), who: 'Ida Hill' } }),
      );
      expect(await main(['check', 'quote-card', '--fill', fill])).toBe(1);
      expect(lines.join('\n')).toMatch(
        /^00:00:0\d:\d\d\twrong\tquote-card-1\tThere are 108 characters to read/,
      );
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

  it('and exchange writes what other tools read, or says what it lacks', async () => {
    const now = '2026-06-01T00:00:00.000Z';
    const path = join(folder, 'strap.freshreel');
    const reel = newReel(templateById('name-strap')!, { id: 'r', name: 'Hill', now, shape: 'wide' });
    writeFileSync(path, JSON.stringify(reel));
    const [said, log] = [
      jest.spyOn(console, 'error').mockImplementation(),
      jest.spyOn(console, 'log').mockImplementation(),
    ];
    try {
      const out = (kind: string) => join(folder, 'lists', `out.${kind}`);
      const kinds = ['otio', 'edl', 'vtt', 'srt'].flatMap((kind) => [`--${kind}`, out(kind)]);
      expect(await main(['exchange', path, ...kinds, '--start', '01:00:00:00', '--ending', 'mov'])).toBe(0);
      expect(JSON.parse(readFileSync(out('otio'), 'utf8'))).toMatchObject({
        OTIO_SCHEMA: 'Timeline.1',
        name: 'Hill',
      });
      expect(readFileSync(out('edl'), 'utf8')).toMatch(/01:00:00[:;]00 01:00:05[:;]\d\d\r\n/);
      expect(readFileSync(out('vtt'), 'utf8')).toMatch(/^WEBVTT\n\n00:00:00\.000 --> /);
      expect(readFileSync(out('srt'), 'utf8')).toMatch(/^1\n00:00:00,000 --> /);
      const lacks = async (...args: string[]) => {
        said.mockClear();
        expect(await main(['exchange', ...args])).toBe(1);
        return said.mock.calls[0]![0] as string;
      };
      expect(await lacks(path)).toMatch(/Say what to write: --otio out\.otio/);
      expect(await lacks(path, '--edl', out('x'), '--start', 'noon')).toMatch(/"noon" is not a timecode/);
      expect(await lacks(path, '--edl', out('x'), '--ending', '../mov')).toMatch(/--ending/);
    } finally {
      said.mockRestore();
      log.mockRestore();
    }
  }, 60_000);

  it('refuses what it does not know, naming it', () => {
    expect(() => asked('check')).toThrow(/missing required argument 'title'/);
    expect(() => asked('check', 'a', '--loudness=loud')).toThrow(/"loud" is not from -40 to -5/);
    expect(() => asked('check', 'a', '--wrong')).toThrow(/--wrong/);
  });
});
