import fc from 'fast-check';
import { z } from 'zod';
import { EMPTY_FILL } from '../documents/fill';
import type { Reel } from '../documents/reel';
import { emptyReel } from '../edit/reel';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import type { Rate } from '../time/rate';
import { frameOfTimecode } from '../time/timecode';
import { editList } from './editList';
import { subRipOf, webVttOf } from './subtitles';
import { timelineOf } from './timeline';

const PAL: Rate = { num: 25, den: 1 };
const NTSC: Rate = { num: 30000, den: 1001 };

/** A strap that stands for three seconds. */
const template = templateOf([textLayer('name'), textLayer('role')], {
  name: 'Strap',
  slots: [textSlot('name', 'Name'), textSlot('role', 'Role')],
});

/** Titles by track: where each begins, and its words. */
function reelOf(
  rate: Rate,
  tracks: readonly (readonly (readonly [start: number, name: string | null])[])[],
): Reel {
  let count = 0;
  const made = emptyReel({
    id: 'r',
    name: 'Kite weekend',
    now: '',
    frame: { width: 1920, height: 1080 },
    rate,
  });
  return {
    ...made,
    templates: { test: template },
    tracks: tracks.map((titles, i) => ({
      id: `t${i}`,
      items: titles.map(([start, name]) => ({
        ...{ kind: 'graphic' as const, id: `g${count++}`, template: 'test', start },
        fill: { ...EMPTY_FILL, slots: { name, role: 'Pilot & <judge>' } },
      })),
    })),
  };
}

const two = (rate: Rate) => reelOf(rate, [[[50, 'Ida']], [[100, 'Bram\n\nOyelaran']]]);

describe('an edit list', () => {
  it('is as the published 3600 form is written by hand', () => {
    // Fields by the common description: number, reel of auxiliary source, channel, cut, source in and out, record in and out.
    expect(editList(two(PAL), { start: 25 * 3600, ending: 'mov' }).split('\r\n')).toEqual([
      'TITLE: Kite weekend',
      'FCM: NON-DROP FRAME',
      '',
      '001  AX       V     C        00:00:00:00 00:00:03:00 01:00:02:00 01:00:05:00',
      '* FROM CLIP NAME: Strap',
      '* SOURCE FILE: kite-weekend-00-00-02-00-strap-1920x1080-25fps.mov',
      '',
      '002  AX       V2    C        00:00:00:00 00:00:03:00 01:00:04:00 01:00:07:00',
      '* FROM CLIP NAME: Strap',
      '* SOURCE FILE: kite-weekend-00-00-04-00-strap-1920x1080-25fps.mov',
      '',
      '',
    ]);
  });

  it('counts as its rate does: numbers are dropped at 29.97, and a frame is read back as it was', () => {
    // Frame 1800 is the first after a minute: its number jumps over ;00 and ;01 (SMPTE ST 12-1).
    const list = editList(reelOf(NTSC, [[[1800, 'Ida']]]));
    expect(list).toContain('FCM: DROP FRAME');
    const [, , begins] = /(\S+) (\S+) (\d\d:\d\d:\d\d;\d\d) \S+\r\n/.exec(list)!.slice(1, 4);
    expect(begins).toBe('00:01:00;02');
    expect(frameOfTimecode(begins!, NTSC)).toBe(1800);
  });

  it('refuses more events than its numbers count', () => {
    const many = reelOf(PAL, [Array.from({ length: 1000 }, (_, i) => [i * 100, 'Ida'] as const)]);
    expect(() => editList(many)).toThrow(/999 events at most, and this reel 1000 titles/);
  });
});

