import fc from 'fast-check';
import { brandSchema } from '../../documents/brand';
import { canBeKeyed, isKeyed } from '../../documents/controls';
import type { ControlFill, ControlValue, Fill, SlotFill } from '../../documents/fill';
import { isPicture, isWords, soundFillSchema } from '../../documents/fill';
import { framingSchema, MARKER_USES, type ReelItem } from '../../documents/item';
import type { Graphic, Reel } from '../../documents/reel';
import type { Control, Slot, Template } from '../../documents/template';
import { setTemplate } from '../../edit/anotherTemplate';
import { type Copied, copiedSchema, copyToMarker, pasteItems, takeAlong } from '../../edit/clipboard';
import { setEdition } from '../../edit/editions';
import {
  FRAMING_KEYS,
  type FramingKey,
  framingClock,
  framingHeld,
  holdFraming,
  putFraming,
  setFade,
  turnAbout,
} from '../../edit/framing';
import { centreOnCut, freezeInto, freezeItem } from '../../edit/freeze';
import { changeItem, changeTracks, given } from '../../edit/items';
import { keptTemplate } from '../../edit/keep';
import { copyKey, easeKey, keysOf, moveKey, ownKey, putKey, removeKey } from '../../edit/keyframes';
import { ASPECTS, familiesOf, makeAlike, sameKind, swapFamily } from '../../edit/many';
import { addMarker, changeMarker, cuesOf, meet, removeMarkers, stopMeeting } from '../../edit/markers';
import { addColour, addFile, addFiles, addTitle, addTitleAfter } from '../../edit/newItems';
import {
  copyItems,
  cutItem,
  endOf,
  moveItems,
  removeItems,
  slipItem,
  spanOf,
  splitSound,
  trimItem,
} from '../../edit/place';
import * as edits from '../../edit/reel';
import { setRate } from '../../edit/setRate';
import { TREATMENTS } from '../../edit/treatmentKinds';
import {
  addTreatment,
  effectsOnSlot,
  holdTreatment,
  moveTreatment,
  removeTreatment,
  switchTemplateEffect,
  switchTreatment,
  type Treated,
  treatmentHeld,
  treatmentsOf,
} from '../../edit/treatments';
import { addWay, correctWay, drivePoint, putSamples, removeWay, setFollow } from '../../edit/ways';
import { markWords, plainText, retype } from '../../edit/words';
import type { TreatmentKind } from '../../effects/treatment';
import { everyLayer } from '../../layers/registry';
import { textChangeSchema } from '../../layers/textStyle';
import { clipFillSchema, freshPicture, pictureFillSchema } from '../../media/pictureFill';
import { easingSchema } from '../../motion/easing';
import { graphicsOf } from '../../reel/graphicTime';
import { placeRows } from '../../tables/rows';
import { OFFERED_RATES } from '../../time/rate';
import { layoutFrame } from '../../values/frame';
import { anythingOf } from './anything';
import { MUSIC, ODD_FILES, PHOTO } from './media';

/** What an editor works with besides the reel: templates to choose from, and what was copied. */
export interface Bench {
  readonly templates: readonly Template[];
  copied?: Copied;
}

/** Numbers that choose among whatever is there when a step is taken. */
export type Dice = readonly number[];

/** What a step makes of a reel, and the items it was meant for: of all others nothing changes. */
export interface Stepped {
  readonly reel: Reel;
  readonly on: readonly string[] | 'all';
  /** Whether what it was meant for, too, looks as it did. */
  readonly alike?: boolean;
}

/** One way in which an editor changes a reel. It draws what it needs, and does nothing where there is nothing for it. */
export interface Step<T = unknown> {
  readonly name: string;
  readonly draws: fc.Arbitrary<T>;
  readonly take: (reel: Reel, dice: Dice, drawn: T, bench: Bench) => Stepped | undefined;
}

const step = <T>(name: string, draws: fc.Arbitrary<T>, take: Step<T>['take']): Step =>
  ({ name, draws, take }) as unknown as Step;

const NOTHING = fc.constant(undefined);

const one = <T>(list: readonly T[], die = 0): T | undefined => list[Math.abs(die) % Math.max(1, list.length)];
const itemsOf = (reel: Reel) => reel.tracks.flatMap((t) => t.items);
const anItem = (reel: Reel, die: number | undefined, ...kinds: ReelItem['kind'][]): ReelItem | undefined =>
  one(
    itemsOf(reel).filter((i) => kinds.length === 0 || kinds.includes(i.kind)),
    die,
  );
