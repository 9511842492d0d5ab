import { IDENTITY_PLANE, multiply4, planeOf, scale4, translation4 } from '../geometry/matrix';
import { ellipsePath } from '../geometry/path';
import { faded } from '../paint/compose';
import type { Op } from '../paint/ops';
import { splitColumns } from '../text/columns';
import type { TextLayout, TextStyle } from '../text/textLayout';
import type { ValueOf } from './common';
import type { PaintTools } from './kind';
import { outlinePath } from './outline';
import { coverOps } from './picture';
import type { Form } from './pointForm';
import { easeOut, shadeAt, shadesOf } from './pointStrokes';
import type { Far, PointsLayer, Shown } from './pointsSchema';
import { type Ink, inkGlyph, joinedPath } from './textInk';

/** A word at a point is set in one line of this many frame units at most. */
const WIDEST = 900;
/** The part of a point's coming after which its word begins to show. */
const LATE = 0.4;
/** Forms whose points follow one another along a line. */
const IN_ROW: ReadonlySet<string> = new Set(['line', 'ring', 'spiral', 'outline']);
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** What stands at a point, if anything does. */
type Mark = (point: Shown) => Op[];

/** Pictures and words at points, the farthest point first: what is near covers all that is behind it. */
export function paintMarks(
  layer: PointsLayer,
  shown: readonly Shown[],
  form: Form,
  far: Far,
  tools: PaintTools,
): Op[] {
  const marks = [picturesAt(layer, far, tools), wordsAt(layer, form, far, tools)].filter(
    (m) => m !== undefined,
  );
  if (marks.length === 0) return [];
  return [...shown]
    .sort((a, b) => b.depth - a.depth)
    .flatMap((point) => marks.flatMap((mark) => mark(point)));
}

function wordsAt(layer: PointsLayer, placed: Form, far: Far, tools: PaintTools): Mark | undefined {
  const { words } = layer;
  if (!words) return undefined;
  const { value, memo } = tools;
  const given = tools.words(words.slot).text.split('\n');
  const typed = given.map((l) => splitColumns(l.trim())[words.column - 1] ?? '');
  const list = placed.lines ? typed : typed.filter((l) => l !== '');
  if (list.length === 0) return undefined;
  const style = {
    family: value(words.family),
    weight: value(words.weight),
    size: value(words.size),
    tracking: 0,
    leading: 1.2,
    align: 'start' as const,
    case: 'as-typed' as const,
  };
  const shades = shadesOf(value(words.colour), far);
  const set = layoutsOf([...new Set(list)], style, tools);
  const [ox, oy] = value(words.offset);
  const align = value(words.align);
  const wordAt = wordsFor(layer, list, placed, value);
  return (point) => {
    const text = wordAt.get(point.index);
    const come = Math.max(0, (point.come - LATE) / (1 - LATE));
    const opacity = come * (1 - far.fainter * point.away);
    if (!text || opacity <= 0.01) return [];
    const layout = set.get(text)!;
    const k = point.scale * tools.scale;
    const own = shades[shadeAt(shades.length, point.away)]!;
    const x = point.x + ox * k - layout.width * align * k;
    const y = point.y + (oy - layout.height / 2) * k;
    return wordOps(layout, x, y, k, own, opacity, memo);
  };
}

/** The list's lines as they are set, all at once: hundreds of them stay in no cache of texts. */
function layoutsOf(
  lines: readonly string[],
  style: TextStyle,
  { memo, layouts }: PaintTools,
): ReadonlyMap<string, TextLayout> {
  const key = `labels/${layouts.fonts.version}/${JSON.stringify(style)}/${lines.join('\n')}`;
  return memo.of(key, () => {
    const rule = { width: WIDEST, lines: 1, least: 0.3, balance: true };
    return new Map(lines.map((line) => [line, layouts.layout(line, style, rule)]));
  });
}

/**
 * Which point has which words: of a list of places each its own; else one after the other from the one that comes first
 * on, each at its own point, or spread over all points, however many of them have come.
 */
