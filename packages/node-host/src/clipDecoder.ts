import { type ChildProcess, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { framesOf, SAFELY, soughtTo } from './ffmpeg';

/** What is decoded, and how. */
export interface Decoding {
  readonly path: string;
  /** Size of a frame with square pixels. */
  readonly width: number;
  readonly height: number;
  /** The decoder to ask for, where ffmpeg's own choice will not do. */
  readonly decoder: string | undefined;
  /** How its luma and chroma are made, as ffmpeg names it, where the file does not tell. */
  readonly matrix: string | undefined;
}

/** A frame, and from when until when it shows, in seconds of the clip. */
export interface DecodedFrame {
  readonly time: number;
  readonly until: number;
  /** Straight, four bytes each; the decoder's own, which its next frame is read into. */
  readonly pixels: Buffer;
}

interface Raw {
  readonly time: number;
  readonly pixels: Buffer;
}

/**
 * One run of ffmpeg through a clip, forwards from a second of it. Times are those that ffmpeg gives the frames, counted
 * from the beginning of the file as it plays: edit lists and late starts are in them.
 */
export class ClipDecoder {
  /** What ffmpeg complained of last. */
  complaint = '';
  private readonly process: ChildProcess;
  private readonly frames: AsyncIterator<Buffer>;
  /** Times that ffmpeg has told of frames not read yet, and what waits for the next of them. */
  private readonly times: number[] = [];
  private told: (() => void) | undefined;
  /** Seconds. */
  private tick = 1;
  private ended = false;
  private current: Raw | undefined;
  private next: Raw | undefined;
  /** Memory of frames that are over: frames are large, and making room for each takes as long as reading it. */
  private readonly free: Buffer[] = [];

  constructor(
    { path, width, height, decoder, matrix }: Decoding,
    private readonly start: number,
  ) {
    const told = matrix ? `:in_color_matrix=${matrix}` : '';
    this.process = spawn(
      'ffmpeg',
      [
        ...['-nostdin', '-hide_banner', '-loglevel', 'info', ...SAFELY],
        ...(decoder ? ['-c:v', decoder] : []),
        ...soughtTo(start),
        ...['-i', path, '-map', '0:v:0', '-fps_mode', 'passthrough'],
        ...['-vf', `scale=${width}:${height}${told},setsar=1,showinfo=checksum=0`],
        ...['-f', 'rawvideo', '-pix_fmt', 'rgba', 'pipe:1'],
      ],
      { stdio: ['ignore', 'pipe', 'pipe'] },
    );
    this.process.on('error', (error) => {
      this.complaint = error.message;
    });
    const size = width * height * 4;
    this.frames = framesOf(this.process.stdout!, size, () => this.free.pop() ?? Buffer.allocUnsafeSlow(size));
    const lines = createInterface({ input: this.process.stderr! });
    lines.on('line', (line) => {
      const base = /Parsed_showinfo.*config in time_base: (\d+)\/(\d+)/.exec(line);
      const pts = /Parsed_showinfo.* pts:\s*(-?\d+)/.exec(line)?.[1];
      if (base) this.tick = Number(base[1]) / Number(base[2]);
      // In whole ticks: the seconds beside them are rounded to six figures.
      if (pts !== undefined) this.times.push(Number(pts) * this.tick);
      else if (/error|invalid|no such|denied/i.test(line)) this.complaint = line;
      this.told?.();
    });
    lines.on('close', () => {
      this.ended = true;
      this.told?.();
    });
  }

  /** Second up to which it has come: frames before it cannot be had any more. */
  get position(): number {
    return this.current?.time ?? this.start;
  }

  /**
   * The frame that shows at a second, which lies at or after the position: the last one, where the clip is over. Its
   * pixels are there until the next is asked for.
   * @returns nothing when it began before this run did
   */
  async frameAt(at: number): Promise<DecodedFrame | undefined> {
    this.current ??= await this.first();
    if (!this.current || this.current.time > at) return undefined;
    for (;;) {
      this.next ??= await this.read();
      if (!this.next) return { ...this.current, until: Number.POSITIVE_INFINITY };
      if (this.next.time > at) return { ...this.current, until: this.next.time };
      this.free.push(this.current.pixels);
      this.current = this.next;
      this.next = undefined;
    }
  }

  /** The first frame; of the whole clip it shows from the beginning, however late its time is. */
  private async first(): Promise<Raw | undefined> {
    const raw = await this.read();
    return raw && this.start === 0 ? { ...raw, time: Math.min(0, raw.time) } : raw;
  }

  close(): void {
    // What is left in its pipe would keep this process from ending.
    this.process.stdout?.destroy();
    this.process.stderr?.destroy();
    this.process.kill('SIGKILL');
  }

  private async read(): Promise<Raw | undefined> {
    const { value, done } = await this.frames.next();
    if (done) return undefined;
    const time = await this.time();
    return time === undefined ? undefined : { time: this.start + time, pixels: value };
  }

  /** The time of the next frame, told by ffmpeg before it writes the frame, on another pipe. */
  private async time(): Promise<number | undefined> {
    while (this.times.length === 0 && !this.ended) {
      await new Promise<void>((resolve) => {
        this.told = resolve;
      });
    }
    return this.times.shift();
  }
}
