import fc from 'fast-check';
import { brandSchema } from '../../documents/brand';
import { canBeKeyed, isKeyed } from '../../documents/controls';
import {
  type ControlFill,
  type ControlValue,
  EMPTY_FILL,
  isPicture,
  isWords,
  type SlotFill,
  soundFillSchema,
} from '../../documents/fill';
import { framingSchema, MARKER_USES, type Marker, type ReelItem } from '../../documents/item';
import type { Graphic, Reel } from '../../documents/reel';
import type { Control, Slot, Template } from '../../documents/template';
import type { Way, WaySample } from '../../documents/way';
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
import type { TextLayer } from '../../layers/textSchema';
import { type TextChange, textChangeSchema } from '../../layers/textStyle';
import { clipFillSchema, freshPicture, pictureFillSchema } from '../../media/pictureFill';
import { type Easing, easingSchema } from '../../motion/easing';
import { graphicsOf } from '../../reel/graphicTime';
import { placeRows } from '../../tables/rows';
import type { Clock } from '../../time/clock';
import { OFFERED_RATES } from '../../time/rate';
import { layoutFrame } from '../../values/frame';
import { anythingOf } from './anything';
import { MUSIC, ODD_FILES, oddFacts, PHOTO } from './media';
import { settingOf } from './settings';

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
const anItem = (reel: Reel, die: number | undefined, kinds: readonly ReelItem['kind'][] = []) =>
  one(
    itemsOf(reel).filter((i) => kinds.length === 0 || kinds.includes(i.kind)),
    die,
  );
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
const slotsOf = (title: Graphic, kinds: readonly Slot['kind'][]) =>
  title.template.slots.filter((s) => kinds.length === 0 || kinds.includes(s.kind));
/** Words of a title as they stand: its own text layers. */
const textsOf = (title: Graphic) =>
  [...everyLayer(title.template.layers)].flatMap((l) => (l.kind === 'text' ? [l] : []));
const pointsOf = ({ template }: Graphic) => template.controls.filter((k) => k.kind === 'point');

/** What an edit makes; nothing where there is nothing for it. */
type Made = Reel | undefined;

const madeOn = (reel: Made, ...on: readonly string[]): Stepped | undefined => reel && { reel, on };

/** Seconds of an item's file; one that is not there never ends. */
const lasting = (item: ReelItem) =>
  ('media' in item ? oddFacts(item.media)?.duration : undefined) ?? Number.POSITIVE_INFINITY;

/** A step that is meant for one item, of some kinds or of any. */
const itemStep = <T>(
  name: string,
  draws: fc.Arbitrary<T>,
  kinds: readonly ReelItem['kind'][],
  by: (reel: Reel, item: ReelItem, drawn: T, dice: Dice) => Made,
): Step =>
  step(name, draws, (reel, dice, drawn) => {
    const item = anItem(reel, dice[0], kinds);
    return item && madeOn(by(reel, item, drawn, dice), item.id);
  });

/** A step that is meant for one title, of those that suit. */
const titleStep = <T>(
  name: string,
  draws: fc.Arbitrary<T>,
  by: (reel: Reel, title: Graphic, drawn: T, dice: Dice, bench: Bench) => Made,
  suits: (title: Graphic, bench: Bench) => boolean = () => true,
): Step =>
  step(name, draws, (reel, dice, drawn, bench) => {
    const title = one(
      graphicsOf(reel).filter((t) => suits(t, bench)),
      dice[0],
    );
    return title && madeOn(by(reel, title, drawn, dice, bench), title.id);
  });

/** A step that is meant for one slot of a title, of some kinds or of any. */
const slotStep = <T>(
  name: string,
  draws: fc.Arbitrary<T>,
  kinds: readonly Slot['kind'][],
  by: (reel: Reel, title: Graphic, slot: Slot, drawn: T, dice: Dice) => Made,
): Step =>
  titleStep(
    name,
    draws,
    (reel, title, drawn, dice) => by(reel, title, one(slotsOf(title, kinds), dice[1])!, drawn, dice),
    (title) => slotsOf(title, kinds).length > 0,
  );

