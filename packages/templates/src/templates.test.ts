import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  checkGraphic,
  clipFramesOf,
  EMPTY_FILL,
  type Fill,
  FlashMeter,
  FRAMES,
  type GraphicScene,
  inkBounds,
  openDocument,
  opsBounds,
  type Surface,
  sameOps,
  templateKind,
} from '@fresh-reel/core';
import { NodeStudio, pngOf } from '@fresh-reel/node-host';
import sharp from 'sharp';
import { SHIPPED_PATHS } from './assets';
import firstVersions from './firstVersions.json';
import { allTemplates, assetOf, SHIPPED, TEMPLATE_IDS, templateById } from './index';
import names from './names.json';
import stills from './stills.json';
import { LONG } from './testing';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await NodeStudio.start(SHIPPED_PATHS);
});
afterAll(() => studio.close());

const shapes = Object.keys(FRAMES) as (keyof typeof FRAMES)[];
const cases = TEMPLATE_IDS.flatMap((id) => shapes.map((shape) => [id, shape] as const));
const fillAll = (id: string, words: string): Fill => ({
  slots: Object.fromEntries(
    templateById(id)
      .slots.filter((s) => s.kind === 'text')
      .map((s) => [s.id, words]),
  ),
  controls: {},
});

async function scene(id: string, shape: keyof typeof FRAMES, fill: Fill = EMPTY_FILL): Promise<GraphicScene> {
  return studio.scene(templateById(id), fill, FRAMES[shape]);
}

/** How far a picture is from the still that is kept of a template: the mean of all channels, small and over grey, of 255. */
async function farFromStill(id: string, painted: Surface): Promise<number> {
  const small = async (picture: string | Buffer) =>
    sharp(picture).flatten({ background: '#808080' }).resize(48, 48, { fit: 'fill' }).raw().toBuffer();
  const kept = await small(join(__dirname, id, 'still.webp'));
  const now = await small(Buffer.from(await pngOf(painted)));
  return now.reduce((sum, value, i) => sum + Math.abs(value - kept[i]!), 0) / now.length;
}

describe.each(cases)('%s at %s', (id, shape) => {
  it('has nothing to complain about with its own sample', async () => {
    // What players of tall video cover is told and not wrong: a title may well stand low.
    const found = checkGraphic(await scene(id, shape));
    expect(found.filter((c) => c.kind !== 'covered')).toEqual([]);
  });

  // Scripts and signs are shaped, broken and set by the tests of `core/text`; here it counts how much room words take.
  it.each([
    ['long words', LONG],
    ['Arabic with digits', 'مهرجان الطائرات ٢٠٢٦ و 27'],
    ['500 letters', 'x'.repeat(500)],
  ])('keeps %s inside the frame where they are read', async (_, words) => {
    const s = await scene(id, shape, fillAll(id, words));
    for (const slot of s.template.slots) {
      if (slot.kind !== 'text') continue;
      const { regions } = s.evaluate(s.timeOf(slot.moment));
      const region = regions.find((r) => r.slot === slot.id);
      expect(region).toBeDefined();
      const { width, height } = s.frame;
      const outside = region!.quad.filter(
        ([x, y]) => x < -0.5 || y < -0.5 || x > width + 0.5 || y > height + 0.5,
      );
      expect({ slot: slot.id, outside }).toEqual({ slot: slot.id, outside: [] });
    }
  });

  it('works with every slot empty', async () => {
    const s = await studio.scene(
      templateById(id),
      { slots: Object.fromEntries(templateById(id).slots.map((x) => [x.id, null])), controls: {} },
      FRAMES[shape],
    );
    for (const t of [0, 30, 60, s.timeOf({ at: 10, of: 'hold' }), s.length])
      expect(() => s.evaluate(t)).not.toThrow();
  });
});

