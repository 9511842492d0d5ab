import type { Picture } from '@fresh-reel/core';
import { type ClipSample, type ClipSource, openClip } from './clipSource';

/** Decoded frames kept of one clip; more only while one picture shows more. */
const MOST_KEPT = 6;
/** A step forward of up to so many seconds is decoded through; a longer one, or one back, is jumped to. */
const READ_ON = 1.5;

interface Frame {
  readonly from: number;
  /** When the next one begins. */
  readonly to: number;
  readonly picture: Picture;
}

/** A clip that is read frame by frame, forwards as it plays or wherever it is sought. */
export class ClipReader {
  private readonly kept: Frame[] = [];
  private stream: AsyncGenerator<ClipSample, void, unknown> | undefined;
  /** The sample the stream gave last: shown once the one after it is known. */
  private ahead: ClipSample | undefined;
  private streamAt = Number.NEGATIVE_INFINITY;
  private busy: Promise<void> = Promise.resolve();
  /** Longest side frames are kept at; less than the clip's own while a small preview plays. */
  private side = Number.POSITIVE_INFINITY;
  private most = MOST_KEPT;

  private constructor(private readonly source: ClipSource) {}

  get facts(): ClipSource['facts'] {
    return this.source.facts;
  }

  /**
   * @returns null when the media is not there, or is no clip
   * @throws {Error} when this browser cannot decode it
   */
  static async open(media: string): Promise<ClipReader | null> {
    const source = await openClip(media);
    return source && new ClipReader(source);
  }

  /** Frames need be no larger than this, in pixels of the longest side. */
  keepTo(side: number): void {
    if (side > this.side) this.kept.splice(0).forEach(release);
    this.side = side;
  }

  /** Whether exactly the frame of a second is there. */
  has(at: number): boolean {
    return this.kept.some(showsAt(at));
  }

  /** The frame of a second; while it is being decoded, the last one that was. */
  frame(at: number): Picture | undefined {
    return (this.kept.find(showsAt(at)) ?? this.kept.at(-1))?.picture;
  }

  /** Decodes the frames of some seconds, so that all of them are there at once. */
  ready(seconds: readonly number[]): Promise<void> {
    const next = this.busy.then(async () => {
      this.most = Math.max(MOST_KEPT, seconds.length);
      for (const at of [...seconds].sort((a, b) => a - b)) await this.decode(at);
    });
    this.busy = next.catch(() => undefined);
    return next;
  }

  close(): void {
    void this.busy.then(async () => {
      await this.stream?.return();
      this.ahead?.close();
      this.kept.splice(0).forEach(release);
      this.source.dispose();
    });
  }

  private async decode(at: number): Promise<void> {
    const held = this.kept.findIndex(showsAt(at));
    if (held >= 0) {
      // What is wanted again goes last.
      this.kept.push(...this.kept.splice(held, 1));
      return;
    }
    const onward = this.stream && at >= this.streamAt && at < this.streamAt + READ_ON;
    if (!onward) await this.seek(at);
    for (;;) {
      const now = this.ahead;
      if (!now) return;
      const next = (await this.stream!.next()).value ?? undefined;
      this.ahead = next;
      const to = next ? next.timestamp : Number.POSITIVE_INFINITY;
      this.streamAt = next ? next.timestamp : Number.NEGATIVE_INFINITY;
      if (to > at) {
        // Before the first frame of a clip, the first shows.
        this.keep(now, Math.min(now.timestamp, at), to);
        now.close();
        return;
      }
      now.close();
    }
  }

  private async seek(at: number): Promise<void> {
    await this.stream?.return();
    this.ahead?.close();
    this.stream = this.source.samples(at);
    this.ahead = (await this.stream.next()).value ?? undefined;
    this.streamAt = this.ahead?.timestamp ?? Number.NEGATIVE_INFINITY;
  }

  private keep(sample: ClipSample, from: number, to: number): void {
    const { width, height } = this.facts;
    const k = Math.min(1, this.side / Math.max(width, height));
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round(width * k)),
      Math.max(1, Math.round(height * k)),
    );
    // The sample knows how it is turned and which colours it means.
    sample.draw(canvas.getContext('2d')!, 0, 0, canvas.width, canvas.height);
    this.kept.push({ from, to, picture: { image: canvas.transferToImageBitmap(), width, height } });
    while (this.kept.length > this.most) release(this.kept.shift()!);
  }
}

const showsAt = (at: number) => (f: Frame) => f.from <= at && at < f.to;

function release({ picture }: Frame): void {
  (picture.image as ImageBitmap).close();
}