const aTitle = (
  reel: Reel,
  die: number | undefined,
  suits: (title: Graphic) => boolean = () => true,
): Graphic | undefined => one(graphicsOf(reel).filter(suits), die);
const hasSlots =
  (...kinds: Slot['kind'][]) =>
  (title: Graphic) =>
    slotsOf(title, ...kinds).length > 0;
const some = (reel: Reel, [a = 0, b = 0, c = 0]: Dice): string[] => [
  ...new Set(
    [a, ...(c % 3 > 0 ? [b] : []), ...(c % 3 > 1 ? [c] : [])].flatMap((d) => anItem(reel, d)?.id ?? []),
  ),
];
/** A frame within an item, or a few beside it. */
const frameIn = (reel: Reel, item: ReelItem, die = 0): number => {
  const [from, to] = spanOf(reel, item);
  return Math.max(0, from - 5 + (die % (to - from + 10)));
};

const WORDS = [
  ...['', 'Wren', 'Wilhelmina Featherstonehaugh-Ravenscroft, chair of the Marram and District Flyers'],
  ...[
    'مهرجان الطائرات',
    '風箏',
    'पतंग Kite ปตท',
    'one\ntwo\nthree\nfour\nfive\nsix',
    '\u{1FA81}\u{1FA81}',
    ' ',
    '12',
  ],
];
const words = fc.oneof(fc.constantFrom(...WORDS), fc.string({ unit: 'grapheme', maxLength: 40 }));

/** A value that a control takes, from a number between 0 and 1. */
function settingOf(control: Control, part: number): ControlValue {
  switch (control.kind) {
    case 'number':
    case 'duration': {
      const step = control.kind === 'number' ? control.step : 1;
      const steps = Math.round((part * (control.max - control.min)) / step);
      return Math.min(control.max, control.min + steps * step);
    }
    case 'colour':
      return `#${Math.floor(part * 0xffffff)
        .toString(16)
        .padStart(6, '0')}`;
    case 'choice':
      return control.options[Math.min(control.options.length - 1, Math.floor(part * control.options.length))]!
        .id;
    case 'switch':
      return part > 0.5;
    case 'point':
      return [part, 1 - part];
    case 'font':
      return part > 0.5 ? 'Figtree' : 'Fraunces';
    case 'path':
      return part > 0.5 ? 'M0 0.2C0.3 0 0.6 1 1 0.8' : 'M0 0L1 1L0 1Z';
  }
}
const part = fc.integer({ min: 0, max: 100 }).map((n) => n / 100);
const frames = (most: number) => fc.integer({ min: -most, max: most });

/** What was drawn, with files that are there wherever it names any. */
function withFiles<T>(drawn: T): T {
  if (typeof drawn !== 'object' || drawn === null) return drawn;
  if (Array.isArray(drawn)) return drawn.map(withFiles) as T;
  const parts = Object.entries(drawn).map(([key, value]) => {
    if (typeof value !== 'string') return [key, withFiles(value)];
    return [key, key === 'media' ? PHOTO : key === 'sound' ? MUSIC : value];
  });
  return Object.fromEntries(parts) as T;
}

const brand = anythingOf(brandSchema).map(withFiles);
const textChange = anythingOf(textChangeSchema).map(withFiles);
const framing = anythingOf(framingSchema);
const ease = anythingOf(easingSchema);
const picture = anythingOf(
  pictureFillSchema.omit({ media: true, name: true, treatments: true, plain: true }),
);
const clipFill = anythingOf(clipFillSchema);
const soundFill = anythingOf(soundFillSchema.omit({ sound: true, name: true }));

/** What stands in a slot: the user's, or a picture as it would be put there. */
const shownIn = (title: Graphic, slot: string) => {
  const held = title.fill.slots[slot];
  return isPicture(held) ? held : freshPicture(PHOTO);
};
const slotsOf = (title: Graphic, ...kinds: Slot['kind'][]) =>
  title.template.slots.filter((s) => kinds.includes(s.kind));

/** Something that holds one value or values over time, and what writes it back. */
interface Timed {
  readonly item: ReelItem;
  readonly held: ControlFill;
  readonly value: ControlValue;
  readonly write: (next: ControlFill) => Reel;
}

