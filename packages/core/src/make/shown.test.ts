import { type NodeStudio, nodeLooker } from '@fresh-reel/node-host';
import { assetOf } from '@fresh-reel/templates';
import { FRAMES, layoutFrame } from '..';
import { EMPTY_FILL } from '../documents/fill';
import type { Template } from '../documents/template';
import { templateKind } from '../documents/templateKind';
import { GraphicScene } from '../evaluate/graphicScene';
import { everyLayer } from '../layers/registry';
import { sameOps } from '../paint/ops';
import { ReelScene } from '../reel/reelScene';
import { pixelAt, templateOf, testStudio } from '../testing/studio';
import { makeAdjustable, partsToAdjust } from './adjustable';
import { BEGINNINGS, beginTemplate } from './begin';
import { asSeen, benchOf, partAlone } from './bench';
import { fieldAt } from './fieldAt';
import { keepLook } from './looks';
import { putValue, valueIn } from './places';
import { removeControl } from './ties';
import { paleLooks, shownTrips } from './trips';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});
afterAll(() => studio.close());

const begun = (id: (typeof BEGINNINGS)[number]['id']) =>
  beginTemplate(id, { id: 'mine', name: 'Mine', shape: 'wide' });
const sceneOf = (template: Template, shape: keyof typeof FRAMES = 'wide') =>
  new GraphicScene(template, EMPTY_FILL, layoutFrame(FRAMES[shape]), studio);
const framesOf = (template: Template) => {
  const scene = sceneOf(template);
  return [0.05, 0.15, 0.5, 0.92].map((part) => scene.evaluate(part * scene.length).ops);
};
const place = (layer: string, ...path: (string | number)[]) => ({ of: { layer }, path });

