import { textChangeSchema } from '../layers/textStyle';
import { linkable, linkFaults } from '../values/linking';
import { takesPictures } from './controls';
import type { Fill } from './fill';
import type { ReelItemOf } from './item';
import type { Template } from './template';

/**
 * What was changed of texts, without the changes that name controls or slots which a template does not have: they came
 * from another template, or from this one as it was.
 */
export function suitingTexts(
  texts: NonNullable<Fill['texts']>,
  template: Template,
): NonNullable<Fill['texts']> {
  const controls = linkable(template.controls);
  const suits = (change: unknown) => {
    // What links are to give is known of what was read.
    const read = textChangeSchema.safeParse(change);
    if (!read.success || linkFaults(read.data, controls).length > 0) return false;
    const { fill } = read.data;
    const shown = typeof fill === 'object' && 'picture' in fill ? fill.picture : undefined;
    return shown === undefined || template.slots.some((s) => s.id === shown && takesPictures(s));
  };
  return Object.fromEntries(Object.entries(texts).filter(([, change]) => suits(change)));
}

/** The points of a title that go along with something, without those that a template does not have; nothing when none is left. */
export function suitingPoints(
  points: ReelItemOf<'graphic'>['points'],
  { controls }: Template,
): ReelItemOf<'graphic'>['points'] {
  const isPoint = (id: string) => controls.some((c) => c.id === id && c.kind === 'point');
  const left = Object.entries(points ?? {}).filter(([id]) => isPoint(id));
  return left.length > 0 ? Object.fromEntries(left) : undefined;
}
