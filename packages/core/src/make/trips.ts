import { defaultOf } from '../documents/controls';
import { type ControlValue, EMPTY_FILL, type Fill } from '../documents/fill';
import type { Reel } from '../documents/reel';
import type { Control, Template } from '../documents/template';
import { newReel } from '../edit/reel';
import { GraphicScene, type Resources } from '../evaluate/graphicScene';
import { boundsOf } from '../geometry/rect';
import { everyLayer, type Layer } from '../layers/registry';
import { sameOps } from '../paint/ops';
import { ReelScene } from '../reel/reelScene';
import { type Looker, lookAtWords } from '../survey/survey';
import { FRAMES, layoutFrame } from '../values/frame';
import { linkedControls } from '../values/linking';
import type { FrameShape } from '../values/property';
import { faultOfControlName } from './controlNames';
import { nameOfPart } from './places';
import { shownBy, TRIES } from './slots';
import { tiesOf } from './ties';

/** Where in the workshop something is mended. */
export type TripPlace =
  | { readonly control: string }
  | { readonly slot: string }
  | { readonly part: string }
  | { readonly look: string }
  | { readonly of: 'looks' | 'guide' | 'about' };

/** Something a user of the template would trip over, in words, and where it is mended. */
export interface Trip {
  readonly text: string;
  readonly at: TripPlace;
}

/** What the document alone tells. */
export function writtenTrips(template: Template): Trip[] {
  return [
    ...controlTrips(template),
    ...slotTrips(template),
    ...partTrips(template),
    ...(template.looks.length < 2
      ? [
          {
            text: 'There is no choice of looks. Keep two or three that differ.',
            at: { of: 'looks' },
          } as const,
        ]
      : []),
    ...(template.about.startsWith('Say in one sentence')
      ? [{ text: 'It does not say yet what it looks like and what it is for.', at: { of: 'about' } } as const]
      : []),
    ...(template.guide.length < 2
      ? [{ text: 'The guide has one step only.', at: { of: 'guide' } } as const]
      : []),
  ];
}

function controlTrips(template: Template): Trip[] {
  const tied = linkedControls([template.layers, template.timing, template.camera, template.transparent]);
  const asked = new Set(template.controls.flatMap((c) => c.when?.control ?? []));
  const seen = new Map<string, string>();
  return template.controls.flatMap((control): Trip[] => {
    const { id, name } = control;
    const trips: Trip[] = [];
    if (!tied.has(id) && !asked.has(id))
      trips.push({ text: `“${name}” changes nothing: no part is tied to it.`, at: { control: id } });
    const twice = seen.get(name.toLowerCase());
    if (twice !== undefined) trips.push({ text: `Two controls are called “${name}”.`, at: { control: id } });
    else {
      const fault = faultOfControlName(template, name, subjectOf(template, control), id);
      if (fault) trips.push({ text: fault.text, at: { control: id } });
    }
    seen.set(name.toLowerCase(), id);
    return trips;
  });
}

/** What a control does, for a name that says more. */
function subjectOf(template: Template, { id, name, group }: Control) {
  const first = tiesOf(template, id).find(({ place }) => place.of !== 'template');
  const part = first && first.place.of !== 'template' ? first.place.of.layer : undefined;
  const layer = [...everyLayer(template.layers)].find((l) => l.id === part);
  return { part: layer ? nameOfPart(layer) : group, property: name };
}

function slotTrips(template: Template): Trip[] {
  return template.slots.flatMap((slot): Trip[] => {
    if (slot.kind === 'sound') return [];
    const repeated = JSON.stringify(template.layers).includes(`"${slot.id}"`);
    if (!repeated && shownBy(template, slot.id).length === 0)
      return [{ text: `What is put in “${slot.name}” shows nowhere.`, at: { slot: slot.id } }];
    const empty = (slot.kind === 'text' || slot.kind === 'list') && slot.sample === '' && !slot.optional;
    return empty ? [{ text: `“${slot.name}” has no sample words.`, at: { slot: slot.id } }] : [];
  });
}

