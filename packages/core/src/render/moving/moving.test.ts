/**
 * Moving pictures, read by other programs: ffmpeg for GIF and PNG, an image library for the stills they are made of. No
 * program of Debian's ffmpeg reads animated WebP: its parts are looked at by RFC 9649, and browsers play it in the tests
 * of the interface.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import fc from 'fast-check';
import { delayOf } from './delays';
import { GIF_END, GifFrames, gifDelayed, gifHead } from './gif';
import { PngFrames } from './png';
import { webpFrame, webpHead, webpLead } from './webp';

const SIZE = { width: 32, height: 20 };
const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-moving-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A red square on blue, or on nothing, that goes to the right. */
function picture(at: number, ground = true) {
  const canvas = createCanvas(SIZE.width, SIZE.height);
  const context = canvas.getContext('2d');
  if (ground) {
    context.fillStyle = '#0000ff';
    context.fillRect(0, 0, SIZE.width, SIZE.height);
  }
  context.fillStyle = '#ff0000';
  context.fillRect(at * 4, 4, 8, 8);
  return canvas;
}

const pixels = (canvas: ReturnType<typeof picture>) =>
  new Uint8ClampedArray(canvas.getContext('2d').getImageData(0, 0, SIZE.width, SIZE.height).data);

/** Pixels as they are seen: what is clear has no colour. */
const seen = (rgba: Uint8Array | Uint8ClampedArray) =>
  Buffer.from(rgba.map((value, i) => (rgba[i | 3] === 0 ? 0 : value)));

/** All frames of a file as ffmpeg reads it, RGBA, each as often as its delay has 25ths of a second. */
function framesOf(parts: readonly Uint8Array[], name: string): Buffer[] {
  const path = join(folder, name);
  writeFileSync(path, Buffer.concat(parts));
  const all = execFileSync(
    'ffmpeg',
    `-v error -i ${path} -vf fps=25 -f rawvideo -pix_fmt rgba -`.split(' '),
    { maxBuffer: 1e8 },
  );
  const bytes = SIZE.width * SIZE.height * 4;
  return Array.from({ length: all.byteLength / bytes }, (_, i) => all.subarray(i * bytes, (i + 1) * bytes));
}

it('ends each frame at the part of a second that is nearest, whatever the rate', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(24, 25, 30, 50, 30000 / 1001, 24000 / 1001),
      fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 300 }),
      fc.constantFrom(100, 1000),
      (rate, lengths, parts) => {
        let [at, shown] = [0, 0];
        for (const length of lengths) {
          shown += delayOf(at / rate, (at + length) / rate, parts);
          at += length;
        }
        expect(Math.abs(shown / parts - at / rate)).toBeLessThanOrEqual(0.5001 / parts);
      },
    ),
  );
});

describe.each([
  ['over a ground', true],
  ['clear around', false],
])('a GIF, %s', (_name, ground) => {
  const frames = new GifFrames(SIZE, !ground);
  const places = [0, 1, 2, 2, 3];
  const made = places.map((at) => frames.add(pixels(picture(at, ground))));

  it('is played by ffmpeg pixel by pixel, and its delays add up', () => {
    // The fourth is the third once more, which is shown for two.
    expect(made.map((m) => m !== undefined)).toEqual([true, true, true, false, true]);
    const shown = [4, 4, 8, 4];
    const file = [
      gifHead(SIZE),
      ...made.filter((m) => m !== undefined).map((m, i) => gifDelayed(m, shown[i]!)),
      GIF_END,
    ];
    const played = framesOf(file, `${ground}.gif`);
    expect(played).toHaveLength(places.length);
    for (const [i, at] of places.entries())
      expect(`${i} ${seen(played[i]!).equals(seen(pixels(picture(at, ground))))}`).toBe(`${i} true`);
  });
});

it('a GIF leaves out what stays as it is', () => {
  const noise = pixels(picture(0)).map((value, i) => (i % 4 === 3 ? value : (i * 7919) % 256));
  const frames = new GifFrames(SIZE, false);
  const whole = frames.add(noise)!;
  const next = noise.slice();
  next.set([255, 255, 255, 255], 400);
  // A palette, and next to no pixels.
  expect(whole.byteLength).toBeGreaterThan(500);
  expect(frames.add(next)!.byteLength).toBeLessThan(200);
});