/** A step that is meant for one control of a title. */
const controlStep = <T>(
  name: string,
  draws: fc.Arbitrary<T>,
  by: (reel: Reel, title: Graphic, control: Control, drawn: T) => Made,
): Step =>
  titleStep(
    name,
    draws,
    (reel, title, drawn, dice) => by(reel, title, one(title.template.controls, dice[1])!, drawn),
    (title) => title.template.controls.length > 0,
  );

/** A step that is meant for one text of a title. */
const textStep = <T>(
  name: string,
  draws: fc.Arbitrary<T>,
  by: (reel: Reel, title: Graphic, layer: TextLayer, drawn: T, dice: Dice) => Made,
): Step =>
  titleStep(
    name,
    draws,
    (reel, title, drawn, dice) => by(reel, title, one(textsOf(title), dice[1])!, drawn, dice),
    (title) => textsOf(title).length > 0,
  );

/** A step that is meant for one way, and for all that goes along with it. */
const wayStep = <T>(
  name: string,
  draws: fc.Arbitrary<T>,
  by: (reel: Reel, way: Way, drawn: T) => Made,
): Step =>
  step(name, draws, (reel, [a], drawn) => {
    const way = one(reel.ways, a);
    return way && madeOn(by(reel, way, drawn), ...goingAlong(reel, way.id));
  });

/** A step that is meant for one marker, and for the titles that go where their markers go. */
const markerStep = <T>(
  name: string,
  draws: fc.Arbitrary<T>,
  by: (reel: Reel, marker: Marker, drawn: T) => Made,
): Step =>
  step(name, draws, (reel, [a], drawn) => {
    const marker = one(reel.markers, a);
    return marker && madeOn(by(reel, marker, drawn), ...meeting(reel));
  });

const goingAlong = (reel: Reel, way: string) =>
  itemsOf(reel).flatMap((i) =>
    i.follow?.way === way ||
    (i.kind === 'graphic' && Object.values(i.points ?? {}).some((p) => p.way === way))
      ? [i.id]
      : [],
  );
const meeting = (reel: Reel) => itemsOf(reel).flatMap((i) => (i.kind === 'graphic' && i.meets ? [i.id] : []));

const WORDS = [
  ...['', ' ', '12', 'Wren', 'one\ntwo\nthree\nfour\nfive\nsix', '\u{1FA81}\u{1FA81}'],
  'Wilhelmina Featherstonehaugh-Ravenscroft, chair of the Marram and District Flyers',
  ...['مهرجان الطائرات', '風箏', 'पतंग Kite ปตท'],
];
const words = fc.oneof(fc.constantFrom(...WORDS), fc.string({ unit: 'grapheme', maxLength: 40 }));
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

/** Something that holds one value or values over time. */
interface Timed {
  readonly item: ReelItem;
  /** What is set of it; nothing while it is as it comes. */
  readonly held: ControlFill | undefined;
  /** A value of it, from a number between 0 and 1. */
  readonly value: (part: number) => ControlValue;
  readonly write: (next: ControlFill) => Reel;
}

