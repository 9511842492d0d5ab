import type { Path, PathCommand } from '../geometry/path';
import { quadratic } from '../geometry/path';
import type { FontAxis, HarfBuzz, HarfBuzzFace, HarfBuzzFont, ShapedGlyph } from './harfbuzz';
import type { AnyScript, Script } from './scripts';

/** What a font file is, as the catalogue or the user's media shelf tells it. */
export interface FontInfo {
  readonly family: string;
  /** 100 to 900. */
  readonly weight: number;
  /** Scripts this font stands in for when a template's own font lacks them. */
  readonly standsInFor?: readonly Script[];
}

/** Ink box of a glyph relative to its origin, in ems, y downwards. */
export interface InkBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The name under which hosts register the colour font for the canvas. */
export const EMOJI_FAMILY = 'Fresh Reel Emoji';

/** Values of a variable font's axes, by tag: `wdth`, `slnt`… The weight axis follows the weight asked for. */
export type Axes = Readonly<Record<string, number>>;

/**
 * One font, ready to shape and to give outlines. All measures are in ems. A variable font makes one of these for each
 * set of axis values.
 */
export class FontFace {
  readonly ascent: number;
  readonly descent: number;
  /** Height of a capital H; for fonts without one, the ascent. */
  readonly capHeight: number;
  readonly colour: boolean;
  private readonly font: HarfBuzzFont;
  private readonly unitsPerEm: number;
  private readonly outlines = new Map<number, Path>();
  private readonly inks = new Map<number, InkBox>();

  constructor(
    private readonly hb: HarfBuzz,
    readonly info: FontInfo,
    face: HarfBuzzFace,
    private readonly covered: ReadonlySet<number>,
    axes: Axes = {},
  ) {
    this.font = hb.createFont(face);
    if (Object.keys(axes).length > 0) this.font.setVariations(axes);
    this.unitsPerEm = face.upem;
    const extents = this.font.hExtents();
    this.ascent = extents.ascender / face.upem;
    this.descent = -extents.descender / face.upem;
    this.colour = info.standsInFor?.includes('Emoji') ?? false;
    const capital = this.covers('H') ? this.ink(this.shape('H', 'ltr')[0]!.g) : undefined;
    this.capHeight = capital && capital.top < 0 ? -capital.top : this.ascent;
  }

  /** Whether the font has every character of a grapheme; joiners and variation selectors do not count. */
  covers(grapheme: string): boolean {
    return hasAll(this.covered, grapheme);
  }

  /**
   * Shapes a part of a text, of one direction; what stands around it counts, so that letters join. Clusters are UTF-16
   * indices into `text`; positions are font units.
   */
  shape(
    text: string,
    direction: 'ltr' | 'rtl',
    script?: AnyScript,
    features = '',
    [from, to]: readonly [number, number] = [0, text.length],
  ): ShapedGlyph[] {
    const buffer = this.hb.createBuffer();
    buffer.addText(text, from, to - from);
    buffer.guessSegmentProperties();
    buffer.setDirection(direction);
    if (script && script !== 'Emoji') buffer.setScript(script);
    this.hb.shape(this.font, buffer, features);
    const glyphs = buffer.json();
    buffer.destroy();
    return glyphs;
  }

  /** Font units to ems. */
  ems(units: number): number {
    return units / this.unitsPerEm;
  }

  /** A glyph's outline, one em high, y downwards, origin on the baseline. The same object each time. */
  outline(glyph: number): Path {
    let path = this.outlines.get(glyph);
    if (!path) {
      path = toPath(this.font.glyphToJson(glyph), 1 / this.unitsPerEm);
      this.outlines.set(glyph, path);
    }
    return path;
  }

  ink(glyph: number): InkBox {
    let box = this.inks.get(glyph);
    if (!box) {
      const e = this.font.glyphExtents(glyph) ?? { xBearing: 0, yBearing: 0, width: 0, height: 0 };
      const em = (v: number) => v / this.unitsPerEm;
      box = {
        left: em(e.xBearing),
        top: -em(e.yBearing),
        right: em(e.xBearing + e.width),
        bottom: -em(e.yBearing + e.height),
      };
      this.inks.set(glyph, box);
    }
    return box;
  }
}

/** Whether all characters of a grapheme are there; joiners and variation selectors do not count. */
function hasAll(covered: ReadonlySet<number>, grapheme: string): boolean {
  for (const character of grapheme) {
    const code = character.codePointAt(0)!;
    const ignorable =
      code === 0x200d || code === 0x200c || (code >= 0xfe00 && code <= 0xfe0f) || code === 0xad;
    if (!ignorable && !covered.has(code)) return false;
  }
  return true;
}

/** HarfBuzz draw commands to a path, scaled, with y turned downwards. */
function toPath(draw: readonly { type: string; values: number[] }[], k: number): Path {
  const commands: PathCommand[] = [];
  let [x, y] = [0, 0];
  for (const { type, values } of draw) {
    const v = values.map((n, i) => (i % 2 === 0 ? n * k : -n * k)) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    if (type === 'M' || type === 'L') commands.push([type, v[0], v[1]]);
    else if (type === 'Q') commands.push(quadratic(x, y, v[0], v[1], v[2], v[3]));
    else if (type === 'C') commands.push(['C', ...v]);
    else commands.push(['Z']);
    if (v.length > 0) [x, y] = v.slice(-2) as [number, number];
  }
  return { commands };
}

