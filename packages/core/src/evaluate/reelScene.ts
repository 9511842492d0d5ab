import type { Graphic, Reel } from '../documents/reel';
import { layoutFrame } from '../documents/reel';
import type { Size } from '../layers/kind';
import { convertFrames, type Rate } from '../time/rate';
import { type EvaluatedFrame, GraphicScene, type Resources } from './graphicScene';

/** A graphic of a reel, and the frames of the reel it takes: from one on, up to another that is not its own. */
interface Placed {
  readonly graphic: Graphic;
  readonly scene: GraphicScene;
  readonly start: number;
  readonly end: number;
}

/** Room for the rounding of quotients, in frames. */
const HAIR = 1e-6;

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
      track.graphics.map((graphic) => {
        const scene = new GraphicScene(graphic.template, graphic.fill, this.frame, resources);
        const length = Math.round(convertFrames(scene.length, scene.template.rate, reel.rate));
        return { graphic, scene, start: graphic.start, end: graphic.start + Math.max(1, length) };
      }),
    );
  }

  /** Frames at a rate; at least one. */
  frameCount(rate: Rate): number {
    const end = Math.max(0, ...this.placed.map((p) => p.end));
    return Math.max(1, Math.round(convertFrames(end, this.reel.rate, rate)));
  }

  /** Whether anything behind the graphics shows through by design. */
  get transparent(): boolean {
    return this.placed.every(({ scene }) => scene.transparent);
  }

  media(): string[] {
    return [...new Set(this.placed.flatMap(({ scene }) => scene.slots.media()))];
  }

  /** Every file the reel holds, shown or hidden: what has to go along with it. */
  held(): string[] {
    return [...new Set(this.placed.flatMap(({ scene }) => scene.slots.held()))];
  }

  /** Every sound in slots, by its media id; clips with sound are among the media. */
  sounds(): string[] {
    return [...new Set(this.placed.flatMap(({ scene }) => scene.slots.sounds()))];
  }

  /**
   * What shows while the shutter is open around a frame, as evenly spread moments: the reel's motion blur. One moment
   * when it is off. What shows at all is what shows in the frame: a cut is never blurred.
   */
  subFrames(frame: number, rate: Rate): EvaluatedFrame[] {
    const { samples, shutter } = this.reel.motionBlur;
    if (samples <= 1 || shutter <= 0) return [this.frameAt(frame, rate)];
    return Array.from({ length: samples }, (_, i) =>
      this.evaluated(frame, rate, shutter * ((i + 0.5) / samples - 0.5)),
    );
  }

  /** Frame number `frame` at a rate. Depends on nothing but its arguments and the document. */
  frameAt(frame: number, rate: Rate, lettersOf?: string): EvaluatedFrame {
    return this.evaluated(frame, rate, 0, lettersOf);
  }

  /** @param shift frames from the beginning of the frame at which moving things stand as they do then */
  private evaluated(frame: number, rate: Rate, shift: number, lettersOf?: string): EvaluatedFrame {
    const at = convertFrames(frame, rate, this.reel.rate);
    const moved = convertFrames(frame + shift, rate, this.reel.rate);
    const parts = this.placed.flatMap(({ scene, start, end }) => {
      if (at < start - HAIR || at >= end - HAIR) return [];
      const time = convertFrames(moved - start, this.reel.rate, scene.template.rate);
      return [scene.evaluate(Math.min(Math.max(time, 0), scene.length), lettersOf)];
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