/** All of an item that can have keyframes: controls, how it lies, values of its treatments. */
function timedOf(reel: Reel, item: ReelItem): Timed[] {
  const { id } = item;
  const lies = FRAMING_KEYS.map((key) => ({
    item,
    held: framingHeld(item, key),
    value: (part: number) => framingValue(key, part) as ControlValue,
    write: (next: ControlFill) => holdFraming(reel, id, key, next as never),
  }));
  const of: Treated = { kind: 'item', item: id };
  const treated = (item.treatments ?? []).flatMap((treatment) =>
    TREATMENTS[treatment.effect].fields.map(({ key, number }) => ({
      item,
      held: treatmentHeld(reel, of, treatment.id, key),
      value: (part: number) =>
        number ? (number.min + part * (number.max - number.min)) / number.times : '#C8431C',
      write: (next: ControlFill) => holdTreatment(reel, of, treatment.id, key, next),
    })),
  );
  if (item.kind !== 'graphic') return [...lies, ...treated];
  const template = reel.templates[item.template]!;
  const controls = template.controls
    .filter((control) => canBeKeyed(template, control))
    .map((control) => ({
      item,
      held: item.fill.controls[control.id],
      value: (part: number) => settingOf(control, part),
      write: (next: ControlFill) => edits.setControl(reel, id, control.id, next),
    }));
  return [...lies, ...treated, ...controls];
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
  step('add a title', NOTHING, (reel, [a, at = 0], _, { templates }) =>
    madeOn(addTitle(reel, one(templates, a)!, at % 900).reel),
  ),
  step('add a title after the last', NOTHING, (reel, [a], _, { templates }) =>
    madeOn(addTitleAfter(reel, one(templates, a)!).reel),
  ),
  step('add a file', NOTHING, (reel, [a, at = 0]) =>
    madeOn(addFile(reel, one(ODD_FILES, a)!.file, at % 900).reel),
  ),
  step('add files', NOTHING, (reel, [a, b, at = 0]) =>
    madeOn(addFiles(reel, [one(ODD_FILES, a)!.file, one(ODD_FILES, b)!.file], at % 900).reel),
  ),
  step('add a colour', NOTHING, (reel, [at = 0]) => madeOn(addColour(reel, '#203040', at % 900).reel)),
  step('move', frames(400), (reel, dice, by) => {
    const on = some(reel, dice);
    const track = dice[3]! % 2 ? one(reel.tracks, dice[4])?.id : undefined;
    return on.length === 0 ? undefined : madeOn(moveItems(reel, on, by, track), ...on);
  }),
  itemStep('trim', fc.tuple(fc.constantFrom('start', 'end'), frames(300)), [], (reel, item, [end, by]) => {
    const edge = spanOf(reel, item)[end === 'start' ? 0 : 1];
    return trimItem(reel, item.id, end, edge + by);
  }),
  itemStep('slip', frames(200), ['clip', 'sound'], (reel, item, by) => slipItem(reel, item.id, by / 40)),
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
    return on.length === 0 ? undefined : madeOn(copyItems(reel, on, dice[3]! % 900).reel);
  }),
  itemStep('take the sound apart', NOTHING, ['clip'], (reel, item) =>
    splitSound(reel, item.id, lasting(item)),
  ),
  step('freeze', fc.integer({ min: 1, max: 120 }), (reel, [a, at], long) => {
    const item = anItem(reel, a, ['clip']);
    return (
      item && {
        reel: freezeItem(reel, item.id, frameIn(reel, item, at), long, lasting(item)).reel,
        on: 'all',
      }
    );
  }),
  step('freeze into a title', NOTHING, (reel, [a, at, t], _, { templates }) => {
    const item = anItem(reel, a, ['clip']);
    if (!item) return undefined;
    const frame = frameIn(reel, item, at);
    const template = one(templates, t)!;
    return {
      reel: freezeInto(reel, item.id, frame, template, EMPTY_FILL, lasting(item)).reel,
      on: 'all',
    };
  }),
  itemStep('lay over a cut', NOTHING, [], (reel, item, _, [, at = 0]) =>
    centreOnCut(reel, item.id, at % 900),
  ),
  step('take along', NOTHING, (reel, dice, _, bench) => {
    const copied = takeAlong(reel, some(reel, dice));
    if (!copied) return undefined;
    bench.copied = copiedSchema.parse(JSON.parse(JSON.stringify(copied)));
    return { reel, on: [], alike: true };
  }),
  step('paste', NOTHING, (reel, [at = 0], _, { copied }) =>
    madeOn(copied && pasteItems(reel, copied, at % 900).reel),
  ),
  step('a track', fc.constantFrom('hidden', 'silent', 'locked', 'name'), (reel, [a], what) => {
    const track = one(reel.tracks, a);
    if (!track) return undefined;
    const next = what === 'name' ? `Track ${a}` : track[what as 'hidden'] ? undefined : true;
    return madeOn(
      changeTracks(reel, (t) => (t === track ? given({ ...t, [what]: next }) : t)),
      // They stay as they are, but look otherwise.
      ...(what === 'hidden' ? track.items.map((i) => i.id) : []),
    );
  }),
  step('rate', NOTHING, (reel, [a]) => ({ reel: setRate(reel, one(OFFERED_RATES, a)!), on: 'all' })),
  step('shape', fc.constantFrom('wide', 'tall', 'square'), (reel, _, shape) => ({
    reel: edits.setShape(reel, shape),
    on: 'all',
  })),
  step('motion blur', fc.integer({ min: 1, max: 8 }), (reel, _, samples) => ({
    reel: edits.setMotionBlur(reel, { samples, shutter: 0.5 }),
    on: 'all',
  })),
  step('level', frames(40), (reel, _, level) => ({ reel: { ...reel, level }, on: 'all' })),
  step('name', words, (reel, _, name) => madeOn(edits.renameReel(reel, name))),
];

