import { everyLayer, type Template } from '@fresh-reel/core';
import { type Names, nameOfPart, type Place, standingOf } from '@fresh-reel/core/make';

interface Named {
  readonly id: string;
  readonly name: string;
}

/** What a word at a place can be the name of: slots, parts beside it, files, by what the format asks for there. */
export function optionsFor(template: Template, place: Place, names: Names | undefined): readonly Named[] {
  const slots = (...kinds: readonly string[]) =>
    template.slots.filter((s) => kinds.includes(s.kind)).map(({ id, name }) => ({ id, name }));
  switch (names) {
    case 'words':
      return slots('text', 'list');
    case 'picture':
      return slots('picture', 'logo');
    case 'any-slot':
      return slots('text', 'list', 'picture', 'logo');
    case 'sibling':
    case 'sibling-text': {
      if (place.of === 'template') return [];
      const { layer } = place.of;
      return standingOf(template, layer).beside.flatMap((l) =>
        l.id !== layer && (names === 'sibling' || l.kind === 'text')
          ? [{ id: l.id, name: nameOfPart(l) }]
          : [],
      );
    }
    case 'cue':
      return template.cues;
    case 'scene':
      return template.scenes;
    case 'asset':
      return Object.keys(template.assets).map((name) => ({ id: name, name }));
    default:
      return [];
  }
}

/** The kind of the layer a place is of; nothing of a place of the template. */
export function kindAt(template: Template, place: Place): string {
  if (place.of === 'template') return 'template';
  const { layer } = place.of;
  return [...everyLayer(template.layers)].find((l) => l.id === layer)?.kind ?? '';
}
