import { takesWords } from '../documents/controls';
import { isWords } from '../documents/fill';
import type { Graphic, Reel } from '../documents/reel';
import { plainText } from '../edit/words';
import { graphicsOf } from '../reel/graphicTime';
import { excerptsOf } from '../render/excerpts';
import { outputName } from '../render/names';
import type { FrameSize } from '../values/frame';

/** A title of a reel as other tools are told of it: where it stands, and the file it is rendered to by itself. */
export interface PlacedTitle {
  readonly name: string;
  /** What can be read in it, a line for each slot and each break. */
  readonly words: string;
  /** The file that rendering "each title by itself" writes. */
  readonly file: string;
  /** Index of its track among those of the reel, the lowest first. */
  readonly track: number;
  /** Frames of the reel: the first, and how many. */
  readonly from: number;
  readonly count: number;
}

/** How the files of titles are named, and what the reel's beginning counts as. */
export interface ExchangeTerms {
  /** Frame that the reel's first one counts as; 0, when absent. */
  readonly start?: number;
  /** Ending of the files; that of WebM, when absent. */
  readonly ending?: string;
  /** Size they are rendered at; the reel's own, when absent. */
  readonly size?: FrameSize;
}

/** The titles of a reel, in the order in which they begin. */
export function titlesOf(
  reel: Reel,
  { ending = 'webm', size = reel.frame }: ExchangeTerms = {},
): PlacedTitle[] {
  const graphics = graphicsOf(reel);
  return excerptsOf(reel, 'each-title').map(({ reel: part, name, from, count }, i) => {
    const graphic = graphics[i]!;
    const file = outputName({ ...part, name }, 'webm', size, reel.rate).replace(/\.[^.]+$/, `.${ending}`);
    const track = reel.tracks.findIndex((t) => t.items.some((item) => item.id === graphic.id));
    return { name: graphic.template.name, words: wordsOf(graphic), file, track, from, count };
  });
}

/** What can be read in a title: its slots' words in their order, or their samples; what is hidden is left out. */
function wordsOf({ template, fill }: Graphic): string {
  return template.slots
    .flatMap((slot) => {
      if (!takesWords(slot) || fill.hidden?.includes(slot.id)) return [];
      const held = fill.slots[slot.id];
      const shown = held === undefined ? slot.sample : held;
      const text = isWords(shown) ? plainText(shown) : '';
      return text.split('\n').map((line) => line.trim());
    })
    .filter((line) => line !== '')
    .join('\n');
}