/** One of the things that can have keyframes: a control, a part of the framing, a value of a treatment. */
function timedOf(reel: Reel, [a = 0, b = 0, c = 0]: Dice, at: number): Timed | undefined {
  const item = anItem(reel, a);
  if (!item) return undefined;
  const { id } = item;
  if (item.kind === 'graphic' && c % 2 === 0) {
    const template = reel.templates[item.template]!;
    const control = one(
      template.controls.filter((k) => canBeKeyed(template, k)),
      b,
    );
    if (!control) return undefined;
    const value = settingOf(control, at);
    return {
      item,
      held: item.fill.controls[control.id] ?? value,
      value,
      write: (next) => edits.setControl(reel, id, control.id, next),
    };
  }
  const treated = one(item.treatments ?? [], b);
  if (treated && c % 3 === 0) {
    const field = one(TREATMENTS[treated.effect].fields, b);
    const of: Treated = { kind: 'item', item: id };
    if (!field) return undefined;
    const { number } = field;
    const value = number ? (number.min + at * (number.max - number.min)) / number.times : '#C8431C';
    return {
      item,
      held: treatmentHeld(reel, of, treated.id, field.key) ?? value,
      value,
      write: (next) => holdTreatment(reel, of, treated.id, field.key, next),
    };
  }
  const key = FRAMING_KEYS[b % FRAMING_KEYS.length]!;
  return {
    item,
    held: framingHeld(item, key),
    value: framingValue(key, at) as ControlValue,
    write: (next) => holdFraming(reel, id, key, next as never),
  };
}

const framingValue = (key: FramingKey, at: number): number | number[] =>
  ({
    move: [at * 400 - 200, 50],
    scale: 0.2 + at * 2,
    turn: at * 720 - 360,
    opacity: at,
    crop: [at / 2, 0, 0, at / 3],
  })[key];

const placing: readonly Step[] = [
  step('add a title', part, (reel, [a, at = 0], _, { templates }) => ({
    reel: addTitle(reel, one(templates, a)!, at % 900).reel,
    on: [],
  })),
  step('add a title after the last', NOTHING, (reel, [a], _, { templates }) => ({
    reel: addTitleAfter(reel, one(templates, a)!).reel,
    on: [],
  })),
  step('add a file', NOTHING, (reel, [a, at = 0]) => ({
    reel: addFile(reel, one(ODD_FILES, a)!.file, at % 900).reel,
    on: [],
  })),
  step('add files', NOTHING, (reel, [a, b, at = 0]) => ({
    reel: addFiles(reel, [one(ODD_FILES, a)!.file, one(ODD_FILES, b)!.file], at % 900).reel,
    on: [],
  })),
  step('add a colour', NOTHING, (reel, [at = 0]) => ({
    reel: addColour(reel, '#203040', at % 900).reel,
    on: [],
  })),
  step('move', frames(400), (reel, dice, by) => {
    const on = some(reel, dice);
    if (on.length === 0) return undefined;
    return { reel: moveItems(reel, on, by, dice[3]! % 2 ? one(reel.tracks, dice[4])?.id : undefined), on };
  }),
  step(
    'trim',
    fc.tuple(fc.constantFrom('start' as const, 'end' as const), frames(300)),
    (reel, [a], [end, by]) => {
      const item = anItem(reel, a);
      if (!item) return undefined;
      const edge = spanOf(reel, item)[end === 'start' ? 0 : 1];
      return { reel: trimItem(reel, item.id, end, edge + by), on: [item.id] };
    },
  ),
  step('slip', frames(200), (reel, [a], by) => {
    const item = anItem(reel, a, 'clip', 'sound');
    return item && { reel: slipItem(reel, item.id, by / 40), on: [item.id] };
  }),
  step('cut', NOTHING, (reel, [a, at]) => {
    const item = anItem(reel, a);
    return item && { reel: cutItem(reel, item.id, frameIn(reel, item, at)), on: [item.id], alike: true };
  }),
  step('remove', fc.boolean(), (reel, dice, close) => {
    const on = some(reel, dice);
    return { reel: removeItems(reel, on, close), on: close ? 'all' : on };
  }),
  step('copy', NOTHING, (reel, dice) => {
    const on = some(reel, dice);
    return on.length === 0 ? undefined : { reel: copyItems(reel, on, dice[3]! % 900).reel, on: [] };
  }),
  step('take the sound apart', NOTHING, (reel, [a]) => {
    const item = anItem(reel, a, 'clip');
    return item && { reel: splitSound(reel, item.id), on: [item.id] };
  }),
  step('freeze', fc.integer({ min: 1, max: 120 }), (reel, [a, at], long) => {
    const item = anItem(reel, a, 'clip');
    return item && { reel: freezeItem(reel, item.id, frameIn(reel, item, at), long).reel, on: 'all' };
  }),
  step('freeze into a title', NOTHING, (reel, [a, at, t], _, { templates }) => {
    const item = anItem(reel, a, 'clip');
    const template = one(templates, t)!;
    return (
      item && {
        reel: freezeInto(reel, item.id, frameIn(reel, item, at), template, { slots: {}, controls: {} }).reel,
        on: 'all',
      }
    );
  }),
  step('lay over a cut', NOTHING, (reel, [a, at = 0]) => {
    const item = anItem(reel, a);
    return item && { reel: centreOnCut(reel, item.id, at % 900), on: [item.id] };
  }),
  step('take along', NOTHING, (reel, dice, _, bench) => {
    const copied = takeAlong(reel, some(reel, dice));
    if (!copied) return undefined;
    bench.copied = copiedSchema.parse(JSON.parse(JSON.stringify(copied)));
    return { reel, on: [], alike: true };
  }),
  step(
    'paste',
    NOTHING,
    (reel, [at = 0], _, { copied }) => copied && { reel: pasteItems(reel, copied, at % 900).reel, on: [] },
  ),
  step('a track', fc.constantFrom('hidden', 'silent', 'locked', 'name'), (reel, [a], what) => {
    const track = one(reel.tracks, a);
    if (!track) return undefined;
    const next = what === 'name' ? `Track ${a}` : track[what as 'hidden'] ? undefined : true;
    return { reel: changeTracks(reel, (t) => (t === track ? given({ ...t, [what]: next }) : t)), on: [] };
  }),
  step('rate', NOTHING, (reel, [a]) => ({ reel: setRate(reel, one(OFFERED_RATES, a)!), on: 'all' })),
  step('shape', fc.constantFrom('wide' as const, 'tall' as const, 'square' as const), (reel, _, shape) => ({
    reel: edits.setShape(reel, shape),
    on: 'all',
  })),
  step('motion blur', fc.integer({ min: 1, max: 8 }), (reel, _, samples) => ({
    reel: edits.setMotionBlur(reel, { samples, shutter: 0.5 }),
    on: 'all',
  })),
  step('level', frames(40), (reel, _, level) => ({ reel: { ...reel, level }, on: 'all' })),
  step('name', words, (reel, _, name) => ({ reel: edits.renameReel(reel, name), on: [] })),
];

