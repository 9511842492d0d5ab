import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { follow, type Sight } from './follow';
import { main } from './main';
import { asked } from './testing';

const SHARED = join(__dirname, '../../../../packages/templates/src/shared');
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-follow-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A clip of a picture over which the camera glides: 30 frames, each 3 pixels further right and 2 further down. */
function gliding(name: string, ...more: readonly string[]): string {
  const path = join(folder, name);
  const picture = ['-loop', '1', '-framerate', '25', '-i', join(SHARED, 'maker.jpg')];
  const glide = "scale=1100:-1,format=rgb24,crop=640:360:'100+3*n':'60+2*n',format=yuv420p";
  const out = ['-frames:v', '30', '-c:v', 'libx264', '-crf', '20', ...more, path];
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...picture, '-vf', glide, ...out]);
  return path;
}

const off = (sights: readonly Sight[], at: (frame: number) => readonly [number, number]) =>
  Math.sqrt(
    sights.reduce((sum, s) => sum + (s.x - at(s.frame)[0]) ** 2 + (s.y - at(s.frame)[1]) ** 2, 0) /
      sights.length,
  );

describe('fresh-reel follow', () => {
  it('tells where a patch is in every frame, before and after the one it was chosen in', async () => {
    const clip = gliding('glide.mp4');
    const sights = await follow({ clip, at: [330, 190], size: 48, frame: 12, json: true });
    expect(sights.map((s) => s.frame)).toEqual(Array.from({ length: 30 }, (_, i) => i));
    expect(off(sights, (f) => [330 - 3 * (f - 12), 190 - 2 * (f - 12)])).toBeLessThan(0.5);
    expect(Math.min(...sights.map((s) => s.sure))).toBeGreaterThan(0.8);
  });

  it('counts in pixels of the clip as it is seen: a turned one, and a large one', async () => {
    const clip = gliding('lying.mp4');
    const turned = join(folder, 'turned.mp4');
    const lie = ['-c', 'copy', '-metadata:s:v', 'rotate=90', turned];
    execFileSync('ffmpeg', ['-v', 'error', '-i', clip, ...lie]);
    const sights = await follow({ clip: turned, at: [190, 310], size: 48, frame: 0, json: true });
    // What goes left and up in the file goes right and up, or left and down, in the picture that stands.
    const sign = Math.sign(190 - sights.at(-1)!.x);
    expect(off(sights, (f) => [190 - sign * 2 * f, 310 + sign * 3 * f])).toBeLessThan(0.6);
    const large = join(folder, 'large.mp4');
    const enlarge = ['-vf', 'scale=1920:1080', '-c:v', 'libx264', '-crf', '18', large];
    execFileSync('ffmpeg', ['-v', 'error', '-i', clip, ...enlarge]);
    const seen = await follow({ clip: large, at: [990, 570], size: 144, frame: 0, json: true });
    expect(off(seen, (f) => [990 - 9 * f, 570 - 6 * f])).toBeLessThan(1.5);
  });

  it('prints the whole clip as one JSON array, or a line a frame', async () => {
    const clip = gliding('short.mp4', '-t', '0.2');
    const log = jest.spyOn(console, 'log').mockImplementation(() => undefined);
    try {
      expect(await main(['follow', clip, '--at', '330,190', '--json'])).toBe(0);
      expect(await main(['follow', clip, '--at', '330,190', '--size', '40', '--frame', '2'])).toBe(0);
      const [json, lines] = log.mock.calls.map(([text]) => String(text)) as [string, string];
      const sights = JSON.parse(json) as Sight[];
      expect(sights[0]).toEqual({ frame: 0, x: 330, y: 190, sure: 1 });
      expect(sights).toHaveLength(5);
      expect(lines.split('\n')[2]).toBe('2\t330\t190\t1');
    } finally {
      log.mockRestore();
    }
  });

  it('says what is wrong', async () => {
    const clip = gliding('said.mp4');
    const words = join(folder, 'words.txt');
    writeFileSync(words, 'no clip');
    for (const [args, fault] of [
      [['follow'], /'--at <X,Y>' not specified/],
      [['follow', clip], /'--at <X,Y>' not specified/],
      [['follow', clip, '--at', 'left'], /"left" is not a place/],
      [['follow', clip, '--at', '700,10'], /outside the clip, which is 640 × 360/],
      [['follow', clip, '--at', '10,10', '--size', '2'], /"2" is not a width/],
      [['follow', clip, '--at', '10,10', '--frame', '-1'], /"-1" is not a frame/],
      [['follow', clip, '--at', '10,10', '--frame', '99'], /has 30 frames/],
      [['follow', words, '--at', '10,10'], /cannot be opened as a clip/],
      [['follow', join(folder, 'none.mp4'), '--at', '10,10'], /cannot be read/],
    ] as const) {
      const error = jest.spyOn(console, 'error').mockImplementation(() => undefined);
      expect(await main(args)).toBe(1);
      expect(String(error.mock.calls[0]?.[0])).toMatch(fault);
      error.mockRestore();
    }
  });

  it('reads its arguments', () => {
    expect(asked('follow', 'a.mp4', '--at', '320.5,180', '--size', '48', '--json')).toEqual({
      clip: 'a.mp4',
      at: [320.5, 180],
      size: 48,
      frame: 0,
      json: true,
    });
  });
});