function wordsFor(
  { words, form }: PointsLayer,
  list: readonly string[],
  { spots, lines }: Form,
  value: ValueOf,
): Map<number, string> {
  const found = new Map<number, string>();
  const most = value(words!.most);
  if (lines) {
    lines.slice(0, most).forEach((line, index) => {
      found.set(index, list[line] ?? '');
    });
    return found;
  }
  const all = spots.length;
  const many = Math.min(most, all, list.length);
  const first = value(words!.first) - 1;
  for (let j = 0; j < many; j++) {
    let index = j;
    if (words!.at === 'spread') {
      // In rows and ranks even steps would put all words in one column: steps of the golden ratio never do.
      const part = IN_ROW.has(form.kind) ? (j + 0.5) / many : ((j + 0.5) * GOLDEN) % 1;
      index = Math.floor(part * all);
      while (found.has(index)) index = (index + 1) % all;
    }
    found.set(index, list[(first + j) % list.length]!);
  }
  return found;
}

function wordOps(
  layout: TextLayout,
  x: number,
  y: number,
  k: number,
  colour: string,
  opacity: number,
  memo: PaintTools['memo'],
): Op[] {
  const letters = memo.of('outlined', () => layout.glyphs.filter((g) => g.picture === undefined), layout);
  const plane = [k, 0, x, 0, k, y, 0, 0, 1] as const;
  const ops: Op[] = [];
  if (letters.length > 0) {
    const path = joinedPath(letters, layout.size, 0, memo);
    ops.push({ op: 'path', path, plane, fill: { kind: 'solid', colour }, small: true, opacity });
  }
  if (letters.length < layout.glyphs.length) {
    const ink: Ink = { fill: { kind: 'solid', colour }, outlines: [], underline: false, shift: 0 };
    const matrix = multiply4(translation4(x, y, 0), scale4(k, k));
    for (const g of layout.glyphs)
      if (g.picture !== undefined) ops.push(...faded(inkGlyph(g, layout.size, ink, matrix).above, opacity));
  }
  return ops;
}

function picturesAt({ pictures }: PointsLayer, far: Far, tools: PaintTools): Mark | undefined {
  if (!pictures) return undefined;
  const { value } = tools;
  const slots = pictures.slots.filter((s) => tools.isFilled(s));
  if (slots.length === 0) return undefined;
  const [across, ratio] = [value(pictures.across), value(pictures.ratio)];
  const [width, height] = [across * Math.min(1, ratio), across * Math.min(1, 1 / ratio)];
  const [ox, oy] = value(pictures.offset);
  const whole = { x: 0, y: 0, width, height };
  const outline = pictures.outline ?? ({ kind: 'rectangle', corner: 0 } as const);
  const path = outlinePath(outline, whole, { ...tools, plane: IDENTITY_PLANE });
  const pin = pictures.pin && {
    path: ellipsePath({ x: -0.5, y: -0.5, width: 1, height: 1 }),
    fill: { kind: 'solid', colour: value(pictures.pin.colour) } as const,
    across: value(pictures.pin.across),
  };
  return (point) => {
    const slot = slots[point.index % slots.length]!;
    const found = tools.picture(slot);
    const k = point.scale * tools.scale * easeOut(point.come);
    if (!found || k <= 0.001) return [];
    const left = point.x + (ox - width / 2) * k;
    const matrix = multiply4(translation4(left, point.y + (oy - height / 2) * k, 0), scale4(k, k));
    const plane = planeOf(matrix);
    const painted: Op[] = [{ op: 'clip', path, plane }, ...coverOps(found, whole, matrix), { op: 'unclip' }];
    tools.reportSlot?.(slot, matrix, whole, found);
    if (pictures.edge) {
      const paint = { kind: 'solid', colour: value(pictures.edge.colour) } as const;
      const stroke = { paint, width: value(pictures.edge.width), join: 'miter', cap: 'butt' } as const;
      painted.push({ op: 'path', path, plane, stroke, opacity: 1 });
    }
    const dim = far.darker * point.away;
    if (dim > 0.004) {
      const fill = { kind: 'solid', colour: far.dark } as const;
      painted.push({ op: 'path', path, plane, fill, opacity: dim });
    }
    if (pin) {
      const size = pin.across * k;
      const at = [size, 0, point.x, 0, size, point.y, 0, 0, 1] as const;
      painted.push({ op: 'path', path: pin.path, plane: at, fill: pin.fill, opacity: 1 });
    }
    return faded(painted, 1 - far.fainter * point.away);
  };
}