const marking: readonly Step[] = [
  step('add a marker', fc.constantFrom(...MARKER_USES), (reel, [at = 0], use) => ({
    reel: addMarker(reel, at % 900, use, 'Here').reel,
    on: [],
    alike: true,
  })),
  step('change a marker', frames(900), (reel, [a], to) => {
    const marker = one(reel.markers, a);
    return marker && { reel: changeMarker(reel, marker.id, { frame: Math.abs(to) }), on: meeting(reel) };
  }),
  step('remove a marker', NOTHING, (reel, [a]) => {
    const marker = one(reel.markers, a);
    return marker && { reel: removeMarkers(reel, [marker.id]), on: meeting(reel) };
  }),
  step('meet', NOTHING, (reel, [a, b, c]) => {
    const item = one(
      itemsOf(reel).filter((i) => cuesOf(reel, i).length > 0),
      a,
    );
    const cue = item && one(cuesOf(reel, item), b);
    const marker = one(reel.markers, c);
    return item && cue && marker && { reel: meet(reel, item.id, cue.id, marker.id), on: [item.id] };
  }),
  step('meet no more', NOTHING, (reel, [a]) => {
    const item = anItem(reel, a, 'graphic');
    return item && { reel: stopMeeting(reel, item.id), on: [item.id] };
  }),
  step('copy to the next marker', NOTHING, (reel, [a]) => {
    const item = anItem(reel, a);
    return item && { reel: copyToMarker(reel, item.id).reel, on: [] };
  }),
];

/** Titles that go where their markers go. */
const meeting = (reel: Reel) => itemsOf(reel).flatMap((i) => (i.kind === 'graphic' && i.meets ? [i.id] : []));

