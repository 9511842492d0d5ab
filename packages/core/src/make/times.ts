import type { Template } from '../documents/template';
import { everyLayer, type Layer } from '../layers/registry';
import { type Clock, type Mark, markTime } from '../time/clock';
import { changePart, type Place, partOf, putValue } from './places';

/** A mark in a layer, and where it stands there. */
export interface PlacedMark {
  readonly path: readonly (string | number)[];
  readonly mark: Mark;
  /** Whether it is a key of a value, rather than where something begins or ends. */
  readonly isKey: boolean;
}

const isMark = (data: object): data is Mark =>
  typeof (data as Partial<Mark>).at === 'number' &&
  ['in', 'hold', 'out'].includes((data as Partial<Mark>).of ?? '');

function* marksIn(data: unknown, path: readonly (string | number)[]): Generator<PlacedMark> {
  if (typeof data !== 'object' || data === null) return;
  if (Array.isArray(data)) {
    for (const [i, part] of data.entries()) yield* marksIn(part, [...path, i]);
    return;
  }
  if (isMark(data)) yield { path, mark: data, isKey: 'value' in data };
  for (const [key, value] of Object.entries(data))
    if (key !== 'layers') yield* marksIn(value, [...path, key]);
}

/** Every mark of a layer, without those of what is in it. */
export const marksOf = (layer: Layer): PlacedMark[] => [...marksIn(layer, [])];

/**
 * Moves all that a layer does, and what is in it, by so many frames: when it is there, its keys, its motions.
 * @param frames of the template's rate; negative is earlier
 */
export function shiftPart(template: Template, id: string, frames: number): Template {
  const by = Math.round(frames);
  if (by === 0) return template;
  return [...everyLayer([partOf(template, id)])].reduce(
    (t, { id: each }) => changePart(t, each, (layer) => shifted(layer, by) as Layer),
    template,
  );
}

function shifted(data: unknown, by: number): unknown {
  if (typeof data !== 'object' || data === null) return data;
  if (Array.isArray(data)) return data.map((part) => shifted(part, by));
  const moved = Object.fromEntries(
    Object.entries(data).map(([key, value]) => [key, key === 'layers' ? value : shifted(value, by)]),
  );
  return isMark(data) ? { ...moved, at: data.at + by } : moved;
}

/** The whole length of a template as a span. */
const ALL = (template: Template): { from: Mark; to: Mark } => ({
  from: { at: 0, of: 'in' },
  to: { at: template.timing.out, of: 'out' },
});

/** Sets when a layer begins to be there, or ceases; from the beginning to the end it has no span. */
export function trimPart(template: Template, id: string, edge: 'from' | 'to', mark: Mark): Template {
  const whole = ALL(template);
  return changePart(template, id, (layer) => {
    const { span = whole, ...rest } = layer;
    const next = { ...span, [edge]: { at: Math.round(mark.at), of: mark.of } };
    const isAll =
      next.from.at <= 0 && next.from.of === 'in' && next.to.of === 'out' && next.to.at >= whole.to.at;
    return (isAll ? rest : { ...rest, span: next }) as Layer;
  });
}

/**
 * Moves a mark of a layer, and those that stand at the same moment, to another time. Marks stay in their stretch, so
 * that a longer hold goes on moving them as it did.
 * @param clock of the template as it stands
 */
export function moveMarks(template: Template, id: string, clock: Clock, from: number, to: number): Template {
  const layer = partOf(template, id);
  const by = Math.round(to - from);
  if (by === 0) return template;
  return marksOf(layer)
    .filter(({ mark }) => Math.abs(markTime(clock, mark) - from) < 0.5)
    .reduce((t, { path, mark }) => {
      const place: Place = { of: { layer: id }, path: [...path, 'at'] };
      return putValue(t, place, mark.at + by);
    }, template);
}
