import type { Fill } from '../documents/fill';
import type { ReelItem, ReelItemOf } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { documentOnly } from '../evaluate/documentOnly';
import { GraphicScene } from '../evaluate/graphicScene';
import { everyLayer } from '../layers/registry';
import type { TextLayer } from '../layers/textSchema';
import { layoutFrame } from '../values/frame';
import { changeItem, given, itemOf } from './items';
import { changeText, setControl } from './reel';

/** What titles of one template can have alike: look and controls, letters, times, and where they lie. */
export const ASPECTS = ['look', 'letters', 'times', 'place'] as const;
export type Aspect = (typeof ASPECTS)[number];

type Control = Template['controls'][number];

/** Which aspect a control belongs to. */
const aspectOf = ({ kind }: Control): Aspect =>
  kind === 'duration' ? 'times' : kind === 'font' ? 'letters' : kind === 'point' ? 'place' : 'look';

/** Other titles of the same template, in the order of time. */
export function sameKind(reel: Reel, id: string): string[] {
  const item = itemOf(reel, id)?.item;
  if (item?.kind !== 'graphic') return [];
  return reel.tracks
    .flatMap((t) => t.items)
    .filter((i) => i.kind === 'graphic' && i.template === item.template && i.id !== id)
    .sort((a, b) => a.start - b.start)
    .map((i) => i.id);
}

/** A title with some aspects as another of its template has them; what is in its slots stays. */
function like(
  item: ReelItemOf<'graphic'>,
  model: ReelItemOf<'graphic'>,
  template: Template,
  aspects: readonly Aspect[],
): ReelItem {
  const own = { ...item.fill.controls };
  for (const control of template.controls) {
    if (!aspects.includes(aspectOf(control))) continue;
    const held = model.fill.controls[control.id];
    if (held === undefined) delete own[control.id];
    else own[control.id] = held;
  }
  const look = aspects.includes('look') ? model.fill.look : item.fill.look;
  const texts = aspects.includes('letters') ? model.fill.texts : item.fill.texts;
  const { look: _, texts: __, ...rest } = item.fill;
  const fill: Fill = { ...rest, controls: own, ...given({ look, texts }) };
  const framing = aspects.includes('place') ? model.framing : item.framing;
  return given({ ...item, fill, framing }) as ReelItem;
}

/** Titles that would change by {@link makeAlike}, of those that are named. */
export function whatChanges(
  reel: Reel,
  model: string,
  ids: readonly string[],
  aspects: readonly Aspect[],
): string[] {
  const next = makeAlike(reel, model, ids, aspects);
  return ids.filter(
    (id) => JSON.stringify(itemOf(next, id)?.item) !== JSON.stringify(itemOf(reel, id)?.item),
  );
}

/** Gives titles of one template some aspects of another of them. */
export function makeAlike(
  reel: Reel,
  model: string,
  ids: readonly string[],
  aspects: readonly Aspect[],
): Reel {
  const held = itemOf(reel, model)?.item;
  if (held?.kind !== 'graphic') return reel;
  const template = reel.templates[held.template]!;
  return ids.reduce(
    (r, id) =>
      changeItem(r, id, (item) =>
        item.kind === 'graphic' && item.template === held.template
          ? like(item, held, template, aspects)
          : item,
      ),
    reel,
  );
}

/** Text layers of a graphic as they stand, with the family each is set in. */
function setIn(reel: Reel, item: ReelItemOf<'graphic'>): { layer: TextLayer; family: string }[] {
  const scene = new GraphicScene(
    reel.templates[item.template]!,
    item.fill,
    layoutFrame(reel.frame),
    documentOnly(),
  );
  return [...everyLayer(scene.layers)].flatMap((layer) =>
    layer.kind === 'text' ? [{ layer, family: scene.valueAt(layer.family, 0) as string }] : [],
  );
}

const graphicsIn = (reel: Reel) =>
  reel.tracks.flatMap((t) => t.items.flatMap((i) => (i.kind === 'graphic' ? [i] : [])));

/** Every font family of a reel, and the titles it shows in, by their ids. */
export function familiesOf(reel: Reel): Map<string, string[]> {
  const families = new Map<string, string[]>();
  for (const item of graphicsIn(reel))
    for (const family of new Set(setIn(reel, item).map((s) => s.family)))
      families.set(family, [...(families.get(family) ?? []), item.id]);
  return new Map([...families].sort(([a], [b]) => a.localeCompare(b)));
}

/** Sets everything that is set in one family in another: by the control that says so, else in the text itself. */
export function swapFamily(reel: Reel, from: string, to: string): Reel {
  return graphicsIn(reel).reduce((r, { id }) => {
    const template = r.templates[(itemOf(r, id)!.item as ReelItemOf<'graphic'>).template]!;
    let next = r;
    const item = () => itemOf(next, id)!.item as ReelItemOf<'graphic'>;
    const scene = new GraphicScene(template, item().fill, layoutFrame(r.frame), documentOnly());
    for (const control of template.controls)
      if (control.kind === 'font' && scene.controls[control.id] === from)
        next = setControl(next, id, control.id, to);
    for (const { layer, family } of setIn(next, item()))
      if (family === from) next = changeText(next, id, layer.id, { family: to });
    return next;
  }, reel);
}