const following: readonly Step[] = [
  step(
    'follow something',
    fc.array(frames(60), { minLength: 1, maxLength: 8 }),
    (reel, [a, b = 0], moves) => {
      const item = anItem(reel, a, 'clip');
      if (item?.kind !== 'clip') return undefined;
      const begun = (b % 200) / 40;
      const added = addWay(reel, item, begun, { x: 100, y: 80, a: 1, b: 0 }, 20);
      const samples = moves.map(
        (m, i) =>
          [begun + (i + 1) / 25, 100 + m, 80 - m, 1 + m / 100, 0, 0.9] as [
            number,
            number,
            number,
            number,
            number,
            number,
          ],
      );
      return { reel: putSamples(added.reel, added.id, samples), on: [], alike: true };
    },
  ),
  step('correct a way', frames(100), (reel, [a], x) => {
    const way = one(reel.ways, a);
    return (
      way && {
        reel: correctWay(reel, way.id, Math.abs(x) / 40, { x, y: 10, a: 1, b: 0 }),
        on: goingAlong(reel, way.id),
      }
    );
  }),
  step('remove a way', NOTHING, (reel, [a]) => {
    const way = one(reel.ways, a);
    return way && { reel: removeWay(reel, way.id), on: goingAlong(reel, way.id) };
  }),
  step('go along', fc.tuple(fc.boolean(), fc.boolean(), part), (reel, [a, b], [grows, turns, smooth]) => {
    const item = anItem(reel, a);
    const way = one(reel.ways, b);
    if (!item || !way) return undefined;
    return {
      reel: setFollow(reel, item.id, { way: way.id, at: way.marks[0]!.at, grows, turns, smooth }),
      on: [item.id],
    };
  }),
  step('stay', NOTHING, (reel, [a]) => {
    const item = anItem(reel, a);
    return item && { reel: setFollow(reel, item.id, undefined), on: [item.id] };
  }),
  step('drive a point', part, (reel, [a, b, c], smooth) => {
    const title = aTitle(reel, a, (t) => t.template.controls.some((k) => k.kind === 'point'));
    const way = one(reel.ways, b);
    const point =
      title &&
      one(
        title.template.controls.filter((k) => k.kind === 'point'),
        c,
      );
    return (
      title &&
      way &&
      point && { reel: drivePoint(reel, title.id, point.id, { way: way.id, smooth }), on: [title.id] }
    );
  }),
];

const goingAlong = (reel: Reel, way: string) =>
  itemsOf(reel).flatMap((i) =>
    i.follow?.way === way ||
    (i.kind === 'graphic' && Object.values(i.points ?? {}).some((p) => p.way === way))
      ? [i.id]
      : [],
  );

