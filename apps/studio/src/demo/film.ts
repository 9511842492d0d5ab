import {
  addMarker,
  type ClipFill,
  changeItem,
  drivePoint,
  emptyReel,
  type Fill,
  FRAMES,
  freshPicture,
  keepMeetings,
  meet,
  type Reel,
  type ReelItem,
  type Treatment,
  type Way,
  withTemplate,
} from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { sharedAsset } from '@fresh-reel/templates/files';
import followed from './ways.json';

const RATE = { num: 25, den: 1 };
/** Seconds as frames of the demo's reels. */
const s = (seconds: number) => Math.round(seconds * RATE.num);

type Extra = Partial<Pick<ReelItem, 'fadeIn' | 'fadeOut' | 'framing' | 'treatments'>>;

/** A reel that is put together item by item. */
class Cutting {
  private reel: Reel;

  constructor(id: string, name: string, now: string, shape: 'wide' | 'tall') {
    const tracks = ['sound', 'footage', 'overlays', 'titles'].map((track) => ({ id: track, items: [] }));
    this.reel = { ...emptyReel({ id, name, now, frame: FRAMES[shape], rate: RATE }), tracks };
  }

  private put(track: string, item: ReelItem): void {
    const tracks = this.reel.tracks.map((t) => (t.id === track ? { ...t, items: [...t.items, item] } : t));
    this.reel = { ...this.reel, tracks };
  }

  /** A clip from one second to another, whole in its frame or filling it. */
  clip(
    id: string,
    file: string,
    [from, to]: readonly [number, number],
    clip: ClipFill = {},
    extra: Extra = {},
  ) {
    const place = { start: s(from), length: s(to) - s(from) };
    const media = { media: sharedAsset(`${file}.mp4`), name: `${file}.mp4` };
    this.put('footage', { kind: 'clip', id, ...place, ...media, clip, fit: 'fill', ...extra });
    return this;
  }

  sound(id: string, file: string, [from, to]: readonly [number, number], part: object) {
    const place = { start: s(from), length: s(to) - s(from) };
    const media = { media: sharedAsset(`${file}.ogg`), name: `${file}.ogg` };
    this.put('sound', { kind: 'sound', id, ...place, ...media, ...part });
    return this;
  }

  graphic(
    track: 'titles' | 'overlays',
    id: string,
    template: string,
    at: number,
    fill: Partial<Fill>,
    extra: Extra = {},
  ) {
    const { reel, key } = withTemplate(this.reel, templateById(template));
    this.reel = reel;
    const whole = { slots: {}, controls: {}, ...fill };
    this.put(track, { kind: 'graphic', id, start: s(at), template: key, fill: whole, ...extra });
    return this;
  }

  /** An overlay whose cut falls on a cut of the film. */
  over(id: string, template: string, cut: number, look: string, extra: Extra = {}) {
    const marker = `cut-${id}`;
    this.reel = {
      ...this.reel,
      markers: [...this.reel.markers, { id: marker, frame: s(cut), name: id, use: 'cut' }],
    };
    this.graphic('overlays', id, template, Math.max(0, cut - 0.6), { look }, extra);
    return this.with((reel) => meet(reel, id, 'cut', marker));
  }

  with(change: (reel: Reel) => Reel): this {
    this.reel = change(this.reel);
    return this;
  }

  /** Everything in the order of time. */
  done(): Reel {
    const tracks = this.reel.tracks
      .filter((t) => t.items.length > 0)
      .map((t) => ({ ...t, items: [...t.items].sort((a, b) => a.start - b.start) }));
    const markers = [...this.reel.markers].sort((a, b) => a.frame - b.frame);
    return keepMeetings({ ...this.reel, tracks, markers });
  }
}

/** What was followed through a clip of the demo, as a way of a reel. */
function wayOf(id: string, name: string, of: string, file: keyof typeof followed): Way {
  const places = followed[file];
  const samples = places.map(([x, y], n) => [n / RATE.num, x!, y!, 1, 0, 1] as Way['samples'][number]);
  const [x, y] = places[0]!;
  return {
    ...{ id, name, of, media: sharedAsset(`${file}.mp4`), half: 55, samples },
    marks: [{ at: 0, x: x!, y: y!, a: 1, b: 0 }],
  };
}

