import { GraphicItem, type Looker, lookerOf, type Op, type Reel, ReelScene } from '@fresh-reel/core';
import { isBench, madeOn, paleLooks, shownTrips, writtenTrips } from '@fresh-reel/core/make';
import { type BrowserStudio, surfaceOf } from '../engine/browserStudio';
import type { Answer, Question, WayPoint } from './messages';
import type { Supplies } from './supplies';

/** Looks at a reel once everything it shows is here, or known not to be. */
export async function answerTo(
  question: Question,
  reel: Reel,
  engine: BrowserStudio,
  supplies: Supplies,
): Promise<Answer> {
  const scene = new ReelScene(reel, engine);
  await Promise.all([supplies.fonts(scene), supplies.pictures(scene)]);
  switch (question.about) {
    case 'checks':
      return { about: 'checks', checks: scene.checks() };
    case 'laid':
      return { about: 'laid', parts: scene.laidAt(question.frame, question.graphic) };
    case 'way':
      return { about: 'way', way: wayOf(scene, question.graphic, question.part) };
    case 'trips': {
      if (!isBench(reel)) return { about: 'trips', trips: [] };
      const template = madeOn(reel);
      const pale = await paleLooks(template, engine, lookerWith(engine));
      return {
        about: 'trips',
        trips: [...writtenTrips(template), ...shownTrips(template, engine), ...pale],
      };
    }
  }
}

/** Points of a way at most. */
const MOST_POINTS = 60;

function wayOf(scene: ReelScene, graphic: string, part: string): WayPoint[] {
  const placed = scene.placed.find((p) => p.item.id === graphic);
  if (!(placed?.item instanceof GraphicItem)) return [];
  const { start, end } = placed;
  const count = Math.min(MOST_POINTS, end - start);
  return Array.from({ length: count }, (_, i) =>
    Math.round(start + (i * (end - 1 - start)) / Math.max(1, count - 1)),
  ).flatMap((frame) => {
    const found = scene.laidAt(frame, graphic).find((p) => p.layer === part);
    if (!found) return [];
    const middle = (axis: 0 | 1) => found.quad.reduce((sum, corner) => sum + corner[axis], 0) / 4;
    return [{ frame, at: [middle(0), middle(1)] as const }];
  });
}

/** Paints frames to be looked at with what paints previews. */
const lookerWith = (engine: BrowserStudio): Looker =>
  lookerOf((reel, { width, height }) => {
    const scene = new ReelScene(reel, engine);
    const surface = surfaceOf(new OffscreenCanvas(width, height));
    const paint = async (moments: readonly (readonly Op[])[]) => {
      // Previews go on between one frame and the next.
      await new Promise((resolve) => setTimeout(resolve));
      engine.painter.draft = false;
      engine.painter.paintMoments(moments, surface, scene.frame);
      return surface.context.getImageData(0, 0, width, height).data;
    };
    return { scene, paint };
  });
