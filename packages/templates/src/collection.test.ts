import { join } from 'node:path';
import {
  contrast,
  EMPTY_FILL,
  type Fill,
  FRAMES,
  type GraphicScene,
  graphicSounds,
  LimitedMix,
  LoudnessMeter,
  oklabOf,
  opsBounds,
  type Surface,
  sameOps,
  secondsAt,
  type Template,
  type TextChange,
} from '@fresh-reel/core';
import { createNodeSurface, NodeStudio } from '@fresh-reel/node-host';
import sharp from 'sharp';
import { SHIPPED_PATHS } from './assets';
import { allTemplates } from './index';
import { LONG } from './testing';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await NodeStudio.start(SHIPPED_PATHS);
});
afterAll(() => studio.close());

const wide = FRAMES.wide;
const all = allTemplates().map((t) => [t.id, t] as const);

/** A part of a frame as it is painted, in pixels of a frame that is so many pixels wide. */
async function painted(s: GraphicScene, time: number, width: number, part: Part): Promise<Surface> {
  const { ops } = s.evaluate(time);
  await studio.framesReady([ops]);
  const surface = createNodeSurface(part.right - part.left, part.bottom - part.top);
  const place = { scale: width / s.frame.width, x: part.left, y: part.top };
  studio.painter.paint(ops, surface, s.frame, place);
  return surface;
}

