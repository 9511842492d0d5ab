import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { sameData } from '../paint/ops';
import { setTemplate } from './anotherTemplate';

/** Graphics of a reel that are made of another edition of a template, in the order of time, by their ids. */
export function ofOtherEditions(reel: Reel, template: Template): string[] {
  const others = Object.entries(reel.templates).filter(
    ([, held]) => held.id === template.id && !sameData(held, template),
  );
  const keys = new Set(others.map(([key]) => key));
  return reel.tracks
    .flatMap(({ items }) => items.filter((i) => i.kind === 'graphic' && keys.has(i.template)))
    .sort((a, b) => a.start - b.start)
    .map(({ id }) => id);
}

/** Makes graphics of another edition of their template, with all they hold. @throws {EditError} when one is on a locked track */
export const setEdition = (reel: Reel, ids: readonly string[], template: Template): Reel =>
  ids.reduce((r, id) => setTemplate(r, id, template).reel, reel);

/** What an edition of a template has that another has not, in sentences. */
export function editionChanges(from: Template, to: Template): string[] {
  const lists = [
    ['slot', from.slots, to.slots],
    ['control', from.controls, to.controls],
    ['look', from.looks, to.looks],
  ] as const;
  const said = lists.flatMap(([what, before, after]) => [
    ...named(`A new ${what}`, `New ${what}s`, missingIn(before, after)),
    ...named(
      `A ${what} is gone`,
      `${what[0]!.toUpperCase()}${what.slice(1)}s are gone`,
      missingIn(after, before),
    ),
    ...named(
      `A ${what} has changed`,
      `${what[0]!.toUpperCase()}${what.slice(1)}s have changed`,
      changedIn(before, after),
    ),
  ]);
  const layers = !sameData(from.layers, to.layers) || !sameData(from.camera, to.camera);
  return [
    ...(from.name === to.name ? [] : [`It is called “${to.name}” now.`]),
    ...said,
    ...(layers ? ['How it is drawn or moves has changed.'] : []),
    ...(sameData(from.timing, to.timing) ? [] : ['Its times have changed.']),
  ];
}

interface Named {
  readonly id: string;
  readonly name: string;
}

const missingIn = (list: readonly Named[], other: readonly Named[]) =>
  other.filter((o) => !list.some(({ id }) => id === o.id));

const changedIn = (list: readonly Named[], other: readonly Named[]) =>
  other.filter((o) => list.some((held) => held.id === o.id && !sameData(held, o)));

function named(one: string, several: string, list: readonly Named[]): string[] {
  if (list.length === 0) return [];
  return [`${list.length === 1 ? one : several}: ${list.map(({ name }) => `“${name}”`).join(', ')}.`];
}
