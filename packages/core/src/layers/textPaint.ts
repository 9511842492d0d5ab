import { resolveEffect } from '../effects/registry';
import { type Homography, IDENTITY4, multiply4, planeOf, project, scale4 } from '../geometry/matrix';
import { type Path, rectanglePath } from '../geometry/path';
import { planeBounds } from '../geometry/plane';
import { corners, intersection, isEmpty, type Rect } from '../geometry/rect';
import { grouped, withEffects, within } from '../paint/compose';
import type { Op, Paint } from '../paint/ops';
import type { PlacedGlyph, TextLayout } from '../text/textLayout';
import { resolvePaint } from './common';
import type { LetterMap, Node, PaintTools } from './kind';
import { layerEffects } from './layerEffects';
import { coverOps } from './picture';
import { ALIGN, bendGlyph } from './textBend';
import { paintDepth } from './textDepth';
import { type Ink, inkGlyph, inkPath, joinedPath, underlinePath } from './textInk';
import { glyphMatrix, type Into, type TextMoment } from './textMoment';
import { type Cursor, movesAt } from './textMoves';
import { paintMoving } from './textMoving';
import { paintPlates } from './textPlates';
import type { TextLayer } from './textSchema';
import type { TextFill } from './textStyle';
import { paintTrails, waysAround } from './textTrail';

/** Paints words: as few outlines at rest, glyph by glyph while any of them moves. */
export function paintText(node: Node<TextLayer>, tools: PaintTools): Op[] {
  const { layer, measured } = node;
  const layout = measured.text!;
  const runs = measured.runs ?? [];
  const { bend } = measured;
  const depth = tools.value(layer.perspective);
  const view = depth === 1 ? tools.matrix : multiply4(tools.matrix, scale4(1, 1, depth));
  const align = ALIGN[tools.value(layer.align)];
  const isMarked = (g: PlacedGlyph) => runs[g.run]?.marked === true;
  const { moves, cursor } = movesAt(layer, layout, tools, isMarked);
  const restOf = (g: PlacedGlyph) => (bend ? bendGlyph(bend, layout, g, align) : IDENTITY4);
  const moment: TextMoment = {
    layer,
    layout,
    tools: { ...tools, matrix: view },
    moves,
    isMarked,
    restOf,
    baseOf: (g) => (bend ? multiply4(view, restOf(g)) : view),
  };
  if (tools.reportLetters) traceLetters(moment, tools.reportLetters);

  const inkOf = inks(node, tools);
  const plates = layer.plates.length > 0 ? paintPlates(moment) : [];
  const trails = layer.trail ? paintTrails(layer.trail, moment, (g) => inkOf(g)[1].fill) : [];
  const words = paintWords(moment, inkOf, node, tools);
  return [...plates, ...trails, ...words, ...(cursor ? paintCursor(cursor, moment, inkOf) : [])];
}

/** All letters; marked ones and the others apart where an effect is limited to one of them. */
function paintWords(
  moment: TextMoment,
  inkOf: (g: PlacedGlyph) => [TextFill, Ink],
  node: Node<TextLayer>,
  tools: PaintTools,
): Op[] {
  const limited = layerEffects(node.layer).filter((e) => e.only !== undefined);
  if (limited.length === 0) return paintLetters(moment, inkOf, node, tools);
  return (['unmarked', 'marked'] as const).flatMap((only) => {
    const layout = halfOf(moment, only);
    if (layout.glyphs.length === 0) return [];
    const ops = paintLetters({ ...moment, layout }, inkOf, node, tools);
    const effects = limited.flatMap((e) =>
      e.only === only ? (resolveEffect(e, momentOf(tools, node.box), tools.scale) ?? []) : [],
    );
    if (effects.length === 0 || ops.length === 0) return ops;
    return withEffects(ops, effects);
  });
}

/** What effects on words may depend on. */
function momentOf({ value, moment, plane }: PaintTools, { width, height }: Rect) {
  return { value, time: moment.time, box: { x: 0, y: 0, width, height }, plane };
}

/** The marked or unmarked letters of a layout, at their places. */
function halfOf({ layout, isMarked, tools }: TextMoment, only: 'marked' | 'unmarked'): TextLayout {
  const marks = new Set(layout.glyphs.filter(isMarked).map((g) => g.run));
  const half = () => ({
    ...layout,
    glyphs: layout.glyphs.filter((g) => marks.has(g.run) === (only === 'marked')),
  });
  return tools.memo.of(`half/${only}/${[...marks].join()}`, half, layout);
}

