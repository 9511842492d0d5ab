import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);

/** Containers that are opened; a playlist or a script that a file names is not. */
const FORMATS =
  'matroska,webm,mov,mp4,m4a,3gp,3g2,mj2,mpegts,mpeg,avi,flv,ogg,wav,mp3,flac,aac,aiff,mxf,gif,h264,hevc,ivf,obu,asf,mpegvideo,dv';

/** What stands before `-i`: files that are here, in containers that are meant. */
export const SAFELY = ['-protocol_whitelist', 'file,pipe', '-format_whitelist', FORMATS] as const;

/** Where reading begins for what lies at a second: in whole milliseconds, which ffmpeg takes as they are. */
export const readFrom = (second: number): number => Math.max(0, Math.floor(second * 1000) / 1000);

/** What stands before `-i` to begin at such a second. */
export const soughtTo = (from: number): readonly string[] => (from > 0 ? ['-ss', from.toFixed(3)] : []);

/** What ffprobe says of a file, as its JSON. @throws {Error} when it is not there, or cannot read the file */
export async function probe(path: string, ...what: readonly string[]): Promise<Record<string, unknown>> {
  const { stdout } = await run('ffprobe', ['-v', 'error', ...SAFELY, ...what, '-of', 'json', path], {
    maxBuffer: 1 << 28,
  });
  return JSON.parse(stdout) as Record<string, unknown>;
}

/**
 * Cuts what ffmpeg writes into frames of so many bytes; what is left at the end is none.
 * @param room memory for a frame; new each time, when absent
 */
export async function* framesOf(
  stream: AsyncIterable<Buffer>,
  size: number,
  room: () => Buffer = () => Buffer.allocUnsafeSlow(size),
): AsyncGenerator<Buffer> {
  let frame: Buffer | undefined;
  let filled = 0;
  for await (const part of stream) {
    for (let at = 0; at < part.length; ) {
      frame ??= room();
      const taken = part.copy(frame, filled, at);
      at += taken;
      filled += taken;
      if (filled < size) continue;
      yield frame;
      frame = undefined;
      filled = 0;
    }
  }
}

/** What to do where there is none. */
export const INSTALL_FFMPEG = 'Install it first (Debian, Ubuntu: apt-get install ffmpeg).';

/** Whether ffmpeg and ffprobe are installed here. */
export async function hasFfmpeg(): Promise<boolean> {
  try {
    await Promise.all(['ffmpeg', 'ffprobe'].map((program) => run(program, ['-version'])));
    return true;
  } catch {
    return false;
  }
}