const marking: readonly Step[] = [
  step('add a marker', fc.constantFrom(...MARKER_USES), (reel, [at = 0], use) => ({
    reel: addMarker(reel, at % 900, use, 'Here').reel,
    on: [],
    alike: true,
  })),
  markerStep('change a marker', frames(900), (reel, marker, to) =>
    changeMarker(reel, marker.id, { frame: Math.abs(to) }),
  ),
  markerStep('remove a marker', NOTHING, (reel, marker) => removeMarkers(reel, [marker.id])),
  step('meet', NOTHING, (reel, [a, b, c]) => {
    const item = one(
      itemsOf(reel).filter((i) => cuesOf(reel, i).length > 0),
      a,
    );
    const cue = item && one(cuesOf(reel, item), b);
    const marker = one(reel.markers, c);
    return item && cue && marker && madeOn(meet(reel, item.id, cue.id, marker.id), item.id);
  }),
  itemStep('meet no more', NOTHING, ['graphic'], (reel, item) => stopMeeting(reel, item.id)),
  step('copy to the next marker', NOTHING, (reel, [a]) => {
    const item = anItem(reel, a);
    return item && madeOn(copyToMarker(reel, item.id).reel);
  }),
];

const following: readonly Step[] = [
  step(
    'follow something',
    fc.array(frames(60), { minLength: 1, maxLength: 8 }),
    (reel, [a, b = 0], moves) => {
      const item = anItem(reel, a, ['clip']);
      if (item?.kind !== 'clip') return undefined;
      const begun = (b % 200) / 40;
      const added = addWay(reel, item, begun, { x: 100, y: 80, a: 1, b: 0 }, 20);
      const samples = moves.map(
        (m, i): WaySample => [begun + (i + 1) / 25, 100 + m, 80 - m, 1 + m / 100, 0, 0.9],
      );
      return { reel: putSamples(added.reel, added.id, samples), on: [], alike: true };
    },
  ),
  wayStep('correct a way', frames(100), (reel, way, x) =>
    correctWay(reel, way.id, Math.abs(x) / 40, { x, y: 10, a: 1, b: 0 }),
  ),
  wayStep('remove a way', NOTHING, (reel, way) => removeWay(reel, way.id)),
  itemStep(
    'go along',
    fc.tuple(fc.boolean(), fc.boolean(), part),
    [],
    (reel, item, [grows, turns, smooth], [, b]) => {
      const way = one(reel.ways, b);
      return way && setFollow(reel, item.id, { way: way.id, at: way.marks[0]!.at, grows, turns, smooth });
    },
  ),
  itemStep('stay', NOTHING, [], (reel, item) => setFollow(reel, item.id, undefined)),
  titleStep(
    'drive a point',
    part,
    (reel, title, smooth, [, b, c]) => {
      const way = one(reel.ways, b);
      return way && drivePoint(reel, title.id, one(pointsOf(title), c)!.id, { way: way.id, smooth });
    },
    (title) => pointsOf(title).length > 0,
  ),
];

/** Words that the user put into slots of a title, by their ids. */
const wordsIn = (title: Graphic) =>
  slotsOf(title, ['text']).flatMap(({ id }) => {
    const held = title.fill.slots[id];
    return isWords(held) ? [[id, held] as const] : [];
  });

