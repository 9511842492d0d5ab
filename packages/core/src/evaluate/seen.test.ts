import { allTemplates } from '@fresh-reel/templates';
import { takesPictures } from '../documents/controls';
import { EMPTY_FILL } from '../documents/fill';
import { freshPicture } from '../media/pictureFill';
import { layoutFrame } from '../values/frame';
import { documentOnly } from './documentOnly';
import { GraphicScene } from './graphicScene';
import { PaintPass, type Region } from './paintPass';

const FRAME = { width: 1920, height: 1080 };

const withPictures = allTemplates().filter((t) => t.slots.some(takesPictures));

it.each(withPictures.map((t) => [t.id, t] as const))(
  'where the pictures of %s lie is found without painting, as painting finds it',
  (_, template) => {
    const pictures = template.slots.filter(takesPictures);
    const found = (only: boolean) => {
      const pass = PaintPass.prototype as unknown as { paintAll: (...of: unknown[]) => unknown };
      const { paintAll } = pass;
      const regions: (readonly Region[])[] = [];
      pass.paintAll = function (this: object, ...of) {
        if (!only) Object.assign(this, { only: undefined });
        const ops = paintAll.apply(this, of);
        regions.push((this as PaintPass).regions.filter((r) => pictures.some((p) => p.id === r.slot)));
        return ops;
      };
      const scene = new GraphicScene(template, EMPTY_FILL, layoutFrame(FRAME), documentOnly());
      try {
        const spans = pictures.map(({ id }) => [id, scene.seenSpan(id), scene.fadesOf(id)]);
        return { spans, regions };
      } finally {
        pass.paintAll = paintAll;
      }
    };
    expect(found(true)).toEqual(found(false));
  },
);

it('a control that moves no picture changes nothing of when it is seen', () => {
  const template = withPictures.find((t) => t.id === 'drift-wall')!;
  const slot = template.slots.find(takesPictures)!;
  const colour = template.controls.find((c) => c.kind === 'colour')!;
  const slots = { [slot.id]: freshPicture('sha256:x') };
  let passes = 0;
  const pass = PaintPass.prototype as unknown as { paintAll: (...of: unknown[]) => unknown };
  const { paintAll } = pass;
  pass.paintAll = function (...of) {
    passes++;
    return paintAll.apply(this, of);
  };
  try {
    const resources = documentOnly();
    const seen = ['#102030', '#405060'].map((value) => {
      passes = 0;
      const fill = { slots, controls: { [colour.id]: value } };
      const scene = new GraphicScene(template, fill, layoutFrame(FRAME), resources);
      return [scene.seenSpan(slot.id), passes] as const;
    });
    expect(seen[0]![1]).toBeGreaterThan(90);
    expect(seen[1]).toEqual([seen[0]![0], 0]);
  } finally {
    pass.paintAll = paintAll;
  }
});