function paintLetters(
  moment: TextMoment,
  inkOf: (g: PlacedGlyph) => [TextFill, Ink],
  node: Node<TextLayer>,
  tools: PaintTools,
): Op[] {
  if (moment.layer.depth) return paintDepth(moment.layer.depth, moment, inkOf, tools);
  const parts = new Map<TextFill, { below: Op[]; above: Op[] }>();
  const into = (fill: TextFill) => {
    let part = parts.get(fill);
    if (!part) {
      part = { below: [], above: [] };
      parts.set(fill, part);
    }
    return part;
  };
  const still = moment.moves.length === 0 && !node.measured.bend;
  const fades = still ? [] : paintMoving(moment, inkOf, into);
  if (still) paintAtRest(moment, inkOf, into);
  const below = [...parts.values()].flatMap((p) => p.below);
  const above = [...parts].flatMap(([fill, p]) => seenThrough(fill, p.above, node, tools));
  return fades.length > 0 ? grouped([...below, ...above, ...fades]) : [...below, ...above];
}

/** The ink of each run, resolved once. */
function inks({ layer, measured }: Node<TextLayer>, tools: PaintTools): (g: PlacedGlyph) => [TextFill, Ink] {
  const { value } = tools;
  const layout = measured.text!;
  const runs = measured.runs ?? [];
  const box = { x: 0, y: 0, width: layout.width, height: layout.height };
  const paintOf = (fill: TextFill): Paint | undefined =>
    fill === 'none'
      ? undefined
      : isPicture(fill)
        ? { kind: 'solid', colour: '#ffffff' }
        : resolvePaint(fill, box, value);
  const outlines = layer.outlines.flatMap((o) => {
    const width = value(o.width);
    return width > 0 ? [{ paint: resolvePaint(o.paint, box, value), width, side: o.side }] : [];
  });
  const em = layout.size / 1000;
  const made = new Map<number, [TextFill, Ink]>();
  return (g) => {
    let found = made.get(g.run);
    if (!found) {
      const run = runs[g.run];
      const marked = run?.marked ? layer.marked : {};
      const fill: TextFill = run?.colour ? { colour: run.colour } : (marked.fill ?? layer.fill);
      const underline = run?.underline ?? value(marked.underline ?? layer.underline);
      found = [
        fill,
        { fill: paintOf(fill), outlines, underline, shift: value(marked.shift ?? layer.shift) * em },
      ];
      made.set(g.run, found);
    }
    return found;
  };
}

type PictureFilling = Extract<TextFill, { picture: unknown } | { media: unknown }>;

function isPicture(fill: TextFill): fill is PictureFilling {
  return fill !== 'none' && ('picture' in fill || 'media' in fill);
}

/** Fills that are pictures show through the letters. */
function seenThrough(fill: TextFill, ops: Op[], node: Node<TextLayer>, tools: PaintTools): Op[] {
  if (!isPicture(fill) || ops.length === 0) return ops;
  const picture = 'picture' in fill ? tools.picture(fill.picture) : tools.media(fill.media);
  if (!picture) return ops;
  return within(coverOps(picture, { x: 0, y: 0, ...node.measured.size }, tools.matrix), ops);
}

/** Lines of one outline: long texts are cut into such parts, and those outside the picture are left out. */
const LINES_A_PART = 12;

function paintAtRest(moment: TextMoment, inkOf: (g: PlacedGlyph) => [TextFill, Ink], into: Into): void {
  const { layout, tools } = moment;
  const plane = planeOf(tools.matrix);
  const visible = partsInView(layout, plane, tools);
  const { groups, pictures } = tools.memo.of('parts', () => partsOf(layout), layout);
  for (const group of groups) {
    const first = group[0]!;
    if (!visible(partOf(first))) continue;
    const [fill, ink] = inkOf(first);
    const path = joinedPath(group, layout.size, ink.shift, tools.memo);
    const { below, above } = into(fill);
    if (ink.underline) {
      for (const line of underlines(layout, group, ink.shift)) {
        const under = inkPath(line, plane, ink);
        below.push(...under.below);
        above.push(...under.above);
      }
    }
    const inked = inkPath(path, plane, ink);
    below.push(...inked.below);
    above.push(...inked.above);
  }
  for (const g of pictures) {
    if (!visible(partOf(g))) continue;
    const [fill, ink] = inkOf(g);
    into(fill).above.push(...inkGlyph(g, layout.size, ink, tools.matrix).above);
  }
}

