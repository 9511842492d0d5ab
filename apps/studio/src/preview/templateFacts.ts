import {
  EMPTY_FILL,
  FRAMES,
  type FrameShape,
  GraphicScene,
  type ListedTemplate,
  layoutFrame,
  secondsAt,
  type Template,
  type Use,
} from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { secondsText } from '../ui/units';

export const USE_NAMES: Readonly<Record<Use, string>> = {
  'lower-third': 'Lower third',
  'logo-sting': 'Logo sting',
  opener: 'Opener',
  callout: 'Callout',
  'end-card': 'End card',
  title: 'Title',
  caption: 'Caption',
  quote: 'Quote',
  gallery: 'Gallery',
  card: 'Card',
  credits: 'Credits',
  overlay: 'Overlay',
};

/** The frames offered, as a choice. */
export const FRAME_SHAPES: readonly { readonly id: FrameShape; readonly name: string }[] = [
  { id: 'wide', name: 'Wide 16:9' },
  { id: 'tall', name: 'Tall 9:16' },
  { id: 'square', name: 'Square 1:1' },
];

const many = (n: number, one: string, more: string) => (n === 0 ? [] : [`${n} ${n === 1 ? one : more}`]);

/** What a template takes: 2 texts, 1 logo. */
export const takes = ({ takes: count }: ListedTemplate): string =>
  [
    ...many(count.text, 'text', 'texts'),
    ...many(count.list, 'list', 'lists'),
    ...many(count.picture, 'picture', 'pictures'),
    ...many(count.logo, 'logo', 'logos'),
  ].join(', ');

/** What a template is for, how long it is, and what it takes, in a line. */
export const summaryOf = (template: ListedTemplate): string =>
  [USE_NAMES[template.use], lengthOf(template), takes(template)].filter(Boolean).join(', ');

/** The sounds of a template as it comes, and when each is heard. */
export function soundsOf(template: Template): readonly { id: string; name: string; when: string }[] {
  const scene = new GraphicScene(template, EMPTY_FILL, layoutFrame(FRAMES.wide), DOCUMENT_ONLY);
  return template.slots.flatMap((slot) => {
    if (slot.kind !== 'sound') return [];
    const cue = template.cues.find((c) => c.id === slot.cue);
    const at = cue ? secondsAt(scene.timeOf(cue.at) + slot.offset, template.rate) : 0;
    const when = slot.loops
      ? 'all along'
      : `at ${secondsText(Math.max(0, at))}${cue && cue.name !== slot.name ? `, ${cue.name}` : ''}`;
    return [{ id: slot.id, name: slot.name, when }];
  });
}

/** Length with the default hold, as it is told. */
export const lengthOf = ({ seconds }: Pick<ListedTemplate, 'seconds'>): string => secondsText(seconds);