/** Fields of the published OpenTimelineIO schemas that are written (specification of file format and schemas, 0.17). */
const time = z.strictObject({
  OTIO_SCHEMA: z.literal('RationalTime.1'),
  rate: z.number().positive(),
  value: z.number(),
});
const range = z.strictObject({ OTIO_SCHEMA: z.literal('TimeRange.1'), start_time: time, duration: time });
const item = {
  ...{
    name: z.string(),
    metadata: z.looseObject({}),
    effects: z.tuple([]),
    markers: z.tuple([]),
    enabled: z.boolean(),
  },
};
const gap = z.strictObject({ ...item, OTIO_SCHEMA: z.literal('Gap.1'), source_range: range });
const clip = z.strictObject({
  ...{ ...item, OTIO_SCHEMA: z.literal('Clip.2'), source_range: range },
  active_media_reference_key: z.literal('DEFAULT_MEDIA'),
  media_references: z.strictObject({
    DEFAULT_MEDIA: z.strictObject({
      ...{ OTIO_SCHEMA: z.literal('ExternalReference.1'), metadata: z.looseObject({}), name: z.string() },
      ...{ available_range: range, available_image_bounds: z.null(), target_url: z.string() },
    }),
  }),
});
const track = z.strictObject({
  ...{ ...item, OTIO_SCHEMA: z.literal('Track.1'), kind: z.literal('Video'), source_range: z.null() },
  children: z.array(z.union([gap, clip])),
});
const timeline = z.strictObject({
  ...{
    OTIO_SCHEMA: z.literal('Timeline.1'),
    metadata: z.looseObject({}),
    name: z.string(),
    global_start_time: time,
  },
  tracks: z.strictObject({
    ...item,
    OTIO_SCHEMA: z.literal('Stack.1'),
    source_range: z.null(),
    children: z.array(track),
  }),
});

describe('an OpenTimelineIO document', () => {
  it('has the fields of the published schema, and puts each title where it stands, wherever that is', () => {
    const LENGTH = 75;
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 6 }), { maxLength: 4 }),
        (gaps) => {
          let end = 0;
          const tracks = gaps.map((own) => {
            end = 0;
            return own.map((before) => {
              const start = end + before;
              end = start + LENGTH;
              return [start, 'Ida'] as const;
            });
          });
          const reel = reelOf(PAL, tracks);
          const read = timeline.parse(
            JSON.parse(JSON.stringify(timelineOf(reel, { start: 90000, ending: 'mov' }))),
          );
          expect(read.global_start_time.value).toBe(90000);
          const places = read.tracks.children.map(({ children }) => {
            let at = 0;
            return children.flatMap((child) => {
              const from = at;
              at += child.source_range.duration.value;
              return child.OTIO_SCHEMA === 'Clip.2' ? [from] : [];
            });
          });
          expect(places).toEqual(tracks.filter((t) => t.length > 0).map((t) => t.map(([start]) => start)));
        },
      ),
    );
  });

  it('names each title, its words and its file', () => {
    const [first] = timeline.parse(timelineOf(two(PAL))).tracks.children;
    const [, title] = first!.children;
    expect(title).toMatchObject({
      name: 'Strap',
      metadata: { words: 'Ida\nPilot & <judge>' },
      media_references: {
        DEFAULT_MEDIA: { target_url: 'kite-weekend-00-00-02-00-strap-1920x1080-25fps.webm' },
      },
    });
  });
});

describe('words with their times', () => {
  it('are WebVTT and SubRip: no blank lines within a cue, and signs of markup as they are meant', () => {
    expect(webVttOf(two(PAL))).toBe(
      'WEBVTT\n\n00:00:02.000 --> 00:00:05.000\nIda\nPilot &amp; &lt;judge&gt;\n\n00:00:04.000 --> 00:00:07.000\nBram\nOyelaran\nPilot &amp; &lt;judge&gt;\n',
    );
    expect(subRipOf(two(NTSC))).toBe(
      '1\n00:00:01,668 --> 00:00:04,671\nIda\nPilot & <judge>\n\n2\n00:00:03,337 --> 00:00:06,340\nBram\nOyelaran\nPilot & <judge>\n',
    );
  });

  it('leave out titles and slots without words', () => {
    const reel = reelOf(PAL, [[[0, null]]]);
    expect(webVttOf(reel)).toContain('\nPilot');
    expect(webVttOf(reel)).not.toContain('Name');
    expect(webVttOf(reelOf(PAL, [[]]))).toBe('WEBVTT\n');
  });
});