const partOf = (g: PlacedGlyph) => Math.floor(g.line / LINES_A_PART);

interface Parts {
  /** Outlined glyphs of one run and one part. */
  readonly groups: readonly (readonly PlacedGlyph[])[];
  readonly pictures: readonly PlacedGlyph[];
}
/** A layout's glyphs as they are painted together. */
function partsOf(layout: TextLayout): Parts {
  const groups = new Map<string, PlacedGlyph[]>();
  const pictures: PlacedGlyph[] = [];
  for (const g of layout.glyphs) {
    if (g.picture !== undefined) {
      pictures.push(g);
      continue;
    }
    const key = `${g.run}/${partOf(g)}`;
    const group = groups.get(key);
    if (group) group.push(g);
    else groups.set(key, [g]);
  }
  return { groups: [...groups.values()], pictures };
}

/** Whether a part of a long text can be seen. Short texts are one part and always painted. */
function partsInView(
  layout: TextLayout,
  plane: Homography,
  { moment }: PaintTools,
): (part: number) => boolean {
  if (layout.lines.length <= LINES_A_PART) return () => true;
  const frame = { x: 0, y: 0, ...moment.frame };
  const em = layout.size;
  return (part) => {
    const lines = layout.lines.slice(part * LINES_A_PART, (part + 1) * LINES_A_PART);
    const top = lines[0]!.top - em;
    const box = { x: -em, y: top, width: layout.width + 2 * em, height: lines.at(-1)!.bottom + em - top };
    return !isEmpty(intersection(planeBounds(plane, box), frame));
  };
}

/** One line under each stretch of underlined letters. */
function underlines(layout: TextLayout, glyphs: readonly PlacedGlyph[], shift: number): Path[] {
  return [...new Set(glyphs.map((g) => g.line))].map((i) => {
    const line = layout.lines[i]!;
    const own = glyphs.filter((g) => g.line === i);
    const from = Math.min(...own.map((g) => g.x));
    const to = Math.max(...own.map((g) => g.x + g.advance));
    return underlinePath(from, to, line.baseline - shift, layout.size);
  });
}

/** The bar that stands after what has been typed. */
function paintCursor(
  { after }: Cursor,
  moment: TextMoment,
  inkOf: (g: PlacedGlyph) => [TextFill, Ink],
): Op[] {
  const { layout } = moment;
  const at = layout.glyphs.find((g) => g.letter === Math.max(0, after));
  if (!at) return [];
  const line = layout.lines[at.line]!;
  const [, ink] = inkOf(at);
  const x = after < 0 ? at.x : at.x + at.advance;
  const cap = at.face.capHeight * layout.size;
  const bar = rectanglePath({
    x: x + layout.size * 0.06,
    y: line.baseline - cap * 1.12,
    width: layout.size * 0.07,
    height: cap * 1.24,
  });
  return [
    {
      op: 'path',
      path: bar,
      plane: planeOf(moment.baseOf(at)),
      fill: ink.fill ?? ink.outlines[0]?.paint ?? { kind: 'solid', colour: '#ffffff' },
      opacity: 1,
    },
  ];
}

/** Tells where every letter stands at this moment, for carets on the picture and for touching bent words. */
function traceLetters(moment: TextMoment, report: (letters: LetterMap['letters']) => void): void {
  const { layout, moves } = moment;
  const letters: LetterMap['letters'][number][] = [];
  const ways = waysAround(layout.glyphs, moment);
  for (const [i, g] of layout.glyphs.entries()) {
    const way = ways[i];
    const line = layout.lines[g.line]!;
    const plane = planeOf(glyphMatrix(moment, moves, g));
    const box = { x: g.x, y: line.top, width: g.advance, height: line.bottom - line.top };
    const quad = corners(box).map(([x, y]) => project(plane, x, y));
    letters.push({ from: g.from, to: g.to, quad, ...(way ? { way } : {}) });
  }
  report(letters);
}