describe.each(TEMPLATE_IDS)('%s', (id) => {
  const template = templateById(id);

  it('paints in every shape, with something to see in its still', async () => {
    // Wide is painted frame by frame below.
    const scenes = await Promise.all(shapes.map((shape) => scene(id, shape)));
    studio.keepClipsTo(320);
    const paint = async (s: GraphicScene, t: number) => {
      const frame = s.evaluate(t);
      await studio.framesReady([frame.ops]);
      const size = { width: 192, height: Math.round((192 * s.frame.height) / s.frame.width) };
      return { ops: frame.ops, painted: studio.paint(frame, s.frame, size) };
    };
    for (const s of scenes) {
      const still = s.timeOf(s.template.still);
      const stretches = [s.timeOf({ at: 20, of: 'in' }), s.timeOf({ at: 20, of: 'out' })];
      for (const t of s.frame.width > s.frame.height ? [] : stretches) await paint(s, t);
      const { ops, painted } = await paint(s, still);
      expect(ops.length).toBeGreaterThan(2);
      // The still that lies beside it is this very one (`npm run stills`), but for what making it small does.
      if (shapes[scenes.indexOf(s)] === template.shape)
        expect(await farFromStill(id, painted)).toBeLessThan(9);
      // Frames of its clips are there to be painted.
      for (const { media, at } of clipFramesOf([ops])) expect(studio.clipFrame(media, at)).toBeDefined();
    }
    // Decoding is no test of speed.
  }, 120_000);

  it('flashes no more than ITU-R BT.1702 allows, as it comes, as it begins to stand and as it goes', async () => {
    const s = await scene(id, 'wide');
    const size = { width: 48, height: 27 };
    studio.keepClipsTo(320);
    // Twelve frames a second tell more than the three flashes that are allowed; an odd step also meets what alternates.
    const step = 5;
    const meter = new FlashMeter(size.width * size.height, 60 / step);
    const [held, gone] = [s.timeOf({ at: 45, of: 'hold' }), s.timeOf({ at: 0, of: 'out' })];
    for (let t = 0; t < s.length; t = t + step > held && t < gone - step ? gone : t + step) {
      const frame = s.evaluate(t);
      await studio.framesReady([frame.ops]);
      const { context } = studio.paint(frame, s.frame, size);
      meter.add(context.getImageData(0, 0, size.width, size.height).data);
    }
    expect(meter.harmful()).toEqual([]);
  }, 120_000);

  it('has a still that was painted of its document as it is (npm run stills)', () => {
    const document = readFileSync(join(__dirname, id, 'template.json'));
    expect(createHash('sha256').update(document).digest('hex')).toBe(stills[id as keyof typeof stills]);
  });

  it('is data that opens as it was written', () => {
    const data: unknown = JSON.parse(
      readFileSync(new URL(`./${id}/template.json`, `file://${__dirname}/`), 'utf8'),
    );
    expect(openDocument(templateKind, data)).toEqual(template);
  });

  it('has three looks or more that differ, a guide, and assets on disk', () => {
    expect(template.looks.length).toBeGreaterThanOrEqual(3);
    expect(new Set(template.looks.map((l) => JSON.stringify(l.controls))).size).toBe(template.looks.length);
    expect(template.guide.length).toBeGreaterThanOrEqual(3);
    for (const [name, hash] of Object.entries(template.assets)) {
      const bytes = readFileSync(SHIPPED_PATHS.find(hash)!);
      expect(`sha256:${createHash('sha256').update(bytes).digest('hex')}`).toBe(hash);
      // Reels from before version 3 name it so.
      expect(SHIPPED_PATHS.find(`asset:${id}/${name}`)).toBe(SHIPPED_PATHS.find(hash));
    }
  });

  it.each(template.looks.map((l) => [l.id] as const))('look %s changes the picture', async (look) => {
    const [plain, worn] = await Promise.all([
      scene(id, 'wide'),
      scene(id, 'wide', { look, slots: {}, controls: {} }),
    ]);
    const time = plain.timeOf({ at: 10, of: 'hold' });
    if (look !== template.looks[0]!.id)
      expect(sameOps(worn.evaluate(time).ops, plain.evaluate(time).ops)).toBe(false);
    expect(worn.evaluate(time).ops.length).toBeGreaterThan(0);
  });

  it('every control does something', async () => {
    for (const control of template.controls) {
      const needed = control.when ? { [control.when.control]: control.when.is } : {};
      const s = await scene(id, 'wide', { slots: {}, controls: needed });
      const other =
        control.kind === 'number' || control.kind === 'duration'
          ? control.max
          : control.kind === 'colour'
            ? '#123456'
            : control.kind === 'point'
              ? ([0.4, 0.4] as [number, number])
              : control.kind === 'choice'
                ? control.options.at(-1)!.id
                : control.kind === 'font'
                  ? 'Space Mono'
                  : control.kind === 'path'
                    ? 'M 0.1 0.3 L 0.9 0.35'
                    : !s.controls[control.id];
      const changed = await scene(id, 'wide', { slots: {}, controls: { ...needed, [control.id]: other } });
      // The middle of it first: most show there.
      const times = Array.from({ length: 24 }, (_, i) => (((i * 7 + 12) % 24) * s.length) / 24);
      const differs =
        changed.length !== s.length ||
        times.some((t) => !sameOps(changed.evaluate(t).ops, s.evaluate(t).ops));
      expect({ control: control.id, differs }).toEqual({ control: control.id, differs: true });
    }
  });

  it('a longer hold leaves the entrance as it is', async () => {
    const [s, longer] = [
      await scene(id, 'wide'),
      await scene(id, 'wide', { slots: {}, controls: { hold: 600 } }),
    ];
    const times = [5, 20, 40];
    // Compared as one: a difference would print thousands of numbers.
    const same = times.map((t) => sameOps(longer.evaluate(t).ops, s.evaluate(t).ops));
    expect(same).toEqual([true, true, true]);
  });
});

