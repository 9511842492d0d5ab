import { z } from 'zod';
import { EMPTY_FILL } from '../documents/fill';
import { type Template, USES } from '../documents/template';
import { secondsAt } from '../time/rate';
import { FRAMES, layoutFrame } from '../values/frame';
import { documentOnly } from './documentOnly';
import { GraphicScene } from './graphicScene';

const DOCUMENT_ONLY = documentOnly();

const count = z.number().int().min(0);

const listedSchema = z.strictObject({
  id: z.string().min(1),
  name: z.string(),
  about: z.string(),
  use: z.enum(USES),
  set: z.string().optional(),
  moods: z.array(z.string()),
  shape: z.enum(['wide', 'tall', 'square']),
  /** The template it was kept from, beside which it stands. */
  from: z.string().optional(),
  edition: z.number().int().min(1),
  /** Whether it covers all of its frame. */
  covers: z.boolean(),
  /** How many slots of each kind it has. */
  takes: z.strictObject({ text: count, list: count, picture: count, logo: count, sound: count }),
  /** Length with the default hold. */
  seconds: z.number().min(0),
  /**
   * The windows of its picture slots: whether one may be left out, and its shape, width by height; `null` where it takes
   * the picture's own.
   */
  windows: z.array(z.strictObject({ optional: z.boolean(), shape: z.number().positive().nullable() })),
  /** Hashes of the files it brings along. */
  media: z.array(z.string()),
});

/** What lists tell of a template. Kept beside those of the user's, so that a list need not open them. */
export type ListedTemplate = z.infer<typeof listedSchema>;

/** What is kept of some templates, by id; one that is of another version, or damaged, is left out. */
export function openedListed(data: unknown): Map<string, ListedTemplate> {
  const all = z.array(z.unknown()).catch([]).parse(data);
  return new Map(
    all.flatMap((one) => {
      const listed = listedSchema.safeParse(one).data;
      return listed ? [[listed.id, listed] as const] : [];
    }),
  );
}

const known = new WeakMap<Template, ListedTemplate>();

/** What lists tell of a template. What takes a scene to be known is found when it is asked for. */
export function listedOf(template: Template): ListedTemplate {
  const held = known.get(template);
  if (held) return held;
  const { id, name, about, use, set, moods, shape, from, edition = 1, slots, assets } = template;
  const number = (kind: string) => slots.filter((s) => s.kind === kind).length;
  let seconds: number | undefined;
  let windows: ListedTemplate['windows'] | undefined;
  const listed: ListedTemplate = {
    ...{ id, name, about, use, moods, shape, edition },
    ...(set === undefined ? {} : { set }),
    ...(from === undefined ? {} : { from }),
    covers: template.transparent === false,
    takes: {
      text: number('text'),
      list: number('list'),
      picture: number('picture'),
      logo: number('logo'),
      sound: number('sound'),
    },
    get seconds() {
      seconds ??= secondsAt(sceneOf(template, 'wide').length, template.rate);
      return seconds;
    },
    get windows() {
      windows ??= windowsOf(template);
      return windows;
    },
    media: [...new Set(Object.values(assets))],
  };
  known.set(template, listed);
  return listed;
}

const sceneOf = (template: Template, shape: Template['shape']) =>
  new GraphicScene(template, EMPTY_FILL, layoutFrame(FRAMES[shape]), DOCUMENT_ONLY);

function windowsOf(template: Template): ListedTemplate['windows'] {
  const slots = template.slots.filter((s) => s.kind === 'picture');
  if (slots.length === 0) return [];
  const scene = sceneOf(template, template.shape);
  return slots.map(({ id, optional }) => {
    const box = scene.pictureWindow(id);
    return { optional, shape: box && box.height > 0 && box.width > 0 ? box.width / box.height : null };
  });
}
