import type { Rgba } from '../colour/colour';
import { diffuse, type Lighting, linearOf, lit, mirrored, type Vector } from '../colour/light';
import { type Matrix4, multiply4, planeOf, planeTimes, translation4 } from '../geometry/matrix';
import { pathBounds } from '../geometry/path';
import { type Prism, prismOf } from '../geometry/prism';
import type { Rect } from '../geometry/rect';
import type { Op, Paint } from '../paint/ops';
import type { PlacedGlyph } from '../text/textLayout';
import type { PaintTools } from './kind';
import { coverOps } from './picture';
import { type Ink, inkGlyph } from './textInk';
import type { MovedGlyph } from './textMoving';
import type { Depth } from './textSchema';
import type { TextFill } from './textStyle';

/** Ems by which a side may lie beside its curve. */
const FLATNESS = 0.0022;
/** Ems by which sides begin within the front, which lies over them: its curves and their lines never part. */
const TUCKED = 2 * FLATNESS;
/** Corners nearer to the camera than this part of its distance are not painted. */
const NEAR = 0.02;

/** How the text stands before the viewer: what of the projection can be read off a matrix that includes it. */
interface Eye {
  readonly centre: readonly [number, number];
  /** Parts of a frame unit's depth by which things get smaller: one over the camera's distance. */
  readonly nearness: number;
}

export function eyeOf(m: Matrix4, { width, height }: { width: number; height: number }): Eye {
  // Of the three axes, the one that goes most into the depth tells it best.
  const axis = [0, 1, 2].reduce((a, b) => (Math.abs(m[b * 4 + 2]!) > Math.abs(m[a * 4 + 2]!) ? b : a));
  const into = m[axis * 4 + 2]!;
  return {
    centre: [width / 2, height / 2],
    nearness: Math.abs(into) < 1e-9 ? 0 : m[axis * 4 + 3]! / into,
  };
}

const unit = ([x, y, z]: Vector): Vector => {
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
};

/** The direction, as the viewer has it, of one of a matrix's axes. */
function axisOf(m: Matrix4, axis: 0 | 1 | 2, { centre: [cx, cy] }: Eye): Vector {
  const [x, y, z, w] = [m[axis * 4]!, m[axis * 4 + 1]!, m[axis * 4 + 2]!, m[axis * 4 + 3]!];
  return unit([x - cx * w, y - cy * w, z]);
}

/** From the eye to a point of a matrix's own coordinates. */
export function fromEye(m: Matrix4, [x, y, z]: Vector, { centre: [cx, cy], nearness }: Eye): Vector {
  const row = (r: number) => m[r]! * x + m[4 + r]! * y + m[8 + r]! * z + m[12 + r]!;
  const w = row(3);
  return [row(0) - cx * w, row(1) - cy * w, nearness > 0 ? row(2) + 1 / nearness : 1e6];
}

/** What all letters of a moment share. */
export interface Solid {
  readonly depth: Depth;
  readonly tools: PaintTools;
  readonly eye: Eye;
  /** Frame units of an em, of the depth of a letter, and of the slope at its edge. */
  readonly em: number;
  readonly thickness: number;
  readonly bevel: number;
  readonly lighting: Lighting;
  /** The box of the whole text. */
  readonly box: Rect;
  /** The slot whose picture a letter shows. */
  readonly fronts: ReadonlyMap<PlacedGlyph, string>;
}

/** The solid of a glyph, in ems, made once. */
function prismFor(g: PlacedGlyph, glyph: number, { tools }: Solid): Prism {
  return tools.memo.of(`prism/${glyph}`, () => prismOf(g.face.outline(glyph), FLATNESS), g.face);
}

/** The sides of a letter that show, and its front or its back. */
export function solidOps(g: PlacedGlyph, moved: MovedGlyph, fill: TextFill, ink: Ink, solid: Solid): Op[] {
  const { depth, tools, eye, em, lighting, thickness } = solid;
  const { value } = tools;
  const { change } = moved;
  const prism = prismFor(g, change.glyph ?? g.glyph, solid);
  // The letter's own place: one unit is an em.
  const place = multiply4(moved.matrix, translation4(g.x + (change.dx ?? 0), g.y - ink.shift, 0));
  const axes = [axisOf(place, 0, eye), axisOf(place, 1, eye), axisOf(place, 2, eye)] as const;
  const front: Vector = [-axes[2][0], -axes[2][1], -axes[2][2]];
  const sight = fromEye(place, [g.advance * 0.5, -g.face.capHeight * em * 0.5, 0], eye);
  const view = unit([-sight[0], -sight[1], -sight[2]]);
  const side = depth.side ? value(depth.side) : solidColour(ink.fill);
  const slope = depth.slope ? value(depth.slope) : side;
  const sides = facesOf(prism, place, axes, view, { side: linearOf(side), slope: linearOf(slope) }, solid);
  const facing = front[0] * -sight[0] + front[1] * -sight[1] + front[2] * -sight[2] > 0;
  if (!facing) {
    const back = multiply4(moved.matrix, translation4(0, 0, thickness));
    const colour = lit(
      linearOf(depth.back ? value(depth.back) : side),
      diffuse(lighting, axes[2]),
      mirrored(lighting, axes[2], view),
    );
    const paint: Paint = { kind: 'solid', colour };
    const rim = solid.bevel > 0 ? [{ paint, width: 2 * solid.bevel, side: 'centre' as const }] : [];
    const { above } = inkGlyph(g, em, { ...ink, fill: paint, outlines: rim }, back, change);
    return [...sides, ...above];
  }
  return [...sides, ...frontOps(g, moved, fill, ink, front, solid)];
}