const filling: readonly Step[] = [
  step('type words', words, (reel, [a, b], text) => {
    const title = aTitle(reel, a, hasSlots('text', 'list'));
    const slot = title && one(slotsOf(title, 'text', 'list'), b);
    if (!title || !slot) return undefined;
    const held = title.fill.slots[slot.id];
    const next = isWords(held) && slot.kind === 'text' ? retype(held, text) : text;
    return { reel: edits.setSlot(reel, title.id, slot.id, next), on: [title.id] };
  }),
  step('mark words', fc.tuple(part, part, fc.boolean()), (reel, [a, b], [from, to, underline]) => {
    const title = aTitle(reel, a, (t) => Object.values(t.fill.slots).some((held) => isWords(held)));
    const slot = title && one(slotsOf(title, 'text'), b);
    const held = slot && title.fill.slots[slot.id];
    if (!title || !slot || !isWords(held)) return undefined;
    const length = plainText(held).length;
    const marked = markWords(held, Math.floor(from * length), Math.ceil(to * length), {
      marked: true,
      ...(underline ? { underline, weight: 900, colour: '#C8431C' } : {}),
    });
    return { reel: edits.setSlot(reel, title.id, slot.id, marked), on: [title.id] };
  }),
  step('leave a slot empty', NOTHING, (reel, [a, b]) => {
    const title = aTitle(reel, a);
    const slot = title && one(title.template.slots, b);
    return title && slot && { reel: edits.setSlot(reel, title.id, slot.id, null), on: [title.id] };
  }),
  step('hide or show a slot', fc.boolean(), (reel, [a, b], hide) => {
    const title = aTitle(reel, a);
    const slot = title && one(title.template.slots, b);
    return title && slot && { reel: edits.hideSlot(reel, title.id, slot.id, hide), on: [title.id] };
  }),
  step('put a slot back', NOTHING, (reel, [a, b]) => {
    const title = aTitle(reel, a);
    const slot = title && one(title.template.slots, b);
    return title && slot && { reel: edits.resetSlot(reel, title.id, slot.id), on: [title.id] };
  }),
  step('pour files', NOTHING, (reel, [a, b, c, d]) => {
    const title = aTitle(reel, a, hasSlots('picture', 'logo'));
    const slot = title && one(slotsOf(title, 'picture', 'logo'), b);
    const files = [c, d].map(
      (die) =>
        one(
          ODD_FILES.filter(({ file }) => file.kind !== 'sound'),
          die,
        )!.file,
    );
    return title && slot && { reel: edits.pourMedia(reel, title.id, slot.id, files), on: [title.id] };
  }),
  step('swap two slots', NOTHING, (reel, [a, b, c]) => {
    const title = aTitle(reel, a, hasSlots('picture'));
    const [from, to] = title ? [one(slotsOf(title, 'picture'), b), one(slotsOf(title, 'picture'), c)] : [];
    if (!title || !from || !to) return undefined;
    const held = (s: Slot) => shownIn(title, s.id);
    return {
      reel: edits.swapSlots(reel, title.id, [from.id, held(from)], [to.id, held(to)]),
      on: [title.id],
    };
  }),
  step('how a picture sits', picture, (reel, [a, b], sits) => {
    const title = aTitle(reel, a, hasSlots('picture', 'logo'));
    const slot = title && one(slotsOf(title, 'picture', 'logo'), b);
    if (!title || !slot) return undefined;
    return {
      reel: edits.adjustPicture(reel, title.id, slot.id, shownIn(title, slot.id), sits),
      on: [title.id],
    };
  }),
  step('how a clip plays in a slot', clipFill, (reel, [a, b], plays) => {
    const title = aTitle(reel, a, hasSlots('picture', 'logo'));
    const slot = title && one(slotsOf(title, 'picture', 'logo'), b);
    if (!title || !slot) return undefined;
    return {
      reel: edits.adjustClip(reel, title.id, slot.id, shownIn(title, slot.id), plays),
      on: [title.id],
    };
  }),
  step('a sound in a slot', soundFill, (reel, [a, b], plays) => {
    const title = aTitle(reel, a, hasSlots('sound'));
    const slot = title && one(slotsOf(title, 'sound'), b);
    const held: SlotFill = { ...plays, sound: MUSIC } as SlotFill;
    return title && slot && { reel: edits.setSlot(reel, title.id, slot.id, held), on: [title.id] };
  }),
  step('another file', NOTHING, (reel, [a, b]) => ({
    reel: edits.replaceMedia(reel, one(ODD_FILES, a)!.file.media, one(ODD_FILES, b)!.file),
    on: 'all',
  })),
  step('another template', NOTHING, (reel, [a, b], _, { templates }) => {
    const title = aTitle(reel, a);
    return title && { reel: setTemplate(reel, title.id, one(templates, b)!).reel, on: [title.id] };
  }),
  step('another edition', NOTHING, (reel, [a], _, { templates }) => {
    const title = aTitle(reel, a, (t) => templates.some((o) => o.id === t.template.id && o !== t.template));
    const other = title && templates.find((t) => t.id === title.template.id && t !== title.template);
    return title && other && { reel: setEdition(reel, [title.id], other), on: [title.id] };
  }),
  step('wear a brand', fc.tuple(brand, fc.constantFrom('one', 'spread', 'all')), (reel, [a], [worn, how]) => {
    const title = aTitle(reel, a);
    if (how === 'all') return { reel: edits.reelWearing(reel, worn), on: 'all' };
    const wear = how === 'one' ? edits.applyBrand : edits.applySpread;
    return title && { reel: wear(reel, title.id, worn), on: [title.id] };
  }),
  step('keep as a template', NOTHING, (reel, [a], _, { templates }) => {
    const title = aTitle(reel, a);
    if (!title) return undefined;
    const id = `own-${templates.length}`;
    const kept = keptTemplate(title.template, title.fill, layoutFrame(reel.frame), { id, name: 'Own' });
    return { reel: addTitle(reel, kept, endOf(reel, title.id)).reel, on: [] };
  }),
  step('rows of a table', fc.array(frames(900), { minLength: 1, maxLength: 4 }), (reel, [a], rows) => {
    const title = aTitle(reel, a);
    if (!title) return undefined;
    const placed = rows.map((at) => ({ reel, ...(at < 0 ? {} : { from: at, to: at + 90 }) }));
    return { reel: placeRows(reel, title.id, placed).reel, on: [] };
  }),
];

