import type { ControlValue } from '../documents/fill';
import type { Template } from '../documents/template';
import { EditError } from '../edit/place';
import { freeName } from '../values/freeName';
import { idOf } from './parts';

/** Kinds of control that a look sets: what something looks like, rather than how long it takes or where it stands. */
const SET_BY_LOOKS = ['number', 'colour', 'choice', 'switch', 'font'];

/**
 * Keeps what controls hold now as a look.
 * @param held values of the controls, by id
 * @throws {EditError} when the name is empty or another look has it
 */
export function keepLook(
  template: Template,
  name: string,
  held: Readonly<Record<string, ControlValue>>,
): Template {
  const words = name.trim();
  if (words === '') throw new EditError('Give the look a name.');
  if (template.looks.some((l) => l.name.toLowerCase() === words.toLowerCase()))
    throw new EditError(`There is a look called “${words}” already.`);
  if (template.looks.length >= 40) throw new EditError('A template has forty looks at most.');
  const id = freeName(idOf(words) || 'look', (wanted) => template.looks.some((l) => l.id === wanted));
  const controls = Object.fromEntries(
    template.controls.flatMap((c) =>
      SET_BY_LOOKS.includes(c.kind) && Object.hasOwn(held, c.id) ? [[c.id, held[c.id]!] as const] : [],
    ),
  );
  if (Object.keys(controls).length === 0)
    throw new EditError('A look sets controls, and there is none yet. Make something adjustable first.');
  return { ...template, looks: [...template.looks, { id, name: words.slice(0, 80), controls }] };
}

export const removeLook = (template: Template, id: string): Template => ({
  ...template,
  looks: template.looks.filter((l) => l.id !== id),
});
