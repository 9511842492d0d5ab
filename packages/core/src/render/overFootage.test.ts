import fc from 'fast-check';
import { IDENTITY_PLANE } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import { grouped } from '../paint/compose';
import type { Op } from '../paint/ops';
import { filmParts, overClip } from './overFootage';

const FRAME = { width: 1920, height: 1080 };
const SIZE = { width: 1280, height: 720 };
const asItIs = (media: string) => (media === 'other' ? undefined : SIZE);

type PictureOp = Extract<Op, { op: 'picture' }>;
const clip = (at: number, more: Partial<PictureOp> = {}): Op => ({
  ...{ op: 'picture', picture: 'clip', at, opacity: 1, plane: IDENTITY_PLANE },
  ...{ source: { x: 0, y: 0, ...SIZE }, target: { x: 0, y: 0, ...FRAME } },
  ...more,
});
const plate = (x: number, more: Partial<Extract<Op, { op: 'path' }>> = {}): Op => ({
  ...{ op: 'path', path: rectanglePath({ x, y: 900, width: 300, height: 90 }), plane: IDENTITY_PLANE },
  ...{ fill: { kind: 'solid', colour: '#FF0000' }, opacity: 1 },
  ...more,
});
const over = (...ops: Op[]) => overClip([ops], FRAME, asItIs);

describe('a frame is over a clip', () => {
  it('that fills it as it is; what is below the clip is not seen, and what is above is painted', () => {
    const title = [plate(100), ...grouped([plate(500)], { opacity: 0.5 })];
    expect(over(plate(0), clip(2), ...title)).toEqual({ media: 'clip', at: 2, above: [title] });
    expect(over(clip(1), clip(2, { picture: 'upper' }))).toEqual({ media: 'upper', at: 2, above: [[]] });
  });

  it.each<[string, Op[]]>([
    ['fades', [clip(2, { opacity: 0.99 })]],
    ['blends', [clip(2, { blend: 'screen' })]],
    ['is moved', [clip(2, { plane: [1, 0, 3, 0, 1, 0, 0, 0, 1] })]],
    ['is cropped', [clip(2, { source: { x: 1, y: 0, width: 1279, height: 720 } })]],
    ['leaves an edge', [clip(2, { target: { x: 0, y: 1, width: 1920, height: 1079 } })]],
    ['is no file that can be read so', [clip(2, { picture: 'other' })]],
    ['is a still', [clip(2, { at: undefined } as Partial<PictureOp>)]],
    ['has an effect', grouped([clip(2)], { effects: [{ effect: 'blur', radius: 4 }] })],
    [
      'is cut',
      [
        { op: 'clip', path: rectanglePath({ x: 0, y: 0, ...FRAME }), plane: IDENTITY_PLANE },
        clip(2),
        { op: 'unclip' },
      ],
    ],
  ])('unless that %s', (_, ops) => expect(over(...ops, plate(0))).toBeUndefined());

  it('unless something looks at it: a blend, or what keeps a part of it', () => {
    expect(over(clip(2), plate(0, { blend: 'multiply' }))).toBeUndefined();
    expect(over(clip(2), ...grouped([plate(0)], { composite: 'screen' }))).toBeUndefined();
    expect(over(clip(2), ...grouped([plate(0)], { composite: 'keep-inside' }))).toBeUndefined();
  });

  it('while the shutter is open, if all moments show the same frame of it', () => {
    const moments = [
      [clip(2), plate(0)],
      [clip(2), plate(9)],
    ];
    expect(overClip(moments, FRAME, asItIs)?.above).toEqual([[plate(0)], [plate(9)]]);
    expect(overClip([[clip(2)], [clip(2.1)]], FRAME, asItIs)).toBeUndefined();
  });
});

