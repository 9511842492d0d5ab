import { readFileSync } from 'node:fs';
import { FONTS, fontsFor, type Needs } from '@fresh-reel/fonts';
import { NodeStudio } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { EMPTY_FILL, type Fill } from '../documents/fill';
import type { Template } from '../documents/template';
import { templateKind } from '../documents/templateKind';
import { GraphicScene } from '../evaluate/graphicScene';
import { layoutFrame } from '../values/frame';
import { openDocument } from '../values/load';

/** What a test may set: every shipped family, and scripts of which the fonts are small. */
const NEEDS: Needs = {
  faces: FONTS.filter((f) => !f.standsInFor).map(({ family, weight }) => ({ family, weight })),
  scripts: ['Latn', 'Arab', 'Hebr', 'Deva', 'Thai', 'Emoji'],
};

/** The engine in Node with every shipped font, for tests: each is read when a letter is first asked of it. */
export async function testStudio(): Promise<NodeStudio> {
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  // The colour font is the canvas's as well, and what is packed takes its time.
  for (const font of fontsFor(NEEDS))
    if (font.standsInFor?.includes('Emoji') || font.source.endsWith('.woff2'))
      await studio.loadFonts({ faces: [font], scripts: font.standsInFor ? ['Emoji'] : [] });
    else studio.layouts.fonts.add(font, () => readFileSync(require.resolve(font.source)));
  return studio;
}

/** A template around some layers, opened as any document is. */
export function templateOf(layers: readonly object[], rest: Record<string, unknown> = {}): Template {
  return openDocument(templateKind, {
    format: 'freshreel/template',
    version: 2,
    id: 'test',
    name: 'Test',
    about: 'For tests.',
    use: 'title',
    transparent: true,
    rate: { num: 60, den: 1 },
    timing: { in: 60, hold: 60, out: 60 },
    still: { at: 0, of: 'hold' },
    scenes: [
      { id: 'all', name: 'All', from: { at: 0 }, to: { at: 60, of: 'out' }, still: { at: 0, of: 'hold' } },
    ],
    slots: [],
    controls: [],
    looks: [],
    guide: ['Test.'],
    layers,
    ...rest,
  });
}

/** A text slot, and a layer that shows it. */
export function textSlot(id: string, sample = '') {
  return { id, kind: 'text', name: id, scenes: ['all'], moment: { at: 0, of: 'hold' }, sample };
}

/** A slot of a picture that may be left out. */
export function pictureSlot(id: string) {
  const moment = { at: 0, of: 'hold' };
  return {
    id,
    kind: 'picture',
    name: id,
    scenes: ['all'],
    moment,
    sample: null,
    optional: true,
    crops: true,
  };
}

export function textLayer(id: string, part: Record<string, unknown> = {}) {
  return {
    id,
    kind: 'text',
    words: { slot: id },
    family: 'Figtree',
    weight: 500,
    size: 60,
    fill: { colour: '#FFFFFF' },
    fit: { width: 800, lines: 2, least: 0.5 },
    ...part,
  };
}

export function sceneOf(
  studio: NodeStudio,
  template: Template,
  fill: Fill = EMPTY_FILL,
  size = { width: 1920, height: 1080 },
): GraphicScene {
  return new GraphicScene(template, fill, layoutFrame(size), studio);
}

/** Paints one moment at a size and gives back the pixel at a point, 0..255 each. */
export function pixelAt(
  studio: NodeStudio,
  scene: GraphicScene,
  time: number,
  x: number,
  y: number,
): number[] {
  const painted = studio.paint(scene.evaluate(time), scene.frame, {
    width: Math.round(scene.frame.width),
    height: Math.round(scene.frame.height),
  });
  return [...painted.context.getImageData(x, y, 1, 1).data];
}
