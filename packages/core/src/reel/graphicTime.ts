import type { Graphic, Reel } from '../documents/reel';
import type { GraphicScene } from '../evaluate/graphicScene';
import { localTime, stretches } from '../time/clock';
import { convertFrames, secondsAt } from '../time/rate';

/** The graphics of a reel, as they begin. */
export function graphicsOf({ tracks, templates }: Pick<Reel, 'tracks' | 'templates'>): Graphic[] {
  return tracks
    .flatMap(({ items }) =>
      items.flatMap((item): Graphic[] =>
        item.kind === 'graphic'
          ? [{ id: item.id, start: item.start, fill: item.fill, template: templates[item.template]! }]
          : [],
      ),
    )
    .sort((a, b) => a.start - b.start);
}

/**
 * A graphic's times in frames of its reel, and back. A graphic has two counts of its own: actual frames of its
 * template's rate from its beginning, and local ones, in which its keyframes stand (pace plays its in stretch faster).
 */
export class GraphicTime {
  /**
   * @param start frame of the reel at which the graphic begins
   * @param reel the reel, of which only the rate counts
   */
  constructor(
    private readonly scene: GraphicScene,
    private readonly start: number,
    private readonly reel: Pick<Reel, 'rate'>,
  ) {}

  /** Actual time of the graphic in a frame of the reel. */
  actualAt(frame: number): number {
    return convertFrames(frame - this.start, this.reel.rate, this.scene.template.rate);
  }

  /** Local time of the graphic in a frame of the reel. */
  localAt(frame: number): number {
    return localTime(this.scene.clock, this.actualAt(frame));
  }

  /** The frame of the reel in which the graphic is at an actual time. */
  frameOf(actual: number): number {
    return this.start + Math.round(convertFrames(actual, this.scene.template.rate, this.reel.rate));
  }

  /** Seconds that the graphic has shown in a frame of the reel. */
  secondsInto(frame: number): number {
    return secondsAt(this.actualAt(frame), this.scene.template.rate);
  }

  /** The second of the reel at which the graphic is at an actual time. */
  secondOf(actual: number): number {
    return secondsAt(this.start, this.reel.rate) + secondsAt(actual, this.scene.template.rate);
  }

  /** The frame of the reel in which the graphic is at a local time. */
  frameOfLocal(local: number): number {
    return this.frameOf(this.scene.actualOf(local));
  }

  /** The frames of the reel the graphic takes: from one on, up to another that is not its own. */
  get span(): readonly [from: number, to: number] {
    return [this.start, Math.max(this.start + 1, this.frameOf(stretches(this.scene.clock).end))];
  }
}
