import type { Template } from '../documents/template';
import { EditError } from '../edit/place';
import { everyLayer, LAYER_SCHEMAS, type Layer } from '../layers/registry';
import { freePartId, putPart } from './parts';
import { changePart, nameOfPart, partOf } from './places';
import { addPictureSlot } from './slots';
import { restingScene } from './ties';

/** What can be added to a template, each as it begins. */
export const ADDITIONS = [
  { id: 'words', name: 'Words', about: 'A line or more, set in any font' },
  { id: 'shape', name: 'Shape', about: 'A rectangle, circle, star or drawn outline' },
  { id: 'plate', name: 'Plate', about: 'A shape that fits around other parts' },
  { id: 'picture', name: 'Picture', about: 'A place for a picture' },
  { id: 'clip', name: 'Clip', about: 'A place for footage that is heard' },
  { id: 'logo', name: 'Logo', about: 'A place for a logo, shown whole' },
  { id: 'particles', name: 'Particles', about: 'Small things that come, fly and go' },
  { id: 'trails', name: 'Trails', about: 'Words whose letters leave tails as they come' },
  { id: 'points', name: 'Linked points', about: 'Points in space, with lines between them' },
  { id: 'beam', name: 'Light', about: 'A beam with a glow and flares' },
  { id: 'floor', name: 'Floor', about: 'A mirror that what is in it stands on' },
  { id: 'grain', name: 'Grain', about: 'Fine noise over the whole picture' },
  { id: 'group', name: 'Group', about: 'Parts that move and fade together' },
] as const;
export type AdditionId = (typeof ADDITIONS)[number]['id'];

/** As it comes in and goes again: it fades, a little late behind what is there already. */
const FADES = {
  keys: [
    { at: 0, of: 'in', value: 0, ease: 'ease-out' },
    { at: 18, of: 'in', value: 1 },
    { at: 0, of: 'out', value: 1, ease: 'ease-in' },
    { at: 18, of: 'out', value: 0 },
  ],
};
const MIDDLE = { at: [0.5, 0.5], origin: [0.5, 0.5] };
const INK = '#16202B';
const PAPER = '#FBF8F2';
const ACCENT = '#C8431C';

const WORDS = {
  kind: 'text',
  words: { text: 'Your words' },
  family: 'Figtree',
  weight: 600,
  size: 72,
  leading: 1.1,
  fill: { colour: PAPER },
  fit: { width: 1200, lines: 2 },
  ...MIDDLE,
};