it('a GIF of more colours than it can have comes near all of them', () => {
  const canvas = createCanvas(SIZE.width, SIZE.height);
  const context = canvas.getContext('2d');
  const across = context.createLinearGradient(0, 0, SIZE.width, SIZE.height);
  for (const [i, colour] of ['#ff0000', '#00ff00', '#0000ff', '#ffffff'].entries())
    across.addColorStop(i / 3, colour);
  context.fillStyle = across;
  context.fillRect(0, 0, SIZE.width, SIZE.height);
  const frame = new GifFrames(SIZE, false).add(pixels(canvas))!;
  const [played] = framesOf([gifHead(SIZE), gifDelayed(frame, 4), GIF_END], 'colours.gif');
  const wanted = pixels(canvas);
  let worst = 0;
  for (let i = 0; i < wanted.length; i++) worst = Math.max(worst, Math.abs(wanted[i]! - played![i]!));
  // Two steps of 565 bits at most.
  expect(worst).toBeLessThanOrEqual(16);
});

it('an animated PNG is played by ffmpeg pixel by pixel, half clear ones too', () => {
  const half = picture(0, false);
  half.getContext('2d').globalAlpha = 0.5;
  half.getContext('2d').fillRect(20, 2, 6, 6);
  const stills = [half, picture(2, false), picture(3, false)];
  const frames = new PngFrames();
  const begun = frames.head();
  const parts = stills.flatMap((s) => frames.frame(new Uint8Array(s.toBuffer('image/png')), 40));
  const file = [frames.head(), ...parts, frames.end()];
  expect(frames.head()).toHaveLength(begun.byteLength);
  const played = framesOf(file, 'moving.apng');
  expect(played.map((p, i) => p.equals(Buffer.from(pixels(stills[i]!))))).toEqual([true, true, true]);
});

it('an animated PNG takes no frame of another size, and nothing that is no PNG', () => {
  const frames = new PngFrames();
  frames.frame(new Uint8Array(picture(0).toBuffer('image/png')), 40);
  const other = new Uint8Array(createCanvas(4, 4).toBuffer('image/png'));
  expect(() => frames.frame(other, 40)).toThrow('one size');
  expect(() => frames.frame(new Uint8Array(100), 40)).toThrow('no PNG');
});

it('an animated WebP holds each still’s pixels, in parts as RFC 9649 has them', () => {
  const stills = [picture(0, false), picture(1, false)].map((s) => new Uint8Array(s.toBuffer('image/webp')));
  const parts = [webpHead(SIZE, true), ...stills.map((s) => webpFrame(s, SIZE, 40))];
  const total = parts.reduce((sum, p) => sum + p.byteLength, 0);
  const file = Buffer.concat(parts);
  file.set(webpLead(total));
  expect([file.toString('latin1', 0, 4), file.readUInt32LE(4), file.toString('latin1', 8, 12)]).toEqual([
    'RIFF',
    total - 8,
    'WEBP',
  ]);
  const chunks: [string, Buffer][] = [];
  for (let at = 12; at < file.byteLength; ) {
    const length = file.readUInt32LE(at + 4);
    chunks.push([file.toString('latin1', at, at + 4), file.subarray(at + 8, at + 8 + length)]);
    at += 8 + length + (length % 2);
  }
  expect(chunks.map(([name]) => name)).toEqual(['VP8X', 'ANIM', 'ANMF', 'ANMF']);
  const [, canvas] = chunks[0]!;
  expect([canvas[0], canvas.readUIntLE(4, 3) + 1, canvas.readUIntLE(7, 3) + 1]).toEqual([0x12, 32, 20]);
  for (const [i, [, frame]] of chunks.slice(2).entries()) {
    expect([frame.readUIntLE(6, 3) + 1, frame.readUIntLE(9, 3) + 1, frame.readUIntLE(12, 3)]).toEqual([
      32, 20, 40,
    ]);
    // The rest is what the still holds of pixels, as it is.
    const rest = frame.subarray(16);
    expect(Buffer.from(stills[i]!).includes(rest.subarray(8))).toBe(true);
    expect(rest.toString('latin1', 0, 4)).toMatch(/^(VP8 |VP8L|ALPH)$/);
  }
  expect(() => webpFrame(new Uint8Array(40), SIZE, 40)).toThrow('no WebP');
});