/** Kinds of slot that take a picture or a clip. */
const PICTURES = ['picture', 'logo'] as const;
const SEEN_FILES = ODD_FILES.filter(({ file }) => file.kind !== 'sound');

const filling: readonly Step[] = [
  slotStep('type words', words, ['text', 'list'], (reel, title, slot, text) => {
    const held = title.fill.slots[slot.id];
    const next = isWords(held) && slot.kind === 'text' ? retype(held, text) : text;
    return edits.setSlot(reel, title.id, slot.id, next);
  }),
  titleStep(
    'mark words',
    fc.tuple(part, part, fc.boolean()),
    (reel, title, [from, to, underline], [, b]) => {
      const [slot, held] = one(wordsIn(title), b)!;
      const { length } = plainText(held);
      const marked = markWords(held, Math.floor(from * length), Math.ceil(to * length), {
        marked: true,
        ...(underline ? { underline, weight: 900, colour: '#C8431C' } : {}),
      });
      return edits.setSlot(reel, title.id, slot, marked);
    },
    (title) => wordsIn(title).length > 0,
  ),
  slotStep('leave a slot empty', NOTHING, [], (reel, title, slot) =>
    edits.setSlot(reel, title.id, slot.id, null),
  ),
  slotStep('hide or show a slot', fc.boolean(), [], (reel, title, slot, hide) =>
    edits.hideSlot(reel, title.id, slot.id, hide),
  ),
  slotStep('put a slot back', NOTHING, [], (reel, title, slot) => edits.resetSlot(reel, title.id, slot.id)),
  slotStep('pour files', NOTHING, PICTURES, (reel, title, slot, _, [, , c, d]) => {
    const files = [c, d].map((die) => one(SEEN_FILES, die)!.file);
    return edits.pourMedia(reel, title.id, slot.id, files);
  }),
  slotStep('swap two slots', NOTHING, ['picture'], (reel, title, slot, _, [, , c]) => {
    const other = one(slotsOf(title, ['picture']), c)!;
    const held = ({ id }: Slot) => [id, shownIn(title, id)] as const;
    return edits.swapSlots(reel, title.id, held(slot), held(other));
  }),
  slotStep('how a picture sits', picture, PICTURES, (reel, title, slot, sits) =>
    edits.adjustPicture(reel, title.id, slot.id, shownIn(title, slot.id), sits),
  ),
  slotStep('how a clip plays in a slot', clipFill, PICTURES, (reel, title, slot, plays) =>
    edits.adjustClip(reel, title.id, slot.id, shownIn(title, slot.id), plays),
  ),
  slotStep('a sound in a slot', soundFill, ['sound'], (reel, title, slot, plays) =>
    edits.setSlot(reel, title.id, slot.id, { ...plays, sound: MUSIC } as SlotFill),
  ),
  step('another file', NOTHING, (reel, [a, b]) => ({
    reel: edits.replaceMedia(reel, one(ODD_FILES, a)!.file.media, one(ODD_FILES, b)!.file),
    on: 'all',
  })),
  titleStep(
    'another template',
    NOTHING,
    (reel, title, _, [, b], { templates }) => setTemplate(reel, title.id, one(templates, b)!).reel,
  ),
  titleStep(
    'another edition',
    NOTHING,
    (reel, title, _, __, bench) => setEdition(reel, [title.id], editionBeside(title, bench)!),
    (title, bench) => editionBeside(title, bench) !== undefined,
  ),
  titleStep('wear a brand', fc.tuple(brand, fc.boolean()), (reel, title, [worn, isSpread]) =>
    (isSpread ? edits.applySpread : edits.applyBrand)(reel, title.id, worn),
  ),
  step('wear a brand all over', brand, (reel, _, worn) => ({
    reel: edits.reelWearing(reel, worn),
    on: 'all',
  })),
  step('keep as a template', NOTHING, (reel, [a], _, { templates }) => {
    const title = one(graphicsOf(reel), a);
    if (!title) return undefined;
    const id = `own-${templates.length}`;
    const kept = keptTemplate(title.template, title.fill, layoutFrame(reel.frame), { id, name: 'Own' });
    return madeOn(addTitle(reel, kept, endOf(reel, title.id)).reel);
  }),
  step('rows of a table', fc.array(frames(900), { minLength: 1, maxLength: 4 }), (reel, [a], rows) => {
    const title = one(graphicsOf(reel), a);
    const placed = rows.map((at) => ({ reel, ...(at < 0 ? {} : { from: at, to: at + 90 }) }));
    return title && madeOn(placeRows(reel, title.id, placed).reel);
  }),
];