const solidColour = (paint: Paint | undefined): string =>
  paint === undefined ? '#808080' : paint.kind === 'solid' ? paint.colour : paint.stops.at(-1)![1];

/** The front: its fill under the light, the picture on it, what is mirrored, and its outlines. */
function frontOps(
  g: PlacedGlyph,
  { matrix, change }: MovedGlyph,
  fill: TextFill,
  ink: Ink,
  normal: Vector,
  solid: Solid,
): Op[] {
  const { tools, em, lighting, fronts, box } = solid;
  const under = diffuse(lighting, normal);
  const shaded = (colour: string) => lit(linearOf(colour), under);
  const paint = ink.fill && shadedPaint(ink.fill, shaded);
  const { below, above } = inkGlyph(g, em, { ...ink, fill: paint }, matrix, change);
  const ops = [...below, ...above];
  if (change.draw) return ops;
  const outline = g.face.outline(change.glyph ?? g.glyph);
  const own = planeTimes(planeOf(matrix), [em, 0, 0, em, g.x + (change.dx ?? 0), g.y - ink.shift]);
  const seen = (painted: Op[]): Op[] =>
    painted.length === 0 ? [] : [{ op: 'clip', path: outline, plane: own }, ...painted, { op: 'unclip' }];
  const slot = fronts.get(g);
  const whole = pictureOf(fill, tools);
  if (slot !== undefined) {
    const found = tools.picture(slot);
    const ems = pathBounds(outline);
    const letter = {
      x: g.x + ems.x * em,
      y: g.y - ink.shift + ems.y * em,
      width: ems.width * em,
      height: ems.height * em,
    };
    if (found && letter.width > 0 && letter.height > 0) {
      const at = multiply4(matrix, translation4(letter.x, letter.y, 0));
      ops.push(...seen(coverOps(found, { x: 0, y: 0, width: letter.width, height: letter.height }, at)));
      tools.reportSlot?.(slot, at, letter, found);
    }
  } else if (whole) ops.push(...seen(coverOps(whole, box, matrix)));
  const gleam = gleamOver(matrix, normal, solid);
  if (gleam) {
    const { above: sheen } = inkGlyph(g, em, { ...ink, fill: gleam, outlines: [] }, matrix, change);
    ops.push(...sheen);
  }
  return ops;
}

function pictureOf(fill: TextFill, tools: PaintTools) {
  if (fill === 'none') return undefined;
  if ('picture' in fill) return tools.picture(fill.picture);
  return 'media' in fill ? tools.media(fill.media) : undefined;
}

function shadedPaint(paint: Paint, shaded: (colour: string) => string): Paint {
  if (paint.kind === 'solid') return { ...paint, colour: shaded(paint.colour) };
  return { ...paint, stops: paint.stops.map(([at, colour]) => [at, shaded(colour)] as const) };
}

/** Places along the text at which what is mirrored is worked out. */
const GLEAMS = 8;

/** What the fronts mirror of the lights: a band that lies across the text where the first light meets the eye. */
function gleamOver(matrix: Matrix4, normal: Vector, { lighting, eye, box }: Solid): Paint | undefined {
  const [light] = lighting.lights;
  if (!light || lighting.gloss <= 0) return undefined;
  const [lx, ly] = light.towards;
  const flat = Math.hypot(lx, ly);
  const [dx, dy] = flat > 1e-6 ? [lx / flat, ly / flat] : [1, 0];
  const half = (Math.abs(dx) * box.width + Math.abs(dy) * box.height) / 2;
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const at = (t: number): readonly [number, number] => [cx + dx * half * t, cy + dy * half * t];
  let most = 0;
  const stops = Array.from({ length: GLEAMS + 1 }, (_, i) => {
    const [x, y] = at((2 * i) / GLEAMS - 1);
    const sight = fromEye(matrix, [x, y, 0], eye);
    const shown = mirrored(lighting, normal, unit([-sight[0], -sight[1], -sight[2]]));
    const strongest = Math.min(1, Math.max(...shown));
    most = Math.max(most, strongest);
    const [r, g, b] = shown.map((v) => (strongest > 0 ? v / Math.max(...shown) : 0)) as [
      number,
      number,
      number,
    ];
    return [i / GLEAMS, lit([1, 1, 1, strongest], [r, g, b])] as const;
  });
  if (most < 0.01) return undefined;
  return { kind: 'linear', from: at(-1), to: at(1), stops };
}