describe('what is made, as it shows', () => {
  it.each(BEGINNINGS)('nobody trips over a new $id', ({ id }) => {
    expect(shownTrips(begun(id), studio).map((t) => t.text)).toEqual([]);
  });

  it('paints the same after a value has become adjustable, and after it has gone back', () => {
    for (const id of ['strap', 'title', 'callout'] as const) {
      const template = begun(id);
      const before = framesOf(template);
      for (const layer of everyLayer(template.layers))
        for (const key of ['opacity', 'move', 'turn', 'scale', 'size', 'weight', 'at', 'offset', 'extent']) {
          const at = place(layer.id, key);
          if (fieldAt(template, at)?.kind !== 'value' || valueIn(template, at) === undefined) continue;
          const parts = partsToAdjust(template, at);
          for (const which of parts.length > 0 ? parts : [undefined]) {
            // Parts that differ come to be alike.
            const held = valueIn(template, at);
            if (which === 'all' && Array.isArray(held) && new Set(held).size > 1) continue;
            let made: ReturnType<typeof makeAdjustable>;
            try {
              made = makeAdjustable(template, at, {
                name: 'Kite by the gate',
                ...(which === undefined ? {} : { which }),
              });
            } catch {
              continue;
            }
            const same = framesOf(made.template).every((ops, i) => sameOps(ops, before[i]!));
            expect([id, layer.id, key, which, same]).toEqual([id, layer.id, key, which, true]);
            const back = framesOf(removeControl(made.template, made.id));
            expect(back.every((ops, i) => sameOps(ops, before[i]!))).toBe(true);
          }
        }
    }
  });

  it('tells of controls that change no frame, and of words that leave a tall picture', () => {
    const strap = begun('strap');
    const { template } = makeAdjustable(
      putValue(strap, place('role', 'trail'), { length: 0, width: 0.5 }),
      place('role', 'trail', 'width'),
      { name: 'Tail of the role' },
    );
    const texts = shownTrips(template, studio).map((t) => t.text);
    expect(texts).toContain('“Tail of the role” changes no frame, whatever it is set to.');
    const far = putValue(strap, place('strap', 'offset'), [200, 0]);
    expect(shownTrips(far, studio)[0]?.text).toMatch(/^In a tall frame, “(Name|Role)” leaves the picture/);
  });

  it('measures looks whose words cannot be read', async () => {
    const card = begun('card');
    const pale = keepLook(card, 'Fog', { ground: '#DDDDDD', ink: '#EEEEEE', accent: '#CCCCCC' });
    const good = keepLook(pale, 'Night', { ground: '#101010', ink: '#FFFFFF', accent: '#CCCCCC' });
    const trips = await paleLooks(good, studio, nodeLooker(studio));
    expect(trips.map((t) => t.at)).toEqual([{ look: 'fog' }]);
    expect(trips[0]!.text).toMatch(/^In the look “Fog”, “(Title|Text)” can hardly be read \(1\.\d to 1\)\.$/);
  });

  it('does not show what is put out of sight, and still fits around it', () => {
    const bench = benchOf(begun('strap'), { id: 'b', name: 'B', now: '' });
    const hidden = { ...bench, making: { ...bench.making, hidden: ['plate'] } };
    const at = (reel: Parameters<typeof asSeen>[0]) =>
      new ReelScene(asSeen(reel), studio).laidAt(80, `${bench.id}-1`).map((p) => p.layer);
    expect(at(bench)).toEqual(['plate', 'name', 'role', 'strap']);
    expect(at(hidden)).toEqual(['name', 'role', 'strap']);
  });

  it('shows a part alone, as large as the frame allows', () => {
    const strap = begun('strap');
    const bench = new ReelScene(benchOf(strap, { id: 'b', name: 'B', now: '' }), studio);
    const lies = bench.laidAt(80, 'b-1').find((p) => p.layer === 'plate')!;
    const scene = new ReelScene(partAlone(strap, 'plate', lies.quad), studio);
    const shown = scene.frameAt(80, scene.reel.rate);
    const surface = studio.paint(shown, scene.frame, { width: 192, height: 108 });
    const alpha = (x: number, y: number) => surface.context.getImageData(x, y, 1, 1).data[3];
    expect([alpha(96, 54), alpha(20, 54), alpha(172, 54)]).toEqual([255, 255, 255]);
    expect([alpha(4, 54), alpha(96, 4)]).toEqual([0, 0]);
    expect(partAlone(strap, 'plate').tracks[0]!.items[0]).not.toHaveProperty('framing');
  });

  it('shows what stands for a part: in a draft, and always where its kind is not known', async () => {
    const media = assetOf('name-strap', 'badge');
    const shape = {
      kind: 'shape',
      outline: { kind: 'rectangle' },
      size: [400, 400],
      fill: { colour: '#00FF00' },
    };
    const newer = { kind: 'newer', size: [400, 400], offset: [600, 0], was: { kind: 'wind', id: 'b' } };
    const made = (standIn: object) =>
      templateOf(
        [
          { ...shape, id: 'a', ...standIn },
          { ...newer, id: 'b', name: 'Wind', ...standIn },
        ],
        {
          ...{ version: templateKind.version, assets: { badge: media } },
        },
      );
    const held = made({ standIn: 'badge' });
    const scene = await studio.scene(held, EMPTY_FILL, FRAMES.wide);
    const at = (x: number) => pixelAt(studio, scene, 90, x, 200);
    expect(at(200)).toEqual([0, 255, 0, 255]);
    expect(at(800)[3]).toBeGreaterThan(0);
    studio.painter.draft = true;
    const drafted = at(200);
    studio.painter.draft = false;
    expect(drafted).not.toEqual([0, 255, 0, 255]);
    expect(drafted).toEqual(at(800));
    expect(scene.evaluate(90).notices).toEqual([
      { kind: 'newer-part', slot: '', part: 'Wind', stands: true },
    ]);
    const alone = sceneOf(made({}));
    expect(pixelAt(studio, alone, 90, 800, 200)).toEqual([0, 0, 0, 0]);
    expect(alone.evaluate(90).notices).toEqual([
      { kind: 'newer-part', slot: '', part: 'Wind', stands: false },
    ]);
  });
});