const adjusting: readonly Step[] = [
  step('a control', part, (reel, [a, b], at) => {
    const title = aTitle(reel, a);
    const control = title && one(title.template.controls, b);
    return (
      title &&
      control && {
        reel: edits.setControl(reel, title.id, control.id, settingOf(control, at)),
        on: [title.id],
      }
    );
  }),
  step('put a control back', NOTHING, (reel, [a, b]) => {
    const title = aTitle(reel, a);
    const control = title && one(title.template.controls, b);
    return title && control && { reel: edits.resetControl(reel, title.id, control.id), on: [title.id] };
  }),
  step('a look', NOTHING, (reel, [a, b]) => {
    const title = aTitle(reel, a);
    const look = title && one(title.template.looks, b);
    return title && look && { reel: edits.chooseLook(reel, title.id, look.id), on: [title.id] };
  }),
  step('without depth', fc.boolean(), (reel, [a], flat) => {
    const title = aTitle(reel, a);
    return title && { reel: edits.setFlat(reel, title.id, flat), on: [title.id] };
  }),
  step(
    'keys',
    fc.tuple(
      fc.constantFrom('put', 'put', 'put', 'move', 'copy', 'remove', 'own', 'ease'),
      part,
      frames(200),
      ease,
    ),
    (reel, dice, [what, at, frame, curve]) => {
      const timed = timedOf(reel, dice, at);
      if (!timed) return undefined;
      const { item, held, value, write } = timed;
      const clock = framingClock(reel, item);
      const index = (dice[3] ?? 0) % Math.max(1, keysOf(held, clock).length);
      const next =
        what === 'put'
          ? putKey(held, clock, Math.abs(frame), value)
          : what === 'move'
            ? moveKey(held, clock, index, frame)
            : what === 'copy'
              ? copyKey(held, clock, index, Math.abs(frame))
              : what === 'remove'
                ? removeKey(held, clock, index)
                : !isKeyed(held)
                  ? held
                  : what === 'own'
                    ? ownKey(held, clock, index, 'in')
                    : easeKey(held, clock, index, curve);
      return { reel: write(next), on: [item.id] };
    },
  ),
  step(
    'lie in the frame',
    fc.tuple(framing, fc.constantFrom(...FRAMING_KEYS, 'blend' as const)),
    (reel, [a], [lies, key]) => {
      const item = anItem(reel, a);
      return item && { reel: holdFraming(reel, item.id, key, lies[key]), on: [item.id] };
    },
  ),
  step('drag in the frame', fc.tuple(part, fc.constantFrom(...FRAMING_KEYS)), (reel, [a, at], [to, key]) => {
    const item = anItem(reel, a);
    if (!item) return undefined;
    const frame = frameIn(reel, item, at);
    return { reel: putFraming(reel, item.id, key, framingValue(key, to), frame), on: [item.id] };
  }),
  step('turn about a point', fc.tuple(part, part), (reel, [a, at], [scale, turn]) => {
    const item = anItem(reel, a);
    if (!item) return undefined;
    const frame = frameIn(reel, item, at);
    const to = { scale: 0.1 + scale * 3, turn: turn * 360 };
    return { reel: turnAbout(reel, item.id, [300, 200], to, frame, layoutFrame(reel.frame)), on: [item.id] };
  }),
  step(
    'fade',
    fc.tuple(fc.constantFrom('in' as const, 'out' as const), frames(100)),
    (reel, [a], [side, long]) => {
      const item = anItem(reel, a);
      return item && { reel: setFade(reel, item.id, side, long), on: [item.id] };
    },
  ),
  step('how a clip plays', clipFill, (reel, [a], { length: _, ...plays }) => {
    const item = anItem(reel, a, 'clip');
    return (
      item && { reel: changeItem(reel, item.id, (i) => ({ ...i, clip: plays }) as ReelItem), on: [item.id] }
    );
  }),
  step('treat', fc.constantFrom(...(Object.keys(TREATMENTS) as TreatmentKind[])), (reel, dice, kind) => {
    const of = treatedOf(reel, dice);
    return of && { reel: addTreatment(reel, of, kind, true), on: [of.item] };
  }),
  step('treat otherwise', fc.constantFrom('remove', 'off', 'on', 'up', 'down'), (reel, dice, how) => {
    const treated = itemsOf(reel).filter((i) => i.treatments);
    const item = one(treated, dice[0]);
    const of: Treated | undefined =
      item && dice[2]! % 4 ? { kind: 'item', item: item.id } : treatedOf(reel, dice);
    const held = of && one(treatmentsOf(reel, of), dice[3]);
    if (!of || !held) return undefined;
    const next =
      how === 'remove'
        ? removeTreatment(reel, of, held.id)
        : how === 'on' || how === 'off'
          ? switchTreatment(reel, of, held.id, how === 'on')
          : moveTreatment(reel, of, held.id, how === 'up' ? 1 : -1);
    return { reel: next, on: [of.item] };
  }),
  step('switch an effect of the template', fc.boolean(), (reel, [a, b, c], on) => {
    const title = aTitle(reel, a, hasSlots('picture', 'logo'));
    const slot = title && one(slotsOf(title, 'picture', 'logo'), b);
    const effect = title && slot && one(effectsOnSlot(title.template, slot.id), c);
    if (!title || !slot || !effect) return undefined;
    const of = { kind: 'slot' as const, item: title.id, slot: slot.id, shown: shownIn(title, slot.id) };
    return { reel: switchTemplateEffect(reel, of, effect.key, on), on: [title.id] };
  }),
];

