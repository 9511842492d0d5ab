import { probe } from './ffmpeg';

/** What ffprobe says of a file's picture, as far as a working copy depends on it. */
export interface Footage {
  /** As ffprobe names it: `hevc`. */
  readonly codec: string;
  /** As it is seen: upright, with square pixels. */
  readonly width: number;
  readonly height: number;
  /** Seconds. */
  readonly duration: number;
  /** Mean frames a second. */
  readonly rate: number;
  /** Fields of two moments in one frame. */
  readonly interlaced: boolean;
  /** High dynamic range: HLG or PQ (ITU-R BT.2100). */
  readonly hdr: boolean;
  readonly alpha: boolean;
  /** Channels of its first sound; 0 without one. */
  readonly channels: number;
  /** Width of a pixel as a part of its height is not 1. */
  readonly stretched: boolean;
}

interface Stream {
  readonly codec_type: string;
  readonly codec_name?: string;
  readonly width?: number;
  readonly height?: number;
  readonly sample_aspect_ratio?: string;
  readonly pix_fmt?: string;
  readonly field_order?: string;
  readonly color_transfer?: string;
  readonly avg_frame_rate?: string;
  readonly duration?: string;
  readonly channels?: number;
  readonly disposition?: { readonly attached_pic?: number };
  readonly tags?: { readonly alpha_mode?: string };
  readonly side_data_list?: readonly { readonly rotation?: number }[];
}

/** Two whole numbers around a sign, as a quotient. */
function quotient(text: string | undefined, sign: ':' | '/'): number {
  const [a, b] = (text ?? '').split(sign).map(Number);
  return a! > 0 && b! > 0 ? a! / b! : 0;
}

/** Width of a pixel as a part of its height (`sample_aspect_ratio`, as in ISO/IEC 14496-12's `pasp`). */
export const pixelAspect = (said: string | undefined): number => quotient(said, ':') || 1;

/** Frames a second, as ffprobe tells them; nothing where it does not. */
export const frameRate = (said: string | undefined): number | undefined => quotient(said, '/') || undefined;

/** Whether a stream is shown turned by a quarter. */
export const isTurned = (sides: Stream['side_data_list']): boolean =>
  (sides ?? []).some(({ rotation = 0 }) => Math.abs(rotation) % 180 === 90);

/** Formats of pixels that carry alpha, as ffmpeg names them. */
const WITH_ALPHA = /^(yuva|rgba|argb|bgra|abgr|gbrap|ya\d)/;

/** @throws {Error} when the file cannot be read, or holds no moving picture */
export async function lookAtFootage(path: string): Promise<Footage> {
  const said = await probe(path, '-show_streams', '-show_entries', 'format=duration');
  const streams = said.streams as readonly Stream[];
  const video = streams.find((s) => s.codec_type === 'video' && !s.disposition?.attached_pic);
  if (!video?.width || !video.height) throw new Error('It holds no moving picture.');
  const duration = Number((said.format as { duration?: string }).duration ?? video.duration);
  if (!(duration > 0)) throw new Error('It holds no frames.');
  const aspect = pixelAspect(video.sample_aspect_ratio);
  const wide = Math.max(1, Math.round(video.width * aspect));
  const turned = isTurned(video.side_data_list);
  const [width, height] = turned ? [video.height, wide] : [wide, video.height];
  return {
    codec: video.codec_name ?? 'unknown',
    width,
    height,
    duration,
    rate: quotient(video.avg_frame_rate, '/') || 25,
    interlaced: /^(tt|bb|tb|bt)$/.test(video.field_order ?? ''),
    hdr: /^(arib-std-b67|smpte2084)$/.test(video.color_transfer ?? ''),
    alpha: WITH_ALPHA.test(video.pix_fmt ?? '') || video.tags?.alpha_mode === '1',
    channels: streams.find((s) => s.codec_type === 'audio')?.channels ?? 0,
    stretched: Math.abs(aspect - 1) > 1e-3,
  };
}