/** Standard deviation in frame units from which a blur takes long, and particles from which they do. */
const WIDE_BLUR = 30;
const MANY_BORN = 600;

/** Parts that cost much to paint and have nothing that stands for them in a draft. */
function partTrips(template: Template): Trip[] {
  return [...everyLayer(template.layers)].flatMap((layer): Trip[] => {
    const cost = layer.standIn === undefined ? costOf(layer) : undefined;
    return cost === undefined
      ? []
      : [
          {
            text: `“${nameOfPart(layer)}” takes long to paint (${cost}), and nothing stands for it in a draft.`,
            at: { part: layer.id },
          },
        ];
  });
}

function costOf(layer: Layer): string | undefined {
  const wide = layer.effects.some(
    (e) => 'radius' in e && typeof e.radius === 'number' && e.radius > WIDE_BLUR && e.effect !== 'shadow',
  );
  if (wide) return 'a wide blur';
  if (layer.afterimage && layer.afterimage.copies > 12) return `${layer.afterimage.copies} afterimages`;
  if (layer.kind === 'particles' && 'count' in layer.born && layer.born.count > MANY_BORN)
    return `${layer.born.count} particles`;
  if (layer.kind === 'group' && layer.focus) return 'a lens';
  return undefined;
}

const SHAPES = ['wide', 'tall', 'square'] as const satisfies readonly FrameShape[];
const SHAPE_WORDS = { wide: 'a wide', tall: 'a tall', square: 'a square' } as const;
/** Frame units that words may reach beyond the frame. */
const HAIR = 2;

/** What shows once it is set and laid out: controls that change no frame, words that leave the picture. */
export function shownTrips(template: Template, resources: Resources): Trip[] {
  return [...idleControls(template, resources), ...strayWords(template, resources)];
}

/** Parts of the length at which frames are compared. */
const MOMENTS = [0.04, 0.12, 0.3, 0.5, 0.75, 0.93] as const;

function idleControls(template: Template, resources: Resources): Trip[] {
  const tied = linkedControls([template.layers, template.timing, template.camera]);
  const frame = layoutFrame(FRAMES[template.shape]);
  const shownWith = (controls: Fill['controls']) => {
    const scene = new GraphicScene(template, { ...EMPTY_FILL, controls }, frame, resources);
    return { scene, ops: MOMENTS.map((part) => scene.evaluate(part * scene.length).ops) };
  };
  return template.controls.flatMap((control): Trip[] => {
    // A font may not be here, and how long it takes shows in its length.
    if (!tied.has(control.id) || control.kind === 'font' || control.kind === 'duration') return [];
    const offered = control.when ? { [control.when.control]: control.when.is } : {};
    const rest = shownWith(offered);
    const changes = othersOf(control, frame).some((value) => {
      const { scene, ops } = shownWith({ ...offered, [control.id]: value });
      return scene.length !== rest.scene.length || ops.some((o, i) => !sameOps(o, rest.ops[i]!));
    });
    return changes
      ? []
      : [{ text: `“${control.name}” changes no frame, whatever it is set to.`, at: { control: control.id } }];
  });
}

/** Values of a control other than the one it rests at. */
function othersOf(control: Control, frame: { width: number; height: number }): ControlValue[] {
  const rest = defaultOf(control, frame);
  switch (control.kind) {
    case 'number':
    case 'duration':
      return [control.min, control.max, (control.min + control.max) / 2].filter((v) => v !== rest);
    case 'colour':
      return ['#12FE34', '#FE1234'].filter((v) => v !== rest);
    case 'point':
      return [
        [0.2, 0.25],
        [0.8, 0.7],
      ];
    case 'choice':
      return control.options.map((o) => o.id).filter((v) => v !== rest);
    case 'switch':
      return [!rest];
    case 'path':
      return ['M 0.1 0.2 L 0.9 0.8'];
    case 'font':
      return [];
  }
}

