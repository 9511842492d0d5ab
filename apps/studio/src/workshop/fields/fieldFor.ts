import type { Template } from '@fresh-reel/core';
import { fieldAt, type Place, type ValueField } from '@fresh-reel/core/make';

/** Keys under which a source holds other values of the same kind. */
const WITHIN = new Set<string | number>([
  'keys',
  'value',
  'shape',
  'wide',
  'tall',
  'square',
  'sum',
  'product',
  'table',
  'wave',
  'size',
]);

/** The field of a place, also where that lies within the source of a value: the field of that value, then. */
export function fieldFor(template: Template, { of, path }: Place): ValueField | undefined {
  const found = fieldAt(template, { of, path });
  if (found?.kind === 'value') return found;
  for (let end = path.length - 1; end > 0; end--) {
    const around = fieldAt(template, { of, path: path.slice(0, end) });
    if (around?.kind !== 'value') continue;
    const rest = path.slice(end);
    // A part of a point is a number, and so is what is not known to be else.
    const parted = rest.includes('parts') || !rest.every((key) => typeof key === 'number' || WITHIN.has(key));
    const own: ValueField = { ...around, optional: false };
    return parted ? { ...own, holds: 'number', parts: 1 } : own;
  }
  return undefined;
}