/** How each begins, but for its id; a slot's name where it shows one. */
const BEGINNINGS: Readonly<Record<AdditionId, object>> = {
  words: {
    ...WORDS,
    motion: {
      in: [
        { unit: 'word', stagger: 4, start: { at: 0 }, length: 24, away: { move: [0, 0.5, 0], opacity: 0 } },
      ],
      out: [{ unit: 'whole', start: { at: 0, of: 'out' }, length: 18, away: { opacity: 0 } }],
    },
  },
  shape: {
    kind: 'shape',
    outline: { kind: 'rectangle', corner: 0 },
    size: [480, 200],
    fill: { colour: ACCENT },
    opacity: FADES,
    ...MIDDLE,
  },
  plate: {
    kind: 'shape',
    outline: { kind: 'rectangle', corner: 8 },
    fill: { colour: INK },
    extentFrom: [0, 0.5],
    extent: {
      keys: [
        { at: 0, of: 'in', value: [0, 1], ease: { bezier: [0.16, 1, 0.3, 1] } },
        { at: 30, of: 'in', value: [1, 1] },
        { at: 6, of: 'out', value: [1, 1], ease: { bezier: [0.7, 0, 0.84, 0] } },
        { at: 26, of: 'out', value: [0, 1] },
      ],
    },
  },
  picture: { kind: 'picture', size: [640, 400], opacity: FADES, ...MIDDLE },
  clip: { kind: 'picture', size: [960, 540], opacity: FADES, ...MIDDLE },
  logo: { kind: 'picture', size: [360, 360], fit: 'fit', opacity: FADES, ...MIDDLE },
  particles: {
    kind: 'particles',
    from: { point: [0.5, 1] },
    born: { every: 3, from: { at: 0 } },
    ...{ life: 120, speed: 6, spread: 30, gravity: [0, -0.01], across: 14 },
    colours: [PAPER, '#F2A541'],
  },
  trails: {
    ...WORDS,
    size: 110,
    motion: {
      in: [
        {
          ...{ unit: 'letter', stagger: 3, start: { at: 0 }, length: 40 },
          ...{ ease: { bezier: [0.16, 1, 0.3, 1] }, away: { move: [-6, 1, 0], opacity: 0 } },
        },
      ],
      out: [{ unit: 'whole', start: { at: 0, of: 'out' }, length: 18, away: { opacity: 0 } }],
    },
    trail: { length: 14, colour: '#F2A541' },
  },
  points: {
    kind: 'points',
    ...MIDDLE,
    size: [900, 600],
    deep: 600,
    form: { kind: 'sphere', count: 120 },
    spin: [0, 0.2, 0],
    points: { across: 7, colour: PAPER },
    links: { by: 'nearness', near: 2, colour: PAPER, opacity: 0.4 },
    opacity: FADES,
  },
  beam: {
    kind: 'beam',
    from: [0.1, 0.6],
    to: [0.9, 0.4],
    colour: '#F2A541',
    flares: [60, 90],
    grown: {
      keys: [
        { at: 0, of: 'in', value: 0, ease: 'ease-out' },
        { at: 30, of: 'in', value: 1 },
      ],
    },
    gone: {
      keys: [
        { at: 0, of: 'out', value: 0, ease: 'ease-in' },
        { at: 24, of: 'out', value: 1 },
      ],
    },
  },
  floor: { kind: 'group', layers: [], floor: { at: 0.7, strength: 0.5 } },
  grain: { kind: 'grain', amount: 0.12, size: 1.4, every: 2 },
  group: { kind: 'group', layers: [] },
};

/**
 * Adds a part above the one that is chosen, or on top in it when that is a group.
 * @param chosen ids of what is chosen: a plate goes around those
 * @returns the template, and the part's id
 * @throws {EditError} when a plate has nothing to go around
 */
export function addPart(
  template: Template,
  what: AdditionId,
  chosen: readonly string[] = [],
): { template: Template; id: string } {
  const { name } = ADDITIONS.find((a) => a.id === what)!;
  const id = freePartId(template, what);
  const taken = new Set([...everyLayer(template.layers)].map(nameOfPart));
  const named = taken.has(name) ? `${name} ${id.split('-').at(-1)}` : name;
  const shows = what === 'picture' || what === 'clip' || what === 'logo';
  const slotted = shows ? addPictureSlot(template, named, what === 'logo' ? 'logo' : 'picture') : undefined;
  const base = slotted?.template ?? template;
  const begun = {
    ...BEGINNINGS[what],
    ...(what === 'plate' ? around(template, chosen) : {}),
    ...(slotted ? { slot: slotted.slot } : {}),
    ...{ id, name: named },
  };
  const layer = LAYER_SCHEMAS[(begun as unknown as Layer).kind].parse(begun) as Layer;
  const heard = what === 'clip' && slotted ? withSound(base, slotted.slot) : base;
  return {
    template: what === 'plate' ? below(heard, layer, chosen) : putPart(heard, layer, chosen.at(-1)),
    id,
  };
}

/** A plate stands below all that it fits around. */
function below(template: Template, plate: Layer, chosen: readonly string[]): Template {
  const insert = (layers: Layer[]): Layer[] => {
    const at = layers.findIndex((l) => chosen.includes(l.id));
    if (at >= 0) return [...layers.slice(0, at), plate, ...layers.slice(at)];
    return layers.map((l) => (l.kind === 'group' ? { ...l, layers: insert(l.layers) } : l));
  };
  return { ...template, layers: insert(template.layers) };
}

function around(template: Template, chosen: readonly string[]): object {
  if (chosen.length === 0)
    throw new EditError(
      'A plate fits around other parts. Choose the words or pictures it goes behind first.',
    );
  for (const id of chosen) partOf(template, id);
  return { hug: { layers: [...chosen], margin: 28 } };
}

