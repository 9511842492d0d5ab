import { spreadColours } from '../colour/spread';
import type { Brand } from '../documents/brand';
import type { ClipFill, ControlFill, Fill, PictureFill, SlotFill } from '../documents/fill';
import { EMPTY_FILL, freshPicture, isPicture, isSound } from '../documents/fill';
import type { Graphic, Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import type { TextChange } from '../layers/textStyle';
import { graphicsOf } from '../reel/graphicTime';
import type { Rate } from '../time/rate';
import { FRAMES, type FrameSize } from '../values/frame';
import type { FrameShape } from '../values/property';
import { changeItem, changeItems, given } from './items';

/** What a new reel is made with. Time and ids are handed in, so that this stays a pure function. */
export interface NewReel {
  readonly id: string;
  readonly name: string;
  /** ISO 8601 instant. */
  readonly now: string;
  readonly frame: FrameSize;
  readonly rate: Rate;
}

/** A reel with nothing in it. */
export function emptyReel(made: NewReel): Reel {
  return {
    format: 'freshreel/reel',
    version: 5,
    id: made.id,
    name: made.name,
    created: made.now,
    changed: made.now,
    frame: made.frame,
    rate: made.rate,
    templates: {},
    tracks: [],
    motionBlur: { samples: 1, shutter: 0.5 },
    markers: [],
    ways: [],
  };
}

/** A reel with one graphic of a template. */
export function newReel(
  template: Template,
  {
    shape,
    fill,
    rate,
    ...made
  }: Omit<NewReel, 'frame' | 'rate'> & {
    readonly shape: FrameShape;
    readonly fill?: Fill;
    readonly rate?: Rate;
  },
): Reel {
  return {
    ...emptyReel({ ...made, frame: FRAMES[shape], rate: rate ?? template.rate }),
    templates: { [template.id]: template },
    tracks: [
      {
        id: 'graphics',
        items: [
          {
            kind: 'graphic',
            id: `${made.id}-1`,
            template: template.id,
            fill: fill ?? EMPTY_FILL,
            start: 0,
          },
        ],
      },
    ],
  };
}

/** Sets what kind of file a reel goes out as, and how large. */
export function setOutput(reel: Reel, output: NonNullable<Reel['output']>): Reel {
  return { ...reel, output: given(output) };
}

/** @throws {Error} when there is no such graphic */
export function graphicOf(reel: Reel, id: string): Graphic {
  const found = graphicsOf(reel).find((g) => g.id === id);
  if (!found) throw new Error(`The reel "${reel.name}" has no graphic "${id}".`);
  return found;
}

function withFill(reel: Reel, id: string, edit: (fill: Fill) => Fill): Reel {
  return changeItem(reel, id, (item) =>
    item.kind === 'graphic' ? { ...item, fill: edit(item.fill) } : item,
  );
}

export function setSlot(reel: Reel, graphic: string, slot: string, held: SlotFill): Reel {
  return withFill(reel, graphic, (fill) => ({ ...fill, slots: { ...fill.slots, [slot]: held } }));
}

/** Puts a slot back to the template's sample. */
export function resetSlot(reel: Reel, graphic: string, slot: string): Reel {
  return withFill(reel, graphic, (fill) => ({ ...fill, slots: without(fill.slots, slot) }));
}

/** A file of the user's: its media id, and the name it came with. */
export interface MediaFile {
  readonly media: string;
  readonly name?: string;
}

/** Puts one file wherever another was: in slots, in the fills of texts, in sounds, and on tracks. */
export function replaceMedia(reel: Reel, from: string, to: MediaFile): Reel {
  const picture = <T extends PictureFill>(held: T): T =>
    held.media === from ? { ...held, media: to.media, ...(to.name ? { name: to.name } : {}) } : held;
  const slot = (held: SlotFill): SlotFill => {
    if (isPicture(held)) return picture(held);
    if (isSound(held) && held.sound === from)
      return { ...held, sound: to.media, ...(to.name ? { name: to.name } : {}) };
    return held;
  };
  const text = (change: TextChange): TextChange => {
    const { fill } = change;
    return typeof fill === 'object' && 'media' in fill
      ? { ...change, fill: { media: picture(fill.media) } }
      : change;
  };
  const each = <A, B>(record: Readonly<Record<string, A>>, by: (held: A) => B): Record<string, B> =>
    Object.fromEntries(Object.entries(record).map(([id, held]) => [id, by(held)]));
  return changeItems(reel, (item) => {
    if (item.kind === 'colour') return item;
    if (item.kind !== 'graphic')
      return item.media === from ? { ...item, media: to.media, ...(to.name ? { name: to.name } : {}) } : item;
    const { fill } = item;
    const texts = fill.texts ? { texts: each(fill.texts, text) } : {};
    return { ...item, fill: { ...fill, slots: each(fill.slots, slot), ...texts } };
  });
}

/** The slots that files are poured into, from one on: pictures and clips alike. A logo's slot takes one alone. */
export function pourInto(template: Template, first: string): string[] {
  const slots = template.slots.filter((s) => s.kind === 'picture' || s.id === first);
  const from = slots.findIndex((s) => s.id === first);
  return slots[from]?.kind === 'picture' ? slots.slice(from).map((s) => s.id) : [first];
}

/**
 * Puts files in a picture slot and, when there are several, in those after it, in their order. Files beyond the last
 * slot are left out. How the files before sat is forgotten: their shapes were others.
 */
export function pourMedia(reel: Reel, graphic: string, first: string, files: readonly MediaFile[]): Reel {
  const slots = pourInto(graphicOf(reel, graphic).template, first);
  return files
    .slice(0, slots.length)
    .reduce((r, { media, name }, i) => setSlot(r, graphic, slots[i]!, freshPicture(media, name)), reel);
}

/** Lets two picture slots trade what they hold, and how it sits. */
export function swapSlots(
  reel: Reel,
  graphic: string,
  [a, holdsA]: readonly [slot: string, holds: PictureFill | undefined],
  [b, holdsB]: readonly [slot: string, holds: PictureFill | undefined],
): Reel {
  return setSlot(setSlot(reel, graphic, a, holdsB ?? null), graphic, b, holdsA ?? null);
}

/** Takes the depth of a graphic's letters and lens away, or gives it back. */
export const setFlat = (reel: Reel, graphic: string, flat: boolean): Reel =>
  withFill(reel, graphic, ({ flat: _, ...fill }) => (flat ? { ...fill, flat } : fill));

/** Hides a slot or shows it again; what is in it stays. */
export function hideSlot(reel: Reel, graphic: string, slot: string, hide: boolean): Reel {
  return withFill(reel, graphic, ({ hidden = [], ...fill }) => {
    const others = hidden.filter((s) => s !== slot);
    const next = hide ? [...others, slot] : others;
    return next.length > 0 ? { ...fill, hidden: next } : fill;
  });
}

/**
 * Changes how a picture or clip sits in its slot.
 * @param shown what the slot shows now: what is changed when the user has put nothing in yet
 */
export function adjustPicture(
  reel: Reel,
  graphic: string,
  slot: string,
  shown: PictureFill,
  part: Partial<PictureFill> | ((held: PictureFill) => PictureFill),
): Reel {
  const held = graphicOf(reel, graphic).fill.slots[slot];
  const now = isPicture(held) ? held : shown;
  return setSlot(reel, graphic, slot, typeof part === 'function' ? part(now) : { ...now, ...part });
}

/** Changes how a clip plays in its slot; `undefined` takes a part back to how the file has it. */
export function adjustClip(
  reel: Reel,
  graphic: string,
  slot: string,
  shown: PictureFill,
  part: Partial<ClipFill>,
): Reel {
  const held = graphicOf(reel, graphic).fill.slots[slot];
  const current = isPicture(held) ? held : shown;
  const kept = Object.entries({ ...current.clip, ...part }).filter(([, v]) => v !== undefined);
  return setSlot(reel, graphic, slot, { ...current, clip: Object.fromEntries(kept) as ClipFill });
}

export function setControl(reel: Reel, graphic: string, control: string, value: ControlFill): Reel {
  return withFill(reel, graphic, (fill) => ({ ...fill, controls: { ...fill.controls, [control]: value } }));
}

/** Changes a text layer; parts given replace those there, and `undefined` puts a part back to the template's. */
export function changeText(reel: Reel, graphic: string, layer: string, change: Partial<TextChange>): Reel {
  return withFill(reel, graphic, (fill) => {
    const texts = fill.texts ?? {};
    const merged = { ...texts[layer], ...change };
    const kept = Object.fromEntries(Object.entries(merged).filter(([, v]) => v !== undefined)) as TextChange;
    const { texts: _, ...rest } = fill;
    const all = Object.keys(kept).length > 0 ? { ...texts, [layer]: kept } : without(texts, layer);
    return Object.keys(all).length > 0 ? { ...rest, texts: all } : rest;
  });
}

/** How many sub-frames a moving picture is sampled at, and how long the shutter is open. */
export function setMotionBlur(reel: Reel, motionBlur: Reel['motionBlur']): Reel {
  return { ...reel, motionBlur };
}

/** The reel with each frame one sharp moment. */
export const withoutBlur = (reel: Reel): Reel => setMotionBlur(reel, { ...reel.motionBlur, samples: 1 });

/** Puts a control back to what the look or the template says. */
export function resetControl(reel: Reel, graphic: string, control: string): Reel {
  return withFill(reel, graphic, (fill) => ({ ...fill, controls: without(fill.controls, control) }));
}

/** Takes a look: what it sets replaces the user's own values of those controls; all others stay. */
export function chooseLook(reel: Reel, graphic: string, look: string): Reel {
  const { template } = graphicOf(reel, graphic);
  return withFill(reel, graphic, (fill) => fillInLook(template, fill, look));
}

/** A fill in another look: what the look sets takes the place of what was chosen for it. */
export function fillInLook(template: Template, fill: Fill, look: string): Fill {
  const set = template.looks.find((l) => l.id === look)?.controls ?? {};
  const controls = Object.fromEntries(Object.entries(fill.controls).filter(([id]) => !(id in set)));
  return { ...fill, look, controls };
}

export function setShape(reel: Reel, shape: FrameShape): Reel {
  return { ...reel, frame: FRAMES[shape] };
}

export function renameReel(reel: Reel, name: string): Reel {
  const trimmed = name.trim().slice(0, 120);
  return trimmed ? { ...reel, name: trimmed } : reel;
}

/** The template in the brand's colours and fonts, with its logos, standard words and sounds, as a fill over the given one. */
export function wearBrand(template: Template, fill: Fill, brand: Brand): Fill {
  const colours = new Map<string, string>(Object.entries(brand.colours));
  const fonts = new Map<string, string | null>(Object.entries(brand.fonts));
  const controls = template.controls.flatMap((c) => {
    if (!c.brand) return [];
    const value = c.kind === 'font' ? fonts.get(c.brand) : c.kind === 'colour' ? colours.get(c.brand) : null;
    return value ? [[c.id, value] as const] : [];
  });
  const slots = template.slots.flatMap((s): [string, SlotFill][] => {
    if (s.kind === 'logo') {
      const logo = brand.logos[s.brand] ?? brand.logos.main;
      return logo ? [[s.id, logo]] : [];
    }
    if (s.kind === 'sound') {
      const sound = s.brand && brand.sounds[s.brand];
      return sound ? [[s.id, sound]] : [];
    }
    const words = s.kind === 'text' && s.brand ? brand.lines[s.brand] : '';
    return words ? [[s.id, words]] : [];
  });
  return {
    ...fill,
    controls: { ...fill.controls, ...Object.fromEntries(controls) },
    slots: { ...fill.slots, ...Object.fromEntries(slots) },
  };
}

export function applyBrand(reel: Reel, graphic: string, brand: Brand): Reel {
  const { template } = graphicOf(reel, graphic);
  return withFill(reel, graphic, (fill) => wearBrand(template, fill, brand));
}

/** All of a reel in a brand: each of its graphics. */
export const reelWearing = (reel: Reel, brand: Brand): Reel =>
  graphicsOf(reel).reduce((worn, { id }) => applyBrand(worn, id, brand), reel);

/**
 * A template in the brand's colours, spread by contrast and harmony rather than by what its maker thought each is for:
 * every colour of the look that is worn takes one of the brand's, and what could be read still can.
 */
export function spreadBrand(template: Template, fill: Fill, brand: Brand): Fill {
  const look = template.looks.find((l) => l.id === fill.look);
  const own = template.controls.flatMap((c) => {
    if (c.kind !== 'colour') return [];
    const value = look?.controls[c.id] ?? c.default;
    return typeof value === 'string' ? [[c.id, value] as const] : [];
  });
  const spread = spreadColours(Object.fromEntries(own), Object.values(brand.colours));
  return { ...fill, controls: { ...fill.controls, ...spread } };
}

export function applySpread(reel: Reel, graphic: string, brand: Brand): Reel {
  const { template } = graphicOf(reel, graphic);
  return withFill(reel, graphic, (fill) => spreadBrand(template, fill, brand));
}

function without<T>(record: Readonly<Record<string, T>>, key: string): Record<string, T> {
  return Object.fromEntries(Object.entries(record).filter(([k]) => k !== key));
}