function treatedOf(reel: Reel, [a, b, c = 0]: Dice): Treated | undefined {
  const item = anItem(reel, a, 'graphic', 'clip', 'still', 'colour');
  const title = item?.kind === 'graphic' ? graphicsOf(reel).find((g) => g.id === item.id) : undefined;
  const slot = title && c % 2 ? one(slotsOf(title, 'picture', 'logo'), b) : undefined;
  if (title && slot) return { kind: 'slot', item: title.id, slot: slot.id, shown: shownIn(title, slot.id) };
  return item && { kind: 'item', item: item.id };
}

/** Words of a title as they stand: its own text layers. */
const textsOf = (title: Graphic) =>
  [...everyLayer(title.template.layers)].flatMap((l) => (l.kind === 'text' ? [l] : []));

/** Parts of a text that the tools take as they are, change one thing of, and write. */
const TAKEN = ['plates', 'outlines', 'shadow', 'fill', 'motion', 'effects', 'fit', 'along', 'axes'] as const;

const lettering: readonly Step[] = [
  step('change a text', textChange, (reel, [a, b], change) => {
    const title = aTitle(reel, a);
    const layer = title && one(textsOf(title), b);
    return title && layer && { reel: edits.changeText(reel, title.id, layer.id, change), on: [title.id] };
  }),
  step('change a part of a text', fc.tuple(textChange, part), (reel, [a, b, c], [change, at]) => {
    const title = aTitle(reel, a);
    const layer = title && one(textsOf(title), b);
    const key = one(Object.keys(change) as (keyof Fill)[], c);
    if (!title || !layer || !key) return undefined;
    const next = at < 0.2 ? undefined : change[key as keyof typeof change];
    return { reel: edits.changeText(reel, title.id, layer.id, { [key]: next }), on: [title.id] };
  }),
  // With the template's own links in it: to its controls, which no other template has.
  step('begin from what a text has', NOTHING, (reel, [a, b, c]) => {
    const title = aTitle(reel, a);
    const layer = title && one(textsOf(title), b);
    const key = one(TAKEN, c)!;
    const own = layer?.[key as keyof typeof layer];
    if (!title || !layer || own === undefined) return undefined;
    const { fit } = layer;
    const taken = key === 'fit' && fit ? { fit: { ...fit } } : { [key]: own };
    return { reel: edits.changeText(reel, title.id, layer.id, taken), on: [title.id] };
  }),
  step('put a text back', NOTHING, (reel, [a, b]) => {
    const title = aTitle(reel, a, (t) => t.fill.texts !== undefined);
    const layer = title && one(Object.keys(title.fill.texts ?? {}), b);
    if (!title || !layer) return undefined;
    const back = Object.fromEntries(Object.keys(title.fill.texts![layer]!).map((k) => [k, undefined]));
    return { reel: edits.changeText(reel, title.id, layer, back), on: [title.id] };
  }),
  step('make alike', fc.subarray([...ASPECTS]), (reel, [a], aspects) => {
    const title = aTitle(reel, a, (t) => sameKind(reel, t.id).length > 0);
    if (!title) return undefined;
    const on = sameKind(reel, title.id);
    return { reel: makeAlike(reel, title.id, on, aspects), on };
  }),
  step('swap a family', NOTHING, (reel, [a]) => {
    const family = one([...familiesOf(reel).keys()], a);
    return family === undefined ? undefined : { reel: swapFamily(reel, family, 'Figtree'), on: 'all' };
  }),
];

/** Every way in which the interface changes a reel. */
export const STEPS: readonly Step[] = [
  ...placing,
  ...marking,
  ...following,
  ...filling,
  ...adjusting,
  ...lettering,
];