const withSound = (template: Template, slot: string): Template => ({
  ...template,
  slots: template.slots.map((s) => (s.id === slot && s.kind === 'picture' ? { ...s, heard: true } : s)),
});

/** How parts that are no words come and go. */
export const MOVES = [
  { id: 'fades', name: 'Fades' },
  { id: 'grows', name: 'Grows' },
  { id: 'rises', name: 'Rises' },
  { id: 'falls', name: 'Falls' },
  { id: 'from-left', name: 'From the left' },
  { id: 'from-right', name: 'From the right' },
  { id: 'turns', name: 'Turns in' },
  { id: 'swings', name: 'Swings open' },
  { id: 'stands', name: 'Is there at once' },
] as const;
export type MoveId = (typeof MOVES)[number]['id'];

type Space = readonly [number, number, number];

/** What each is away by before it has come, with the curve of its way. */
const AWAY: Readonly<
  Record<Exclude<MoveId, 'stands'>, { move?: Space; turn?: Space; scale?: number; fades: boolean }>
> = {
  fades: { fades: true },
  grows: { scale: 0, fades: false },
  rises: { move: [0, 120, 0], fades: true },
  falls: { move: [0, -240, 0], fades: true },
  'from-left': { move: [-600, 0, 0], fades: true },
  'from-right': { move: [600, 0, 0], fades: true },
  turns: { turn: [0, 0, -90], scale: 0.4, fades: true },
  swings: { turn: [0, 90, 0], fades: true },
};
const COMES = { bezier: [0.16, 1, 0.3, 1] } as const;
const GOES = { bezier: [0.7, 0, 0.84, 0] } as const;

/**
 * Lets a part come, and go by the same way back in two thirds of the time; what moved it before is replaced.
 * @throws {EditError} when what would move is set by something else
 */
export function setMove(template: Template, id: string, move: MoveId): Template {
  const layer = partOf(template, id);
  if (layer.kind === 'text') throw new EditError('Words have motions of their own: see “Comes”.');
  if (layer.kind === 'grain') throw new EditError('Grain covers the whole picture and does not move.');
  const length = Math.min(40, Math.max(1, template.timing.in));
  const out = Math.min(Math.round((length * 2) / 3), Math.max(1, template.timing.out));
  const keys = (far: unknown, rest: unknown) => ({
    keys: [
      { at: 0, of: 'in', value: far, ease: COMES },
      { at: length, of: 'in', value: rest },
      { at: 0, of: 'out', value: rest, ease: GOES },
      { at: out, of: 'out', value: far },
    ],
  });
  const away = move === 'stands' ? undefined : AWAY[move];
  const rest = restOf(template, layer);
  const held: Record<string, unknown> = {
    ...{ opacity: rest.opacity, move: rest.move, turn: rest.turn, scale: rest.scale },
    ...(away?.fades ? { opacity: keys(0, rest.opacity) } : {}),
    ...(away?.move ? { move: keys(sum(rest.move, away.move), rest.move) } : {}),
    ...(away?.turn ? { turn: keys(sum(rest.turn, away.turn), rest.turn) } : {}),
    ...(away?.scale === undefined ? {} : { scale: keys([away.scale, away.scale], rest.scale) }),
  };
  for (const key of Object.keys(held)) {
    const now = layer[key as 'opacity'] as unknown;
    if (typeof now === 'object' && !Array.isArray(now) && !('keys' in (now as object)))
      throw new EditError(
        `“${nameOfPart(layer)}” has a ${key} that is set by something else. Untie it first, or put it in a group and let that move.`,
      );
  }
  const moved = LAYER_SCHEMAS[layer.kind].parse({ ...layer, ...held }) as Layer;
  return changePart(template, id, () => moved);
}

const sum = (a: Space, b: Space): Space => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** How a part stands when it is best seen. */
function restOf(template: Template, layer: Layer) {
  const scene = restingScene(template);
  const time = scene.timeOf(template.still);
  return {
    opacity: scene.valueAt(layer.opacity, time) || 1,
    move: scene.valueAt(layer.move, time) as Space,
    turn: scene.valueAt(layer.turn, time) as Space,
    scale: scene.valueAt(layer.scale, time) as readonly [number, number],
  };
}