describe('what lies beneath a film', () => {
  const film = (...rows: readonly (readonly Op[][])[]) => {
    const frames = rows.flat();
    return filmParts((i) => [frames[i]!], frames.length, FRAME, SIZE, asItIs);
  };
  const row = (count: number, from: number, step: number, ...above: Op[]) =>
    Array.from({ length: count }, (_, i) => [clip(from + i * step), ...above]);
  const ground = plate(0, { path: rectanglePath({ x: 0, y: 0, ...FRAME }) });
  const painted = (count: number) => Array.from({ length: count }, () => [ground]);

  it('is passages of even frames, and where something is painted, in whole pixels with even sides', () => {
    const parts = film(row(10, 1, 0.04, plate(300)), row(5, 9, 0), row(20, 2, 0.08, plate(600)));
    expect(parts.map((p) => p.frames)).toEqual([35]);
    const { passages, area } = parts[0]!.beneath!;
    expect(passages).toMatchObject([
      { media: 'clip', at: 1, frames: 10 },
      { at: 9, step: 0, frames: 5 },
      { at: 2, frames: 20 },
    ]);
    expect(passages.map((p) => p.step.toFixed(9))).toEqual(['0.040000000', '0.000000000', '0.080000000']);
    // Plates from 300 to 900, 900 to 990 down, in frame units: 200 to 600 pixels, 600 to 660 down; and an edge.
    expect(area).toEqual({ x: 196, y: 596, width: 408, height: 68 });
  });

  it('is black under a few frames that are painted whole; many are a part of their own', () => {
    const [part, ...more] = film(painted(5), row(20, 0, 0.04));
    expect(more).toEqual([]);
    expect(part!.beneath!.passages).toMatchObject([
      { at: 0, step: 0, frames: 5 },
      { media: 'clip', frames: 20 },
    ]);
    expect(part!.beneath!.passages[0]!.media).toBeUndefined();
    expect(part!.beneath!.area).toEqual({ x: 0, y: 0, ...SIZE });
    const parts = film(painted(60), row(100, 0, 0.04, plate(300)), painted(50));
    expect(parts.map((p) => [p.frames, p.beneath?.area.width])).toEqual([
      [60, undefined],
      [100, 208],
      [50, undefined],
    ]);
  });

  it('is in parts where it is cut often; a corner keeps count where nothing is painted', () => {
    const cuts = Array.from({ length: 20 }, (_, i) => row(3, 20 - i, 0.04));
    expect(film(...cuts).map((p) => [p.frames, p.beneath?.passages.length])).toEqual([
      [24, 8],
      [24, 8],
      [12, 4],
    ]);
    expect(film(row(3, 0, 0.04))[0]!.beneath!.area).toEqual({ x: 0, y: 0, width: 2, height: 2 });
    // Backwards, each frame is a passage of its own.
    expect(film(row(3, 5, -0.04))[0]!.beneath!.passages.map((p) => p.frames)).toEqual([1, 1, 1]);
  });

  it('is black under a title over nothing, if that is small', () => {
    const title = (x: number) => Array.from({ length: 20 }, () => [plate(x)]);
    const [part, ...more] = film(title(300), title(900));
    expect(more).toEqual([]);
    expect(part!.beneath).toEqual({
      passages: [{ at: 0, step: 0, frames: 40 }],
      area: { x: 196, y: 596, width: 608, height: 68 },
    });
    const large = plate(0, { path: rectanglePath({ x: 0, y: 0, width: 1920, height: 700 }) });
    expect(film(title(300), [[large]])[0]!.beneath).toBeUndefined();
  });

  it('has every frame in one part, whatever is cut to what', () => {
    const kinds = fc.record({ over: fc.boolean(), count: fc.integer({ min: 1, max: 70 }), from: fc.nat(50) });
    fc.assert(
      fc.property(fc.array(kinds, { minLength: 1, maxLength: 15 }), (list) => {
        const rows = list.map(({ over: isOver, count, from }) =>
          isOver ? row(count, from, 0.04) : painted(count),
        );
        const parts = film(...rows);
        const sum = (of: readonly { readonly frames: number }[]) =>
          of.reduce((n, { frames }) => n + frames, 0);
        expect(sum(parts)).toBe(rows.flat().length);
        for (const { frames, beneath } of parts) if (beneath) expect(sum(beneath.passages)).toBe(frames);
      }),
    );
  });
});