/** Another edition of the template a title is made of, if there is one. */
const editionBeside = ({ template }: Graphic, { templates }: Bench) =>
  templates.find((t) => t.id === template.id && t !== template);

/** What is done to keys that are there, to a value over time at one of its keys. */
const ON_KEYS = {
  move: (held: ControlFill, clock: Clock, index: number, frame: number) => moveKey(held, clock, index, frame),
  copy: (held: ControlFill, clock: Clock, index: number, frame: number) =>
    copyKey(held, clock, index, Math.abs(frame)),
  remove: (held: ControlFill, clock: Clock, index: number) => removeKey(held, clock, index),
  own: (held: ControlFill, clock: Clock, index: number) => ownKey(held, clock, index, 'in'),
  ease: (held: ControlFill, clock: Clock, index: number, _: number, curve: Easing) =>
    easeKey(held, clock, index, curve),
} as const;

const adjusting: readonly Step[] = [
  controlStep('a control', part, (reel, title, control, at) =>
    edits.setControl(reel, title.id, control.id, settingOf(control, at)),
  ),
  controlStep('put a control back', NOTHING, (reel, title, control) =>
    edits.resetControl(reel, title.id, control.id),
  ),
  titleStep('a look', NOTHING, (reel, title, _, [, b]) => {
    const look = one(title.template.looks, b);
    return look && edits.chooseLook(reel, title.id, look.id);
  }),
  titleStep('without depth', fc.boolean(), (reel, title, flat) => edits.setFlat(reel, title.id, flat)),
  itemStep('put a key', fc.tuple(part, frames(200)), [], (reel, item, [at, frame], [, b]) => {
    const { held, value, write } = one(timedOf(reel, item), b)!;
    return write(putKey(held ?? value(at), framingClock(reel, item), Math.abs(frame), value(at)));
  }),
  step(
    'change a key',
    fc.tuple(fc.constantFrom(...(Object.keys(ON_KEYS) as (keyof typeof ON_KEYS)[])), frames(200), ease),
    (reel, dice, [what, frame, curve]) => {
      const timed = itemsOf(reel).flatMap((item) => timedOf(reel, item));
      const found = one(
        timed.filter(({ held }) => isKeyed(held)),
        dice[0],
      );
      if (!found?.held) return undefined;
      const { item, held, write } = found;
      const clock = framingClock(reel, item);
      const index = dice[1]! % keysOf(held, clock).length;
      return madeOn(write(ON_KEYS[what](held, clock, index, frame, curve)), item.id);
    },
  ),
  itemStep(
    'lie in the frame',
    fc.tuple(framing, fc.constantFrom(...FRAMING_KEYS, 'blend' as const)),
    [],
    (reel, item, [lies, key]) => holdFraming(reel, item.id, key, lies[key]),
  ),
  itemStep(
    'drag in the frame',
    fc.tuple(part, fc.constantFrom(...FRAMING_KEYS)),
    [],
    (reel, item, [to, key], [, at]) =>
      putFraming(reel, item.id, key, framingValue(key, to), frameIn(reel, item, at)),
  ),
  itemStep('turn about a point', fc.tuple(part, part), [], (reel, item, [scale, turn], [, at]) => {
    const to = { scale: 0.1 + scale * 3, turn: turn * 360 };
    return turnAbout(reel, item.id, [300, 200], to, frameIn(reel, item, at), layoutFrame(reel.frame));
  }),
  itemStep('fade', fc.tuple(fc.constantFrom('in', 'out'), frames(100)), [], (reel, item, [side, long]) =>
    setFade(reel, item.id, side, long),
  ),
  itemStep('how a clip plays', clipFill, ['clip'], (reel, item, { length: _, ...plays }) =>
    changeItem(reel, item.id, (i) => ({ ...i, clip: plays }) as ReelItem),
  ),
  step('treat', fc.constantFrom(...(Object.keys(TREATMENTS) as TreatmentKind[])), (reel, dice, kind) => {
    const of = treatedOf(reel, dice);
    return of && madeOn(addTreatment(reel, of, kind, true), of.item);
  }),
  step(
    'treat otherwise',
    fc.constantFrom<(reel: Reel, of: Treated, id: string) => Reel>(
      removeTreatment,
      (reel, of, id) => switchTreatment(reel, of, id, true),
      (reel, of, id) => switchTreatment(reel, of, id, false),
      (reel, of, id) => moveTreatment(reel, of, id, 1),
      (reel, of, id) => moveTreatment(reel, of, id, -1),
    ),
    (reel, dice, by) => {
      const item = one(
        itemsOf(reel).filter((i) => i.treatments),
        dice[0],
      );
      const of: Treated | undefined =
        item && dice[2]! % 4 ? { kind: 'item', item: item.id } : treatedOf(reel, dice);
      const held = of && one(treatmentsOf(reel, of), dice[3]);
      return of && held && madeOn(by(reel, of, held.id), of.item);
    },
  ),
  slotStep('switch an effect of the template', fc.boolean(), PICTURES, (reel, title, slot, on, [, , c]) => {
    const effect = one(effectsOnSlot(title.template, slot.id), c);
    return effect && switchTemplateEffect(reel, inSlot(title, slot), effect.key, on);
  }),
];