const treated = (...list: Treatment[]): Extra => ({ treatments: list });
const vignette = (amount = 0.5): Treatment => ({ id: 'vignette', effect: 'vignette', amount, clear: 0.35 });
const grain = (amount = 0.22): Treatment => ({ id: 'grain', effect: 'grain', amount, size: 2 });

/** Two minutes of the kite weekend: from the slate to the end card. */
export function demoFilm(now: string): Reel {
  return (
    new Cutting('demo-film', 'Three days of wind', now, 'wide')
      .clip(
        'slate-shot',
        'hand-and-line',
        [0, 6],
        {},
        { fadeIn: 10, ...treated({ id: 'blur', effect: 'blur', radius: 9, inside: true }) },
      )
      .clip('dawn', 'dawn-walk', [6, 15], { silent: true }, treated(grain()))
      .clip('crossing', 'kites-crossing', [15, 23], { speed: 0.75 })
      .clip('market', 'market-at-noon', [23, 31])
      .clip('flyer', 'flyer-close', [31, 41])
      .clip(
        'near',
        'kite-near',
        [41, 50],
        { speed: 0.66 },
        treated({ id: 'saturation', effect: 'saturation', amount: 1.15 }),
      )
      .clip(
        'sky',
        'drifting-sky',
        [50, 57.5],
        { speed: 0.8 },
        treated({ id: 'contrast', effect: 'contrast', amount: 1.1 }),
      )
      .clip(
        'squall',
        'squall-coming',
        [57.5, 67.5],
        { speed: 0.8 },
        treated({ id: 'sharpen', effect: 'sharpen', amount: 0.5, radius: 2 }, vignette(0.6)),
      )
      .clip(
        'hand',
        'hand-and-line',
        [67.5, 73.5],
        {},
        treated({ id: 'tint', effect: 'tint', colour: '#C8742C', amount: 0.35 }, vignette()),
      )
      .clip(
        'rising',
        'kite-going-up',
        [80.5, 86.5],
        { speed: 0.8 },
        {
          framing: {
            scale: {
              keys: [
                { at: 0, of: 'in', value: 1, ease: 'linear' },
                { at: s(6), of: 'in', value: 1.12 },
              ],
            },
          },
        },
      )
      .clip(
        'crowd',
        'crowd-on-the-hill',
        [86.5, 95.5],
        { speed: 0.66 },
        treated({ id: 'glow', effect: 'glow', amount: 0.5, radius: 60 }),
      )
      .clip(
        'lamps',
        'lamps-at-night',
        [95.5, 107.5],
        { speed: 0.75 },
        {
          ...treated({
            id: 'glow',
            effect: 'glow',
            amount: {
              keys: [
                { at: 0, of: 'in', value: 0.2, ease: 'ease-in-out' },
                { at: s(8), of: 'in', value: 0.9 },
              ],
            },
            radius: 50,
          }),
          fadeOut: 12,
        },
      )
      .clip(
        'last',
        'dawn-walk',
        [107.5, 113.5],
        { in: 1.5, speed: 1.2, silent: true },
        treated({ id: 'saturation', effect: 'saturation', amount: 0.2 }, grain(0.4)),
      )
      // The titles.
      .with((r) => addMarker(r, s(3), 'clap', 'Clap').reel)
      .graphic('titles', 'slate', 'slate', 1, { look: 'chalkboard', slots: { take: '1' } })
      .with((r) => meet(r, 'slate', 'clap', r.markers[0]!.id))
      .graphic('titles', 'place', 'place-date', 7.5, {
        look: 'white',
        slots: { place: 'The hill above Marram', date: 'Friday, first light' },
      })
      .graphic('titles', 'title', 'mask-rise', 16, {
        look: 'plain',
        slots: { headline: 'Three days of wind', line: 'Thistledown Kite Weekend' },
        controls: { position: [0.5, 0.8] },
      })
      .graphic('titles', 'marit', 'name-strap', 24, {
        look: 'paper',
        slots: { name: 'Marit Oyelaran', role: 'Kite maker, Thistledown Loft' },
      })
      .graphic('titles', 'bubble', 'speech-bubble', 32, {
        look: 'newsprint',
        slots: { say: 'It only pulls\nwhen you stop looking!', who: 'Juno' },
        controls: { place: [0.64, 0.3], hold: 380 },
      })
      .graphic('titles', 'bridle', 'pointer', 42, {
        look: 'brass',
        slots: { label: 'The bridle', note: 'Two knots set how steep it flies' },
        controls: { place: [0.62, 0.78], hold: 330 },
      })
      .graphic('titles', 'second', 'four-lines', 51, {
        look: 'bare',
        slots: { 'line-1': 'Saturday', 'line-2': 'brought', 'line-3': 'some', 'line-4': 'weather' },
        controls: { 'backdrop-on': false },
      })
      .graphic('titles', 'squall-note', 'typed-note', 59, {
        look: 'carbon',
        slots: { note: 'Saturday, 16:40. Gusts of eleven on the Beaufort scale, one hat lost.' },
      })
      .graphic('titles', 'freeze', 'freeze-print', 73.5, {
        look: 'pine',
        slots: {
          caption: 'Kite of the day: Red Lantern',
          shot: {
            ...freshPicture(sharedAsset('kites-crossing.mp4'), 'kites-crossing.mp4'),
            clip: { in: 2.2 },
          },
        },
        controls: { hold: 220 },
      })
      .graphic('titles', 'tobin', 'name-strap', 80.8, {
        look: 'meadow',
        slots: { name: 'Tobin Marsh', role: 'Flew for nine hours' },
      })
      .graphic('titles', 'headline', 'wind-line', 97, {
        look: 'kite',
        slots: { headline: 'And on Sunday, we lit the lines' },
      })
      .graphic('titles', 'end', 'sign-off', 113.5, {
        look: 'pine',
        slots: { label: 'See you on the hill', next: 'Next year, first weekend of September' },
        controls: { hold: 228 },
      })
      // What lies over the cuts, and what follows what.
      .over('gust', 'wind-streaks', 57.5, 'storm')
      .over('leak', 'light-leak', 86.5, 'amber')
      .over('torn', 'torn-across', 95.5, 'ink')
      .graphic('overlays', 'dust', 'dust', 107.5, { look: 'matinee', controls: { hold: 280 } })
      .with((r) => ({
        ...r,
        ways: [wayOf('juno', 'Juno', 'flyer', 'flyer-close'), wayOf('kite', 'Red kite', 'near', 'kite-near')],
      }))
      .with((r) => drivePoint(r, 'bubble', 'points-at', { way: 'juno', offset: [0.045, 0.06] }))
      .with((r) => drivePoint(r, 'bridle', 'points-at', { way: 'kite' }))
      .sound('music', 'bed', [0, 120], { loops: true, level: -9, soundIn: s(1.5), soundOut: s(4) })
      .with((r) => changeItem(r, 'music', (item) => ({ ...item, label: 'Music' })))
      .done()
  );
}

/** Ten seconds for a phone held upright, round one cut. */
export function demoHook(now: string): Reel {
  const shot = (file: string) => freshPicture(sharedAsset(`${file}.mp4`), `${file}.mp4`);
  return new Cutting('demo-hook', 'Hook for the weekend', now, 'tall')
    .graphic('titles', 'hook', 'torn-hook', 0, {
      look: 'bubblegum',
      slots: {
        promise: 'They said the hill was closed',
        answer: 'Nobody told the kites',
        before: shot('along-the-line'),
        after: shot('crowd-cheers'),
      },
      controls: { hold: 210 },
    })
    .graphic('titles', 'date', 'tall-hook', 7.2, {
      look: templateById('tall-hook').looks[0]!.id,
      slots: { hook: 'First weekend\nof September', kicker: 'The hill above Marram' },
      controls: { hold: 60 },
    })
    .clip(
      'last',
      'kite-going-up',
      [6.8, 10],
      { in: 1 },
      treated({ id: 'blur', effect: 'blur', radius: 14, inside: true }, vignette()),
    )
    .sound('music', 'bed', [0, 10], { loops: true, level: -10, soundIn: s(0.3), soundOut: s(1.2) })
    .done();
}
