import { takesWords } from '../documents/controls';
import { isWords } from '../documents/fill';
import type { Reel } from '../documents/reel';
import { plainText } from '../edit/words';
import { fileStem, formatFacts, type RenderFormat } from '../formats/plan';
import { graphicsOf } from '../reel/graphicTime';
import { plainName } from '../tables/table';
import { type Rate, rateLabel } from '../time/rate';
import type { FrameSize } from '../values/frame';

/** How files are named where nothing else is said: so that variants do not overwrite each other. */
export const USUAL_NAMES = '{reel}-{size}-{rate}';

/** What a pattern may hold in braces, besides the slots of the reel's titles. */
export const NAME_PARTS = ['reel', 'size', 'rate', 'template', 'look', 'day'] as const;

interface Named {
  readonly format: RenderFormat;
  readonly size: FrameSize;
  readonly rate: Rate;
}

/**
 * The name of the file that a render writes, by the reel's pattern. What stands in braces is taken from the reel; of
 * slots, the first title counts that has one of that name. What there is nothing of is left out.
 */
export function outputName(reel: Reel, format: RenderFormat, size: FrameSize, rate: Rate): string {
  const filled = (reel.output?.names ?? USUAL_NAMES).replace(
    PART,
    (_, part: string) => partOf(reel, part, { format, size, rate }) ?? '',
  );
  const stem = filled
    .normalize('NFC')
    .replace(/[^\p{L}\p{M}\p{N}._]+/gu, '-')
    .replace(/\.{2,}/g, '.')
    .replace(/^[-.]+|[-.]+$/g, '')
    .slice(0, 120);
  return `${stem || 'untitled'}.${formatFacts(format).extension}`;
}

/** What is wrong with a pattern, in words; nothing where all its parts are there. */
export function namesFault(reel: Reel, pattern: string): string | undefined {
  const facts: Named = { format: 'mp4', size: reel.frame, rate: reel.rate };
  for (const [whole, part] of pattern.matchAll(PART))
    if (partOf(reel, part!, facts) === undefined)
      return `${whole} is nothing of this reel. There are ${[...NAME_PARTS, ...slotNames(reel)].map((n) => `{${n}}`).join(', ')}.`;
  return undefined;
}

const PART = /\{([^{}]*)\}/g;

function partOf(reel: Reel, part: string, { format, size, rate }: Named): string | undefined {
  const graphics = graphicsOf(reel);
  const [first] = graphics;
  switch (part) {
    case 'reel':
      return fileStem(reel.name);
    case 'size':
      // What is only heard has none.
      return format === 'wav' ? '' : `${size.width}x${size.height}`;
    case 'rate':
      // Nor has a still.
      return format === 'png' || format === 'wav' ? '' : `${rateLabel(rate)}fps`;
    case 'template':
      return first ? fileStem(first.template.name) : '';
    case 'look': {
      const look = first?.template.looks.find((l) => l.id === first.fill.look) ?? first?.template.looks[0];
      return look ? fileStem(look.name) : '';
    }
    case 'day':
      return reel.changed.slice(0, 10);
  }
  for (const { template, fill } of graphics) {
    const named = (name: string) => plainName(name) === plainName(part);
    const slot = template.slots.find((s) => takesWords(s) && (named(s.id) || named(s.name)));
    if (!slot) continue;
    const shown = fill.slots[slot.id] === undefined ? slot.sample : fill.slots[slot.id];
    return isWords(shown) && plainText(shown).trim() ? fileStem(plainText(shown)) : '';
  }
  return undefined;
}

/** Names of slots with words, of all titles of a reel, each once. */
const slotNames = (reel: Reel): string[] => [
  ...new Set(
    graphicsOf(reel).flatMap(({ template }) =>
      template.slots.filter(takesWords).map((s) => s.name.toLowerCase()),
    ),
  ),
];