function strayWords(template: Template, resources: Resources): Trip[] {
  const trips = new Map<string, Trip>();
  for (const slot of template.slots) {
    if (slot.kind !== 'text') continue;
    const words = [undefined, ...TRIES.flatMap((t) => (t.id === 'one' || t.id === 'sixty' ? [t.words] : []))];
    for (const shape of SHAPES) {
      const frame = layoutFrame(FRAMES[shape]);
      for (const typed of words) {
        const fill: Fill = typed === undefined ? EMPTY_FILL : { ...EMPTY_FILL, slots: { [slot.id]: typed } };
        const scene = new GraphicScene(template, fill, frame, resources);
        const { regions, notices } = scene.evaluate(scene.timeOf(slot.moment));
        const stray = regions.some((r) => {
          if (r.slot !== slot.id || r.kind !== 'text' || r.opacity < 0.02) return false;
          const { x, y, width, height } = boundsOf(r.quad);
          return x < -HAIR || y < -HAIR || x + width > frame.width + HAIR || y + height > frame.height + HAIR;
        });
        const with60 =
          typed === undefined ? '' : typed.length > 1 ? ' with sixty letters' : ' with one letter';
        if (stray)
          trips.set(`${slot.id}/${shape}`, {
            text: `In ${SHAPE_WORDS[shape]} frame, “${slot.name}” leaves the picture${with60}.`,
            at: { slot: slot.id },
          });
        else if (typed === undefined && notices.some((n) => n.kind === 'cut' && n.slot === slot.id))
          trips.set(`${slot.id}/${shape}`, {
            text: `In ${SHAPE_WORDS[shape]} frame, the sample of “${slot.name}” is cut.`,
            at: { slot: slot.id },
          });
      }
    }
  }
  return [...trips.values()];
}

/** Grounds that a transparent template is looked at over: words that read on one of them read. */
const GROUNDS = ['#1A1A1A', '#E6E6E6'] as const;

/**
 * Looks that leave words without contrast, measured on what is painted (WCAG 2.2): in those of a transparent template,
 * over a dark and over a light ground.
 */
export async function paleLooks(template: Template, resources: Resources, looker: Looker): Promise<Trip[]> {
  const trips: Trip[] = [];
  const names = new Map(template.slots.map((s) => [s.id, s.name]));
  for (const look of [undefined, ...template.looks]) {
    const worst = await Promise.all(
      groundsOf(template).map(async (ground) => {
        const reel = inLook(template, look?.id, ground);
        return lookAtWords(new ReelScene(reel, resources), looker);
      }),
    );
    const [first = [], ...others] = worst;
    const pale = first.find((c) => others.every((o) => o.some((x) => x.slot === c.slot)));
    if (!pale) continue;
    const ratio = pale.kind === 'contrast' ? ` (${pale.ratio.toFixed(1)} to 1)` : '';
    trips.push({
      text: `${look ? `In the look “${look.name}”,` : 'As it comes,'} “${names.get(pale.slot) ?? pale.slot}” can hardly be read${ratio}.`,
      at: look ? { look: look.id } : { slot: pale.slot },
    });
  }
  return trips;
}

const groundsOf = ({ transparent }: Template): readonly (string | undefined)[] =>
  transparent === false ? [undefined] : GROUNDS;

/** A template in a look, over a ground of one colour. */
function inLook(template: Template, look: string | undefined, ground: string | undefined): Reel {
  const reel = newReel(template, {
    ...{ id: 'look', name: 'Look', now: '', shape: template.shape },
    fill: look === undefined ? EMPTY_FILL : { ...EMPTY_FILL, look },
  });
  if (ground === undefined) return reel;
  const item = { kind: 'colour', id: 'ground', start: 0, length: 36_000, colour: ground } as const;
  return { ...reel, tracks: [{ id: 'ground', items: [item] }, ...reel.tracks] };
}