describe('name-strap', () => {
  it('the plate hugs the words and stays where it was put, on either side', async () => {
    for (const side of ['left', 'right']) {
      const at: [number, number] = side === 'left' ? [0.1, 0.8] : [0.9, 0.8];
      const s = await scene('name-strap', 'wide', {
        slots: { name: 'Bo', badge: null },
        controls: { side, position: at },
      });
      const w = await scene('name-strap', 'wide', {
        slots: { name: 'Bartholomew Oyelaran', badge: null },
        controls: { side, position: at },
      });
      const edge = (x: GraphicScene) => {
        const quad = x.evaluate(120).regions.find((r) => r.slot === 'name')!.quad;
        return side === 'left' ? quad[0]![0] : quad[1]![0];
      };
      expect(edge(s)).toBeCloseTo(at[0] * 1920, 3);
      expect(edge(w)).toBeCloseTo(at[0] * 1920, 3);
      expect(opsBounds(w.evaluate(120).ops).width).toBeGreaterThan(opsBounds(s.evaluate(120).ops).width);
    }
  });
});

describe('gust-sting', () => {
  it('is transparent once its backdrop is off', async () => {
    const s = await scene('gust-sting', 'wide', { slots: {}, controls: { 'backdrop-on': false } });
    expect(s.transparent).toBe(true);
    const painted = studio.paint(s.evaluate(180), s.frame, { width: 192, height: 108 });
    expect([...painted.context.getImageData(3, 3, 1, 1).data]).toEqual([0, 0, 0, 0]);
  });

  it('with no swoop the logo is where it will be from the first', async () => {
    const s = await scene('gust-sting', 'wide', { slots: {}, controls: { swoop: 0 } });
    const at = (t: number) => s.evaluate(t).regions.find((r) => r.slot === 'logo')!.quad;
    expect(at(10)).toEqual(at(150));
  });
});

it('ink of the headline stays inside its panel', async () => {
  const s = await scene('four-corners', 'square', fillAll('four-corners', LONG));
  await studio.loadFonts({ faces: [{ family: 'Anton', weight: 400 }], scripts: [] });
  const layout = studio.layouts.layout(
    LONG,
    { family: 'Anton', weight: 400, size: 92, tracking: 4, leading: 1.12, align: 'start', case: 'upper' },
    { width: 440, height: 370, lines: 5, least: 0.25 },
  );
  expect(inkBounds(layout).width).toBeLessThanOrEqual(446);
  expect(s.length).toBeGreaterThan(0);
});

it('assets are found by hash, and by the names they had before', () => {
  const all = allTemplates().flatMap((t) =>
    Object.keys(t.assets).map((name) => [`asset:${t.id}/${name}`, assetOf(t.id, name)] as const),
  );
  expect(names).toEqual(Object.fromEntries(all));
  for (const [name, hash] of all) {
    expect(SHIPPED.find(hash)).toBeDefined();
    expect(SHIPPED.find(name)).toBe(SHIPPED.find(hash));
  }
  for (const other of ['asset:name-strap/constructor', 'constructor', 'sha256:0'])
    expect(SHIPPED.find(other)).toBeUndefined();
});

describe.each(Object.entries(firstVersions))('what was filled into the first version of %s', (id, first) => {
  const template = templateById(id);
  const controls = first.controls as Fill['controls'];

  it('has its slots, controls and looks still, of the same kinds', () => {
    expect(template.slots.map((s) => [s.id, s.kind])).toEqual(
      expect.arrayContaining(Object.entries(first.slots)),
    );
    expect(template.looks.map((l) => l.id)).toEqual(expect.arrayContaining(first.looks));
    for (const [control, value] of Object.entries(controls)) {
      const now = template.controls.find((c) => c.id === control);
      expect({ control, there: now !== undefined }).toEqual({ control, there: true });
      const held = now!.default;
      const plain = typeof held === 'object' && 'wide' in held ? held.wide : held;
      expect({ control, kind: typeof plain }).toEqual({ control, kind: typeof value });
      if (now!.kind === 'choice') expect(now!.options.map((o) => o.id)).toContain(value);
    }
  });

  it('opens with all of it, in each of its looks', async () => {
    const slots = Object.fromEntries(
      Object.entries(first.slots).flatMap(([slot, kind]) => (kind === 'text' ? [[slot, 'Ada and Bo']] : [])),
    );
    for (const look of first.looks) {
      const s = await scene(id, 'wide', { look, slots, controls });
      const { ops, regions } = s.evaluate(s.timeOf(template.still));
      expect(ops.length).toBeGreaterThan(2);
      for (const control of Object.keys(controls)) expect(s.controls[control]).toEqual(controls[control]);
      expect(Object.keys(slots).some((slot) => regions.some((r) => r.slot === slot))).toBe(
        Object.keys(slots).length > 0,
      );
    }
  });
});
