import { stereoWeights } from '@fresh-reel/core';
import { probe } from './ffmpeg';

/** What ffprobe says of a moving picture. */
export interface PictureStream {
  readonly codec_type: 'video';
  readonly codec_name: string;
  readonly width: number;
  readonly height: number;
  readonly sample_aspect_ratio?: string;
  readonly avg_frame_rate?: string;
  readonly r_frame_rate?: string;
  readonly pix_fmt?: string;
  readonly color_space?: string;
  readonly color_range?: string;
  readonly tags?: { readonly alpha_mode?: string; readonly DURATION?: string };
  /** Seconds, as text; not every container keeps them. */
  readonly start_time?: string;
  readonly duration?: string;
  readonly side_data_list?: readonly { readonly rotation?: number }[];
}

/** What is seen and heard of a file. */
export interface Streams {
  /** The first moving picture. */
  readonly picture: PictureStream | undefined;
  readonly sounds: boolean;
  /** Of the first sound; 0 without one. */
  readonly channels: number;
  /** Seconds: of the picture, where there is one, and else of the file. Sounds are often a little longer. */
  readonly duration: number;
}

const ENTRIES = [
  'stream=codec_type,codec_name,width,height,sample_aspect_ratio,avg_frame_rate,r_frame_rate,pix_fmt,color_space,color_range,channels,start_time,duration',
  'stream_tags=alpha_mode,DURATION',
  'stream_side_data=rotation',
  'format=duration',
].join(':');

/** Asks once for all that clips and sounds want to know. @throws {Error} when ffprobe is not there, or cannot read the file */
export async function streamsOf(path: string): Promise<Streams> {
  const { streams, format } = await probe(path, '-show_entries', ENTRIES);
  const all = streams as readonly (
    | PictureStream
    | { readonly codec_type: string; readonly channels?: number }
  )[];
  const sound = all.find((s): s is { codec_type: string; channels?: number } => s.codec_type === 'audio');
  const picture = all.find((s): s is PictureStream => s.codec_type === 'video');
  return {
    picture,
    sounds: sound !== undefined,
    channels: sound?.channels ?? 0,
    duration: (picture && endOf(picture)) ?? Number((format as { duration?: string }).duration),
  };
}

/** The second at which a moving picture ends; nothing where its container does not say. */
function endOf({ start_time = '0', duration, tags }: PictureStream): number | undefined {
  // Matroska writes when a track ends, in hours, minutes and seconds.
  const clock = /^(\d+):(\d\d):(\d\d(?:\.\d+)?)$/.exec(tags?.DURATION ?? '')?.slice(1);
  const [h, m, s] = clock?.map(Number) ?? [];
  const end = clock ? h! * 3600 + m! * 60 + s! : Number(start_time) + Number(duration);
  return end > 0 ? end : undefined;
}

/** ffmpeg's filter that folds channels into two as the app does everywhere; its own way is quieter, and differs by kind. */
export function foldFilter(channels: number): string {
  const side = (weights: readonly number[]) =>
    weights.flatMap((w, c) => (w > 0 ? [`${w.toFixed(6)}*c${c}`] : [])).join('+');
  const [left, right] = stereoWeights(channels);
  return `pan=stereo|c0=${side(left)}|c1=${side(right)}`;
}
