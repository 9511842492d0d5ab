import { contrast, fromOklab, type Oklab, oklabOf } from './colour';

/** How far a colour's lightness may go from the one whose place it takes, in OKLab. */
const NEAR = 0.1;
/** Below this chroma a colour is a grey of some kind. */
const GREY = 0.045;
/** Words are read from this contrast on (WCAG 2.2, level AA). */
const READABLE = 4.5;
/** What it costs that a colour has been given to another already. */
const AGAIN = 0.16;

const chromaOf = ([, a, b]: Oklab) => Math.hypot(a, b);

/**
 * Other colours in the places of a design's own: each takes the hue of the one that lies nearest by lightness and by
 * how strong it is, no two alike as far as there are enough, and keeps its place between light and dark. What could be
 * read on what, can still be read.
 * @param own the design's colours, by name
 * @param others one or more colours
 */
export function spreadColours(
  own: Readonly<Record<string, string>>,
  others: readonly string[],
): Record<string, string> {
  const palette = others.map(oklabOf);
  const used = palette.map(() => 0);
  // The strongest colours choose first: they are what a design is known by.
  const order = Object.entries(own)
    .map(([id, colour]) => ({ id, colour, lab: oklabOf(colour) }))
    .sort((p, q) => chromaOf(q.lab) - chromaOf(p.lab) || p.id.localeCompare(q.id));
  const given = new Map<string, string>();
  const result: Record<string, string> = {};
  const placed = new Map<string, Oklab>();
  for (const { id, colour, lab } of order) {
    const known = given.get(colour);
    if (known !== undefined) {
      result[id] = known;
      continue;
    }
    const cost = palette.map((p, i) => {
      const strength = Math.abs(chromaOf(p) - chromaOf(lab)) * (chromaOf(lab) < GREY ? 2.4 : 1.2);
      return Math.abs(p[0] - lab[0]) + strength + AGAIN * used[i]!;
    });
    const best = cost.indexOf(Math.min(...cost));
    used[best] = used[best]! + 1;
    const [l, a, b] = palette[best]!;
    const near = Math.min(lab[0] + NEAR, Math.max(lab[0] - NEAR, l));
    placed.set(id, [near, a, b]);
    result[id] = fromOklab([near, a, b]);
    given.set(colour, result[id]!);
  }
  // Pairs that could be read and no longer can go back to the lightness they had.
  for (const p of order) {
    for (const q of order) {
      if (contrast(p.colour, q.colour) < READABLE || contrast(result[p.id]!, result[q.id]!) >= READABLE)
        continue;
      for (const { id, lab } of [p, q]) {
        const [, a, b] = placed.get(id) ?? lab;
        result[id] = fromOklab([lab[0], a, b]);
        if (contrast(result[p.id]!, result[q.id]!) >= READABLE) break;
      }
      // Hues change luminance a little: what is still short of it loses its hue.
      for (const { id, lab } of [p, q]) {
        if (contrast(result[p.id]!, result[q.id]!) >= READABLE) break;
        result[id] = fromOklab([lab[0], lab[1], lab[2]]);
      }
    }
  }
  return result;
}
