import { type ChildProcess, execFile, spawn } from 'node:child_process';
import { promisify } from 'node:util';
import type { MediaFacts, Picture } from '@fresh-reel/core';
import { createNodeSurface } from './surface';

const run = promisify(execFile);

/** Decoded frames kept of one clip. */
const MOST_KEPT = 8;

/**
 * A clip file, decoded by ffmpeg. Frames come in the file's order at its own times; going back begins anew.
 */
export class NodeClip {
  private decoder:
    | { process: ChildProcess; chunks: AsyncIterator<Buffer>; rest: Buffer; next: number }
    | undefined;
  private readonly kept = new Map<number, Picture>();
  private busy: Promise<void> = Promise.resolve();

  private constructor(
    readonly path: string,
    readonly facts: MediaFacts & { readonly duration: number },
    /** When each frame begins, in seconds. */
    private readonly times: readonly number[],
    private readonly alpha: boolean,
    private readonly codec: string,
  ) {}

  /** @throws {Error} when ffprobe is not there or finds no moving picture in the file. */
  static async open(path: string): Promise<NodeClip> {
    const ask = async (...what: string[]) => {
      const { stdout } = await run(
        'ffprobe',
        ['-v', 'error', '-select_streams', 'v:0', ...what, '-of', 'json', path],
        {
          maxBuffer: 1 << 28,
        },
      );
      return JSON.parse(stdout);
    };
    const { streams, format } = await ask(
      '-show_entries',
      'stream=codec_name,width,height,sample_aspect_ratio:stream_tags=alpha_mode:stream_side_data=rotation:format=duration',
    );
    const stream = streams?.[0];
    if (!stream) throw new Error(`"${path}" has no moving picture in it.`);
    const { packets } = await ask('-show_entries', 'packet=pts_time');
    const times = (packets as { pts_time?: string }[])
      .flatMap((p) => (p.pts_time === undefined ? [] : [Number(p.pts_time)]))
      .sort((a, b) => a - b);
    const rotation = Math.abs(
      (stream.side_data_list ?? [])
        .map((d: { rotation?: number }) => d.rotation ?? 0)
        .find((r: number) => r !== 0) ?? 0,
    );
    const [width, height] =
      rotation % 180 === 90 ? [stream.height, stream.width] : [stream.width, stream.height];
    const facts = { width, height, duration: Number(format.duration) };
    return new NodeClip(path, facts, times, stream.tags?.alpha_mode === '1', stream.codec_name);
  }

  private indexAt(at: number): number {
    let [low, high] = [0, this.times.length - 1];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (this.times[middle]! <= at) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** The frame at a second, when it has been made ready. */
  frame(at: number): Picture | undefined {
    return this.kept.get(this.indexAt(at));
  }

  /** Decodes the frame at a second, so that it can be painted. Calls are taken one after the other. */
  ready(at: number): Promise<void> {
    const next = this.busy.then(() => this.decode(at));
    this.busy = next.catch(() => undefined);
    return next;
  }

  private async decode(at: number): Promise<void> {
    const index = this.indexAt(at);
    if (this.kept.has(index)) return;
    if (!this.decoder || this.decoder.next > index) this.restart();
    while (this.decoder!.next <= index) {
      const number = this.decoder!.next;
      const pixels = await this.read();
      if (!pixels) return;
      if (number === index) this.keep(index, pixels);
    }
  }

  close(): void {
    // What is left in its pipe would keep this process from ending.
    this.decoder?.process.stdout?.destroy();
    this.decoder?.process.kill('SIGKILL');
    this.decoder = undefined;
  }

  private restart(): void {
    this.close();
    // ffmpeg's own decoders of VP8 and VP9 leave the alpha out.
    const own = this.alpha ? ['-c:v', this.codec === 'vp8' ? 'libvpx' : 'libvpx-vp9'] : [];
    const process = spawn(
      'ffmpeg',
      [
        '-nostdin',
        '-v',
        'error',
        ...own,
        '-i',
        this.path,
        '-map',
        '0:v:0',
        '-fps_mode',
        'passthrough',
        '-f',
        'rawvideo',
        '-pix_fmt',
        'rgba',
        'pipe:1',
      ],
      { stdio: ['ignore', 'pipe', 'ignore'] },
    );
    this.decoder = {
      process,
      chunks: process.stdout![Symbol.asyncIterator]() as AsyncIterator<Buffer>,
      rest: Buffer.alloc(0),
      next: 0,
    };
  }

  private async read(): Promise<Buffer | undefined> {
    const decoder = this.decoder!;
    const size = this.facts.width * this.facts.height * 4;
    const parts = [decoder.rest];
    let length = decoder.rest.length;
    while (length < size) {
      const { value, done } = await decoder.chunks.next();
      if (done) return undefined;
      parts.push(value);
      length += value.length;
    }
    const all = Buffer.concat(parts);
    decoder.rest = all.subarray(size);
    decoder.next++;
    return all.subarray(0, size);
  }

  private keep(index: number, pixels: Buffer): void {
    const { width, height } = this.facts;
    const surface = createNodeSurface(width, height);
    const data = surface.context.createImageData(width, height);
    data.data.set(pixels);
    surface.context.putImageData(data, 0, 0);
    this.kept.set(index, { image: surface.canvas, width, height });
    if (this.kept.size > MOST_KEPT) this.kept.delete(this.kept.keys().next().value!);
  }
}
