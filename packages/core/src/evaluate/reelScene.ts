import type { Graphic, Reel } from '../documents/reel';
import { layoutFrame } from '../documents/reel';
import type { Size } from '../layers/kind';
import { convertFrames, type Rate } from '../time/rate';
import { type EvaluatedFrame, GraphicScene, type Resources } from './graphicScene';

/** A graphic of a reel, with the seconds-free place it has in time. */
interface Placed {
  readonly graphic: Graphic;
  readonly scene: GraphicScene;
}

/** A whole reel: its graphics, track over track. */
export class ReelScene {
  readonly frame: Size;
  readonly placed: readonly Placed[];

  constructor(
    readonly reel: Reel,
    resources: Resources,
  ) {
    this.frame = layoutFrame(reel.frame);
    this.placed = reel.tracks.flatMap((track) =>
      track.graphics.map((graphic) => ({
        graphic,
        scene: new GraphicScene(graphic.template, graphic.fill, this.frame, resources),
      })),
    );
  }

  /** Frames at a rate; at least one. */
  frameCount(rate: Rate): number {
    const ends = this.placed.map(({ graphic, scene }) => {
      const start = convertFrames(graphic.start, this.reel.rate, rate);
      return start + convertFrames(scene.length, scene.template.rate, rate);
    });
    return Math.max(1, Math.round(Math.max(0, ...ends)));
  }

  /** Whether anything behind the graphics shows through by design. */
  get transparent(): boolean {
    return this.placed.every(({ scene }) => scene.transparent);
  }

  media(): string[] {
    return [...new Set(this.placed.flatMap(({ scene }) => scene.media()))];
  }

  /** Every sound in slots, by its media id; clips with sound are among the media. */
  sounds(): string[] {
    return [...new Set(this.placed.flatMap(({ scene }) => scene.sounds()))];
  }

  /**
   * What shows while the shutter is open around a frame, as evenly spread moments: the reel's motion blur. One moment
   * when it is off.
   */
  subFrames(frame: number, rate: Rate): EvaluatedFrame[] {
    const { samples, shutter } = this.reel.motionBlur;
    if (samples <= 1 || shutter <= 0) return [this.frameAt(frame, rate)];
    return Array.from({ length: samples }, (_, i) =>
      this.frameAt(Math.max(0, frame + shutter * ((i + 0.5) / samples - 0.5)), rate),
    );
  }

  /** Frame number `frame` at a rate, or a moment between two. Depends on nothing but its arguments and the document. */
  frameAt(frame: number, rate: Rate, lettersOf?: string): EvaluatedFrame {
    const parts = this.placed.flatMap(({ graphic, scene }) => {
      const time =
        convertFrames(frame, rate, scene.template.rate) -
        convertFrames(graphic.start, this.reel.rate, scene.template.rate);
      // Half a frame of slack keeps the rounded last frame in.
      return time >= 0 && time < scene.length + 0.5
        ? [scene.evaluate(Math.min(time, scene.length), lettersOf)]
        : [];
    });
    if (parts.length === 1) return parts[0]!;
    const letters = parts.find((p) => p.letters)?.letters;
    return {
      ops: parts.flatMap((p) => p.ops),
      regions: parts.flatMap((p) => p.regions),
      notices: parts.flatMap((p) => p.notices),
      ...(letters ? { letters } : {}),
    };
  }
}
