import { lightFrom, type Vector } from '../colour/light';
import { type Matrix4, multiply4, translation4 } from '../geometry/matrix';
import { faded, grouped } from '../paint/compose';
import type { Op, Paint } from '../paint/ops';
import type { PlacedGlyph } from '../text/textLayout';
import { markTime } from '../time/clock';
import type { PaintTools } from './kind';
import { eyeOf, fromEye, type Solid, solidOps } from './solidLetter';
import { type Ink, inkGlyph } from './textInk';
import type { TextMoment } from './textMoment';
import { clippedTo, type MovedGlyph, movedGlyph, stepOf } from './textMoving';
import type { Depth } from './textSchema';
import type { TextFill } from './textStyle';

/** Slots whose pictures show on fronts. */
export const frontSlots = ({ fronts }: Depth): string[] =>
  fronts ? [...new Set([...fronts.slots, ...(fronts.switched?.slots ?? [])])] : [];

/** Letters that may have depth in a frame. */
const MOST_LETTERS = 400;

/** A letter of this moment, and how far its middle is from the eye. */
interface Standing {
  readonly g: PlacedGlyph;
  readonly moved: MovedGlyph;
  readonly away: number;
}

/** Paints letters as solids, the farthest first, over what they cast behind them. */
export function paintDepth(
  depth: Depth,
  moment: TextMoment,
  inkOf: (g: PlacedGlyph) => [TextFill, Ink],
  tools: PaintTools,
): Op[] {
  const { layout } = moment;
  const { value } = tools;
  let { glyphs } = layout;
  if (glyphs.length > MOST_LETTERS) {
    tools.notice({ kind: 'too-much', slot: '' });
    glyphs = glyphs.slice(0, MOST_LETTERS);
  }
  const eye = eyeOf(moment.tools.matrix, tools.moment.frame);
  const letters = glyphs.flatMap((g): Standing[] => {
    const moved = movedGlyph(g, moment);
    if (!moved) return [];
    const middle: Vector = [g.x + g.advance / 2, g.y - g.face.capHeight * layout.size * 0.5, 0];
    return [{ g, moved, away: Math.hypot(...fromEye(moved.matrix, middle, eye)) }];
  });
  const order = [...letters].sort((a, b) => b.away - a.away);
  const solid: Solid = {
    depth,
    tools,
    eye,
    em: layout.size,
    thickness: Math.max(value(depth.thickness), value(depth.bevel)) * layout.size,
    bevel: value(depth.bevel) * layout.size,
    lighting: {
      ambient: value(depth.ambient),
      gloss: value(depth.gloss),
      lights: depth.lights.map((l) =>
        lightFrom(value(l.angle), value(l.height), value(l.colour), value(l.strength)),
      ),
    },
    fronts: frontsOf(depth, moment, tools),
    box: { x: 0, y: 0, width: layout.width, height: layout.height },
  };
  const cast = depth.shadow ? shadowsOf(depth.shadow, letters, moment, solid) : [];
  return [...cast, ...order.flatMap((letter) => paintLetter(letter, inkOf(letter.g), solid))];
}

function paintLetter({ g, moved }: Standing, [fill, ink]: [TextFill, Ink], solid: Solid): Op[] {
  const { tools } = solid;
  const { opacity, blur, clips } = moved;
  let ops = g.picture === undefined ? solidOps(g, moved, fill, ink, solid) : flatOps(g, moved, ink, solid);
  ops = clippedTo(ops, clips);
  const radius = stepOf(blur) * tools.scale;
  if (radius > 0) return grouped(ops, { opacity, effects: [{ effect: 'blur', radius }] });
  return faded(ops, opacity);
}

function flatOps(g: PlacedGlyph, { matrix, change }: MovedGlyph, ink: Ink, { em }: Solid): Op[] {
  const { below, above } = inkGlyph(g, em, ink, matrix, change);
  return [...below, ...above];
}

/** Depths of a letter at which its shadow is drawn: softness hides the steps. */
const SLICES = [0, 0.5, 1];

/** What letters cast on a plane behind all of them, by the first light, or by one from the top left. */
function shadowsOf(
  shadow: NonNullable<Depth['shadow']>,
  letters: readonly Standing[],
  moment: TextMoment,
  { depth, tools, em, thickness }: Solid,
): Op[] {
  const { value } = tools;
  const strength = value(shadow.strength);
  if (strength <= 0.002 || letters.length === 0) return [];
  const [light] = depth.lights;
  const [angle, height] = light ? [value(light.angle), value(light.height)] : [-120, 50];
  const far = thickness + value(shadow.behind);
  const reach = 1 / Math.tan((Math.min(89, Math.max(8, height)) * Math.PI) / 180);
  const [sx, sy] = [-Math.cos((angle * Math.PI) / 180) * reach, -Math.sin((angle * Math.PI) / 180) * reach];
  // Along the light onto the plane at `far`: what lies before it by d is carried aside by d times the slope.
  const onto: Matrix4 = [1, 0, 0, 0, 0, 1, 0, 0, -sx, -sy, 0, 0, sx * far, sy * far, far, 1];
  const plane = multiply4(moment.tools.matrix, onto);
  const flat: TextMoment = { ...moment, baseOf: moment.restOf };
  const fill: Paint = { kind: 'solid', colour: value(shadow.colour) };
  const ops = letters.flatMap(({ g, moved }) => {
    const own = movedGlyph(g, flat);
    if (!own || g.picture !== undefined) return [];
    const ink: Ink = { fill, outlines: [], underline: false, shift: 0 };
    return SLICES.flatMap((slice) => {
      const at = multiply4(multiply4(plane, own.matrix), translation4(0, 0, slice * thickness));
      return faded(inkGlyph(g, em, ink, at, moved.change).above, moved.opacity);
    });
  });
  if (ops.length === 0) return [];
  const radius = value(shadow.blur) * tools.scale;
  return grouped(ops, {
    opacity: strength,
    effects: radius > 0.05 ? [{ effect: 'blur', radius }] : [],
  });
}

/** Which slot's picture each letter shows: filled ones alone, one after the other as the words read. */
function frontsOf({ fronts }: Depth, { layout }: TextMoment, tools: PaintTools): Map<PlacedGlyph, string> {
  const shown = new Map<PlacedGlyph, string>();
  if (!fronts) return shown;
  const { clock, time } = tools.moment;
  const later = fronts.switched && time >= markTime(clock, fronts.switched.at) ? fronts.switched.slots : [];
  const filled = (slots: readonly string[]) => slots.filter((s) => tools.isFilled(s));
  const slots = filled(later).length > 0 ? filled(later) : filled(fronts.slots);
  if (slots.length === 0) return shown;
  const letters = layout.glyphs
    .filter((g) => g.picture === undefined && g.advance > 0 && g.face.outline(g.glyph).commands.length > 0)
    .sort((a, b) => a.letter - b.letter);
  const places = [...new Set(letters.map((g) => g.letter))];
  for (const g of letters) shown.set(g, slots[places.indexOf(g.letter) % slots.length]!);
  return shown;
}