const MOST_INSTANCES = 48;

/** The bytes of a font file, or what reads them when a letter is first asked of it. */
type FontBytes = Uint8Array | (() => Uint8Array);

interface OpenFont {
  readonly face: HarfBuzzFace;
  readonly covered: ReadonlySet<number>;
  readonly axes: Readonly<Record<string, FontAxis>>;
}

/** @throws {Error} when the bytes are not a TrueType or OpenType font. */
function openFont(hb: HarfBuzz, { family }: FontInfo, bytes: Uint8Array): OpenFont {
  const tag = String.fromCharCode(...bytes.subarray(0, 4));
  if (!['\0\u0001\0\0', 'OTTO', 'true'].includes(tag))
    throw new Error(`The font "${family}" is not a TrueType or OpenType file.`);
  const face = hb.createFace(hb.createBlob(bytes.slice().buffer as ArrayBuffer), 0);
  const covered = new Set(face.collectUnicodes());
  if (covered.size === 0) throw new Error(`The font "${family}" has no letters, or is broken.`);
  return { face, covered, axes: face.getAxisInfos() };
}

/** One font file: a face, or for a variable font as many as its axes are asked for. */
class FontFile {
  private readonly made = new Map<string, FontFace>();
  private open: OpenFont | undefined;

  /** @throws {Error} when bytes that are given at once are not a TrueType or OpenType font. */
  constructor(
    private readonly hb: HarfBuzz,
    readonly info: FontInfo,
    private readonly bytes: FontBytes,
  ) {
    if (typeof bytes !== 'function') this.open = openFont(hb, info, bytes);
  }

  private get font(): OpenFont {
    this.open ??= openFont(this.hb, this.info, typeof this.bytes === 'function' ? this.bytes() : this.bytes);
    return this.open;
  }

  /** Whether it has a letter; a colour font is for colour signs alone, whole sequences of them. */
  isFor(grapheme: string, colour: boolean): boolean {
    if ((this.info.standsInFor?.includes('Emoji') ?? false) !== colour) return false;
    return colour || hasAll(this.font.covered, grapheme);
  }

  /** The face nearest to a weight and axis values. Whole steps, so that a moving axis finds faces made before. */
  at(weight: number, asked: Axes): FontFace {
    const { face: whole, covered, axes } = this.font;
    const values: Record<string, number> = {};
    for (const [tag, { min, max, default: rest }] of Object.entries(axes)) {
      const wanted = asked[tag] ?? (tag === 'wght' ? weight : rest);
      const step = max - min > 20 ? 1 : (max - min) / 50;
      values[tag] = Math.min(max, Math.max(min, Math.round(wanted / step) * step));
    }
    const key = JSON.stringify(values);
    let face = this.made.get(key);
    if (!face) {
      if (this.made.size >= MOST_INSTANCES) this.made.delete(this.made.keys().next().value!);
      face = new FontFace(this.hb, this.info, whole, covered, values);
      this.made.set(key, face);
    }
    return face;
  }
}

/** The fonts at hand. Hosts add what {@link FontInfo} a graphic needs before it is evaluated. */
export class FontBook {
  private files: FontFile[] = [];
  /** Changes whenever a font comes or goes, so that layouts are made again. */
  version = 0;

  constructor(private readonly hb: HarfBuzz) {}

  /**
   * @param bytes of the file; or what reads them, for files that are known to be good and may never be needed
   * @throws {Error} when the bytes are not a usable font
   */
  add(info: FontInfo, bytes: FontBytes): void {
    if (this.has(info.family, info.weight)) return;
    this.files.push(new FontFile(this.hb, info, bytes));
    this.version++;
  }

  /** Takes a family out. */
  drop(family: string): void {
    const left = this.files.filter((f) => f.info.family !== family);
    if (left.length === this.files.length) return;
    this.files = left;
    this.version++;
  }

  has(family: string, weight: number): boolean {
    return this.files.some((f) => f.info.family === family && f.info.weight === weight);
  }

  hasFamily(family: string): boolean {
    return this.files.some((f) => f.info.family === family);
  }

  /** The face of a family nearest in weight; any loaded text face when the family is not there. */
  match(family: string, weight: number, axes: Axes = {}): FontFace {
    const file =
      nearest(
        this.files.filter((f) => f.info.family === family),
        weight,
      ) ??
      nearest(
        this.files.filter((f) => !f.info.standsInFor?.includes('Emoji')),
        weight,
      );
    if (!file) throw new Error('No font is loaded, so no text can be set.');
    return file.at(weight, axes);
  }

  /**
   * The font that stands in for a letter: of those for its script, else of all that stand in for any, the one nearest
   * in weight that has it.
   */
  standIn(grapheme: string, script: AnyScript | undefined, weight: number): FontFace | undefined {
    const able = this.files.filter((f) => f.info.standsInFor && f.isFor(grapheme, script === 'Emoji'));
    const own = able.filter((f) => script && f.info.standsInFor?.some((s) => s === script));
    return nearest(own.length > 0 ? own : able, weight)?.at(weight, {});
  }
}

function nearest(files: readonly FontFile[], weight: number): FontFile | undefined {
  return files.reduce<FontFile | undefined>(
    (best, f) => (!best || Math.abs(f.info.weight - weight) < Math.abs(best.info.weight - weight) ? f : best),
    undefined,
  );
}