const inSlot = (title: Graphic, { id }: Slot) =>
  ({ kind: 'slot', item: title.id, slot: id, shown: shownIn(title, id) }) as const;

function treatedOf(reel: Reel, [a, b, c = 0]: Dice): Treated | undefined {
  const item = anItem(reel, a, ['graphic', 'clip', 'still', 'colour']);
  const title = item && graphicsOf(reel).find((g) => g.id === item.id);
  const slot = title && c % 2 ? one(slotsOf(title, PICTURES), b) : undefined;
  if (title && slot) return inSlot(title, slot);
  return item && { kind: 'item', item: item.id };
}

/** Parts of a text that the tools take as they are, change one thing of, and write. */
const TAKEN = ['plates', 'outlines', 'shadow', 'fill', 'motion', 'effects', 'fit', 'along', 'axes'] as const;

const lettering: readonly Step[] = [
  textStep('change a text', textChange, (reel, title, layer, change) =>
    edits.changeText(reel, title.id, layer.id, change),
  ),
  textStep(
    'change a part of a text',
    fc.tuple(textChange, part),
    (reel, title, layer, [change, at], [, , c]) => {
      const key = one(Object.keys(change) as (keyof TextChange)[], c);
      if (!key) return undefined;
      return edits.changeText(reel, title.id, layer.id, { [key]: at < 0.2 ? undefined : change[key] });
    },
  ),
  // With the template's own links in it: to its controls, which no other template has.
  textStep('begin from what a text has', NOTHING, (reel, title, layer, _, [, , c]) => {
    const key = one(TAKEN, c)!;
    const own = layer[key];
    return own === undefined ? undefined : edits.changeText(reel, title.id, layer.id, { [key]: own });
  }),
  titleStep(
    'put a text back',
    NOTHING,
    (reel, title, _, [, b]) => {
      const [layer, change] = one(Object.entries(title.fill.texts!), b)!;
      const back = Object.fromEntries(Object.keys(change).map((k) => [k, undefined]));
      return edits.changeText(reel, title.id, layer, back);
    },
    (title) => Object.keys(title.fill.texts ?? {}).length > 0,
  ),
  step('make alike', fc.subarray([...ASPECTS]), (reel, [a], aspects) => {
    const title = one(
      graphicsOf(reel).filter((t) => sameKind(reel, t.id).length > 0),
      a,
    );
    if (!title) return undefined;
    const on = sameKind(reel, title.id);
    return madeOn(makeAlike(reel, title.id, on, aspects), ...on);
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