/**
 * The sides of a letter that can be seen, the farthest first: from the back to where the slope begins, and the slope.
 * @param place from the letter's own coordinates, frame units about its origin, to the camera's
 */
function facesOf(
  prism: Prism,
  place: Matrix4,
  axes: readonly [Vector, Vector, Vector],
  view: Vector,
  colours: { side: Rgba; slope: Rgba },
  { em, thickness, bevel, lighting, eye }: Solid,
): Op[] {
  if (thickness <= 0) return [];
  const found: { away: number; corners: readonly number[]; colour: string }[] = [];
  const slant = Math.SQRT1_2;
  for (const { points, normals, outward } of prism.contours) {
    const ring = (out: number, z: number) => ringOf(points, outward, em, out, z, place, eye);
    const tucked = -TUCKED * em;
    const far = ring(bevel, thickness);
    const middle = ring(bevel > 0 ? bevel : tucked, bevel);
    const near = bevel > 0 ? ring(tucked, 0) : undefined;
    const n = points.length / 2;
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      const add = (front: Ring, back: Ring, into: number, colour: Rgba, nearer: number) => {
        const flat = Math.sqrt(1 - into * into);
        const [nx, ny] = [normals[2 * i]! * flat, normals[2 * i + 1]! * flat];
        const normal: Vector = [
          axes[0][0] * nx + axes[1][0] * ny + axes[2][0] * into,
          axes[0][1] * nx + axes[1][1] * ny + axes[2][1] * into,
          axes[0][2] * nx + axes[1][2] * ny + axes[2][2] * into,
        ];
        const between = (k: 0 | 1 | 2) =>
          (front[4 * i + k]! + front[4 * j + k]! + back[4 * i + k]! + back[4 * j + k]!) / 4;
        const sight: Vector = [between(0), between(1), between(2)];
        // Half of all sides face away: they are left out before anything else is worked out.
        if (sight[0] * normal[0] + sight[1] * normal[1] + sight[2] * normal[2] >= 0) return;
        const corners: number[] = [];
        for (const [at, k] of [
          [front, i] as const,
          [front, j] as const,
          [back, j] as const,
          [back, i] as const,
        ]) {
          const w = at[4 * k + 3]!;
          if (w < NEAR) return;
          corners.push(at[4 * k]! / w + eye.centre[0], at[4 * k + 1]! / w + eye.centre[1]);
        }
        found.push({
          away: Math.hypot(...sight) - nearer,
          corners: turned(corners),
          colour: lit(colour, diffuse(lighting, normal), mirrored(lighting, normal, view)),
        });
      };
      add(middle, far, 0, colours.side, 0);
      // The slope lies before the side it ends in.
      if (near) add(near, middle, -slant, colours.slope, thickness);
    }
  }
  if (found.length === 0) return [];
  found.sort((a, b) => b.away - a.away);
  const points = new Float32Array(found.length * 8);
  found.forEach(({ corners }, i) => {
    points.set(corners, i * 8);
  });
  return [
    {
      op: 'faces',
      plane: [1, 0, 0, 0, 1, 0, 0, 0, 1],
      points,
      colours: found.map((f) => f.colour),
      opacity: 1,
    },
  ];
}

/** Four numbers a place: from the eye to it, x, y and z, and what x and y are divided by on the picture. */
type Ring = Float64Array;

/** The places of an outline at one depth, moved outwards by so many frame units. */
function ringOf(
  points: ArrayLike<number>,
  outward: ArrayLike<number>,
  em: number,
  out: number,
  depth: number,
  m: Matrix4,
  eye: Eye,
): Ring {
  const n = points.length / 2;
  const ring = new Float64Array(4 * n);
  for (let i = 0; i < n; i++) {
    const at = [
      points[2 * i]! * em + outward[2 * i]! * out,
      points[2 * i + 1]! * em + outward[2 * i + 1]! * out,
      depth,
    ] as const;
    ring.set(fromEye(m, at, eye), 4 * i);
    ring[4 * i + 3] = m[3]! * at[0] + m[7]! * at[1] + m[11]! * at[2] + m[15]!;
  }
  return ring;
}

/** Four corners, always the same way round. */
function turned(c: readonly number[]): readonly number[] {
  const twice = (c[4]! - c[0]!) * (c[7]! - c[3]!) - (c[6]! - c[2]!) * (c[5]! - c[1]!);
  return twice >= 0 ? c : [c[0]!, c[1]!, c[6]!, c[7]!, c[4]!, c[5]!, c[2]!, c[3]!];
}
