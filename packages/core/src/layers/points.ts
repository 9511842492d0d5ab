import type { Spot } from '../geometry/forms';
import { type Matrix4, multiply4, translation4, turn4 } from '../geometry/matrix';
import type { LayerKind, PaintTools, Size } from './kind';
import { type Form, formOf, startsOf } from './pointForm';
import { paintMarks } from './pointMarks';
import { paintRibbons } from './pointRibbons';
import { paintStrokes } from './pointStrokes';
import type { Far, PointsLayer, Shown } from './pointsSchema';

/** The part of the whole in which one point comes. */
const COMING = 0.3;

/** All points of a moment. */
function shownAt(layer: PointsLayer, form: Form, box: Size, deep: number, tools: PaintTools): Shown[] {
  const { value, moment, matrix } = tools;
  const { time } = moment;
  const { sway } = layer;
  const spin = value(layer.spin);
  const turned = turn4(spin[0] * time, spin[1] * time, spin[2] * time);
  const whole = multiply4(matrix, multiply4(translation4(box.width / 2, box.height / 2, 0), turned));
  const swing = sway ? value(sway.size) : [0, 0, 0];
  const apart = sway ? value(sway.apart) : 0;
  const wave = layer.form.kind === 'wave' ? layer.form : undefined;
  const crests = wave ? value(wave.crests) : 0;
  const drawn = value(layer.drawn);
  const starts = startsOf(layer, form.spots.length, tools);
  const smaller = value(layer.far.smaller);
  const half = Math.max(1, Math.max(box.width, box.height, deep) / 2);
  const middle = inSpace(whole, [0, 0, 0]);
  return form.spots.flatMap((rest, index): Shown[] => {
    const come = Math.min(1, Math.max(0, (drawn - starts[index]! * (1 - COMING)) / COMING));
    if (come <= 0) return [];
    const cycle = sway ? time / sway.every : 0;
    const phase = 2 * Math.PI * (cycle + apart * (rest[0] + 0.5 + 0.37 * rest[2]));
    const rise = wave
      ? Math.sin(2 * Math.PI * (crests * (rest[0] + 0.5 * rest[2]) - time / wave.every)) * 0.5
      : rest[1];
    const spot: Spot = [
      rest[0] * box.width + swing[0]! * Math.sin(phase),
      rise * box.height + swing[1]! * Math.sin(phase * 1.13 + 1),
      rest[2] * deep + swing[2]! * Math.sin(phase * 0.87 + 2),
    ];
    const { x, y, z, w } = inSpace(whole, spot);
    if (w < NEAR) return [];
    return [
      {
        index,
        spot,
        x: x / w,
        y: y / w,
        depth: z,
        scale: 1 + (1 / w - 1) * smaller,
        away: Math.min(1, Math.max(0, 0.5 + (z - middle.z) / (2 * half))),
        come,
      },
    ];
  });
}

/** What is nearer to the camera than this part of its distance does not show. */
const NEAR = 0.05;

function inSpace(m: Matrix4, [x, y, z]: Spot) {
  const row = (r: number) => m[r]! * x + m[4 + r]! * y + m[8 + r]! * z + m[12 + r]!;
  return { x: row(0), y: row(1), z: row(2), w: row(3) };
}

/** Points on a form, linked, with words and pictures at them. */
export const points: LayerKind<PointsLayer> = {
  measure(layer, parent, { value }) {
    const [width, height] = layer.size ? value(layer.size) : [parent.width, parent.height];
    return { size: { width, height } };
  },

  paint({ layer, box }, tools) {
    const { value } = tools;
    const size = { width: Math.max(1, box.width), height: Math.max(1, box.height) };
    const deep = value(layer.deep);
    const form = formOf(layer, size, deep, tools);
    const shown = shownAt(layer, form, size, deep, tools);
    if (shown.length === 0) return [];
    const far: Far = {
      fainter: value(layer.far.fainter),
      darker: value(layer.far.darker),
      dark: value(layer.far.dark),
    };
    const byIndex = new Map(shown.map((p) => [p.index, p]));
    const middle = middleOf(size, tools);
    const pairs = form.links.flatMap(([a, b]): [Shown, Shown][] => {
      const [from, to] = [byIndex.get(a), b < 0 ? middle : byIndex.get(b)];
      return from && to ? [[from, to]] : [];
    });
    return [
      ...(layer.links?.shape === 'ribbon' ? paintRibbons(layer.links, pairs, far, tools) : []),
      ...paintStrokes(layer, shown, pairs, far, tools),
      ...paintMarks(layer, shown, form, far, tools),
    ];
  },

  slots: ({ form, words, pictures }) => [
    ...new Set([
      ...(form.kind === 'places' ? [form.slot] : []),
      ...(words ? [words.slot] : []),
      ...(pictures?.slots ?? []),
    ]),
  ],
};

/** The middle of the form, which has no dot of its own. */
function middleOf(box: Size, { matrix }: PaintTools): Shown {
  const { x, y, z, w } = inSpace(
    multiply4(matrix, translation4(box.width / 2, box.height / 2, 0)),
    [0, 0, 0],
  );
  return { index: -1, spot: [0, 0, 0], x: x / w, y: y / w, depth: z, scale: 1 / w, away: 0.5, come: 1 };
}