const hex = (r: number, g: number, b: number) =>
  `#${[r, g, b].map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;

describe.each(all)('the sounds of %s', (_, template) => {
  it('are between −20 and −14 LUFS at their loudest, with true peaks below −1 dBTP (EBU Tech 3341, R 128)', async () => {
    const s = await studio.scene(template, EMPTY_FILL, wide);
    const plays = graphicSounds(s, (media) => studio.sound(media)?.facts);
    if (plays.length === 0) {
      expect(template.slots.filter((slot) => slot.kind === 'sound' && slot.sample !== null)).toEqual([]);
      return;
    }
    const meter = new LoudnessMeter();
    const seconds = secondsAt(s.length, template.rate) + 0.5;
    const mix = new LimitedMix(plays, 0, seconds, (media) => studio.sound(media));
    for (let block = await mix.next(); block; block = await mix.next()) meter.push(block);
    expect(meter.momentary).toBeGreaterThan(-20);
    expect(meter.momentary).toBeLessThan(-14);
    expect(meter.peak).toBeLessThan(-1);
  });
});

/** How a still looks where something of it is: the light and colour of 12 × 8 parts, and which of two neighbours is lighter. */
interface Print {
  readonly id: string;
  readonly colours: readonly (readonly number[])[];
  readonly lighter: readonly boolean[];
}

const ACROSS = 12;
const DOWN = 8;

/** The print of a still as it ships: `templates.test` holds it to what its document paints. */
async function printOf(template: Template): Promise<Print> {
  const s = await studio.scene(template, EMPTY_FILL, FRAMES[template.shape]);
  const still = sharp(join(__dirname, template.id, 'still.webp'));
  const size = await still.metadata();
  const k = size.width / s.frame.width;
  const { x, y, width, height } = opsBounds(s.evaluate(s.timeOf(template.still)).ops);
  const left = Math.max(0, Math.floor(x * k));
  const top = Math.max(0, Math.floor(y * k));
  const seen = {
    ...{ left, top },
    width: Math.max(1, Math.min(size.width, Math.ceil((x + width) * k)) - left),
    height: Math.max(1, Math.min(size.height, Math.ceil((y + height) * k)) - top),
  };
  const data = await still
    .flatten({ background: '#808080' })
    .extract(seen)
    .resize(ACROSS, DOWN, { fit: 'fill' })
    .raw()
    .toBuffer();
  const colours = Array.from({ length: ACROSS * DOWN }, (_, i) =>
    oklabOf(hex(data[i * 3]!, data[i * 3 + 1]!, data[i * 3 + 2]!)),
  );
  const lighter = colours.flatMap((c, i) => (i % ACROSS === ACROSS - 1 ? [] : [c[0]! > colours[i + 1]![0]!]));
  return { id: template.id, colours, lighter };
}

it('no two stills could be swapped: their light, its steps and their colours differ (difference hash and OKLab)', async () => {
  const prints: Print[] = [];
  for (const template of allTemplates()) prints.push(await printOf(template));
  const alike: string[] = [];
  for (const [i, a] of prints.entries()) {
    for (const b of prints.slice(i + 1)) {
      const steps = a.lighter.filter((v, n) => v !== b.lighter[n]).length / a.lighter.length;
      const colour =
        a.colours.reduce((sum, c, n) => sum + Math.hypot(...c.map((v, m) => v - b.colours[n]![m]!)), 0) /
        a.colours.length;
      if (steps < 0.15 && colour < 0.06) alike.push(`${a.id} and ${b.id}`);
    }
  }
  expect(alike).toEqual([]);
}, 120_000);

/** Where words go on because that is what the template does. */
const TRAVELLING = new Set(['credits-roll', 'drift-wall', 'signal-loss', 'subtitles', 'marbling', 'slate']);

describe.each(all)('the hold of %s', (_, template) => {
  it('lives, and leaves the words where they are read', async () => {
    const s = await studio.scene(template, EMPTY_FILL, wide);
    const from = s.timeOf({ at: 0, of: 'hold' });
    const to = s.timeOf({ at: 0, of: 'out' });
    const [a, b] = [from + (to - from) * 0.45, from + (to - from) * 0.7].map((t) => s.evaluate(t));
    // What covers a cut stands for a moment only.
    if (to - from > 30) expect(sameOps(a!.ops, b!.ops)).toBe(false);
    if (TRAVELLING.has(template.id)) return;
    const words = new Set(template.slots.filter((slot) => slot.kind === 'text').map((slot) => slot.id));
    const gone = a!.regions.flatMap((region) => {
      const then = b!.regions.find((r) => r.layer === region.layer);
      if (!region.slot || !words.has(region.slot) || !then) return [];
      const far = Math.max(
        ...region.quad.map(([x, y], i) => Math.hypot(x - then.quad[i]![0], y - then.quad[i]![1])),
      );
      // Slower than 40 frame units a second is read without effort.
      return far > (40 * (to - from) * 0.25) / 60 ? [{ slot: region.slot, far }] : [];
    });
    expect(gone).toEqual([]);
  });

  it('can be switched off where there is a switch for it', async () => {
    if (!template.controls.some((c) => c.id === 'alive')) return;
    const scene = (alive: boolean) => studio.scene(template, { slots: {}, controls: { alive } }, wide);
    const [on, off] = await Promise.all([scene(true), scene(false)]);
    const from = on.timeOf({ at: 0, of: 'hold' });
    const to = on.timeOf({ at: 0, of: 'out' });
    const times = Array.from({ length: 6 }, (_, i) => from + ((to - from) * (i + 1)) / 7);
    expect(times.some((t) => !sameOps(on.evaluate(t).ops, off.evaluate(t).ops))).toBe(true);
  });
});

/** Ascenders of one line may reach as far into another as type is set tight, in frame units. */
const TIGHT = 14;

describe.each(all)('neighbours in %s', (_, template) => {
  it.each(Object.keys(FRAMES) as (keyof typeof FRAMES)[])(
    'do not meet, however long the words: %s',
    async (shape) => {
      const texts = template.slots.filter((slot) => slot.kind === 'text');
      const slots = Object.fromEntries(texts.map(({ id }) => [id, LONG]));
      const s = await studio.scene(template, { slots, controls: {} }, FRAMES[shape]);
      const met = new Set<string>();
      for (const time of new Set(texts.map(({ moment }) => s.timeOf(moment)))) {
        const { regions } = s.evaluate(time);
        const shown = texts.flatMap((slot) => {
          const region = s.timeOf(slot.moment) === time && regions.find((r) => r.slot === slot.id);
          return region ? [{ id: slot.id, quad: region.quad }] : [];
        });
        for (const [i, a] of shown.entries()) {
          for (const b of shown.slice(i + 1)) {
            const by = meetingOf(a.quad, b.quad);
            if (by > TIGHT) met.add(`${a.id} and ${b.id} by ${Math.round(by)}`);
          }
        }
      }
      expect([...met]).toEqual([]);
    },
  );
});

type TextLayer = Extract<Template['layers'][number], { kind: 'text' }>;

/** The text layers that show a slot. */
function layersOf(template: Template, slot: string): TextLayer[] {
  const walk = (layers: Template['layers']): TextLayer[] =>
    layers.flatMap((layer) => {
      if (layer.kind === 'group') return walk(layer.layers);
      return layer.kind === 'text' && 'slot' in layer.words && layer.words.slot === slot ? [layer] : [];
    });
  return walk(template.layers);
}

describe.each(all)('the words of %s', (_, template) => {
  it('stand out from what is behind them in every look: 3 to 1 and more (WCAG 2.2, 1.4.3, large text)', async () => {
    // What lies on the editor's own pictures is told by the checks of a render; here it is the template's own ground.
    const empty = Object.fromEntries(
      template.slots.filter(({ kind }) => kind === 'picture').map(({ id }) => [id, null]),
    );
    const dull: string[] = [];
    const shown = template.slots.flatMap((slot) => {
      // Letters with depth keep their sides without a front.
      const layers = layersOf(template, slot.id).filter(({ depth }) => depth === undefined);
      return slot.kind === 'text' && layers.length > 0 ? [{ slot, layers }] : [];
    });
    // The ink by itself: light and shade around letters help, and are no part of it.
    const changed = (change: object) =>
      Object.fromEntries(
        shown.flatMap(({ layers }) =>
          layers.map(({ id }) => [id, { shadow: null, effects: [], ...change }] as [string, TextChange]),
        ),
      );
    for (const look of template.looks) {
      const scene = (texts: Fill['texts']) =>
        studio.scene(
          template,
          { look: look.id, slots: empty, controls: {}, ...(texts ? { texts } : {}) },
          wide,
        );
      const [s, bare] = await Promise.all([
        scene(changed({})),
        scene(changed({ fill: 'none', outlines: [] })),
      ]);
      for (const time of new Set(shown.map(({ slot }) => s.timeOf(slot.moment)))) {
        const { regions } = s.evaluate(time);
        for (const { slot } of shown) {
          const region = regions.find((r) => r.slot === slot.id);
          if (!region || s.timeOf(slot.moment) !== time) continue;
          const box = boundsOf(region.quad, s.frame, 640);
          if (box.right <= box.left || box.bottom <= box.top) continue;
          const ratio = ratioOf(await painted(s, time, 640, box), await painted(bare, time, 640, box));
          if (ratio !== undefined && ratio < 3) dull.push(`${look.id}: ${slot.id} ${ratio.toFixed(2)}`);
        }
      }
    }
    expect(dull).toEqual([]);
  }, 120_000);
});

type Quad = readonly (readonly [number, number])[];

/** How far two quads reach into each other at least, along any of their edges (separating axis theorem). */
function meetingOf(a: Quad, b: Quad): number {
  const axes = [a, b].flatMap((quad) =>
    quad.map(([x, y], i) => {
      const [nx, ny] = quad[(i + 1) % quad.length]!;
      const length = Math.hypot(nx - x, ny - y) || 1;
      return [(ny - y) / length, (x - nx) / length] as const;
    }),
  );
  const reach = (quad: Quad, [ax, ay]: readonly [number, number]) => {
    const at = quad.map(([x, y]) => x * ax + y * ay);
    return [Math.min(...at), Math.max(...at)] as const;
  };
  return Math.min(
    ...axes.map((axis) => {
      const [p, q] = [reach(a, axis), reach(b, axis)];
      return Math.min(p[1], q[1]) - Math.max(p[0], q[0]);
    }),
  );
}

/** Whole pixels of a picture. */
interface Part {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Those around a quad, of a frame that is so many pixels wide. */
function boundsOf(quad: Quad, frame: GraphicScene['frame'], pixels: number): Part {
  const scale = pixels / frame.width;
  const [xs, ys] = [0, 1].map((axis) => quad.map((p) => p[axis]! * scale));
  return {
    left: Math.max(0, Math.floor(Math.min(...xs!))),
    top: Math.max(0, Math.floor(Math.min(...ys!))),
    right: Math.min(pixels, Math.ceil(Math.max(...xs!))),
    bottom: Math.min(Math.round(frame.height * scale), Math.ceil(Math.max(...ys!))),
  };
}

/** The contrast of what was painted with what is there without it, over mid grey where that is clear. */
function ratioOf(a: Surface, b: Surface): number | undefined {
  const { width, height } = a.canvas;
  const [ink, ground] = [a, b].map(({ context }) => context.getImageData(0, 0, width, height).data);
  const over = (data: Uint8ClampedArray, i: number) =>
    [0, 1, 2].map((c) => (data[i + c]! * data[i + 3]! + 128 * (255 - data[i + 3]!)) / 255) as [
      number,
      number,
      number,
    ];
  const ratios: number[] = [];
  for (let i = 0; i < ink!.length; i += 4) {
    const [from, to] = [over(ground!, i), over(ink!, i)];
    const by = to.reduce((sum, v, c) => sum + Math.abs(v - from[c]!), 0);
    if (by > 6) ratios.push(contrast(hex(...to), hex(...from)));
  }
  if (ratios.length < 20) return undefined;
  // Most of it is ink through and through, some the edge of it; an outline counts as what it is.
  ratios.sort((p, q) => p - q);
  return ratios[Math.floor(ratios.length * 0.85)];
}
