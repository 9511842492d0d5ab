import {
  browserFilm,
  type FilmCodec,
  type FrameSize,
  filmFacts,
  isFilmFormat,
  movingPicture,
  OUTPUT_FORMATS,
  type OutputFormat,
  type Rate,
  type RenderFormat,
  type SoundCodec,
} from '@fresh-reel/core';
import { useQuery } from '@tanstack/react-query';
import { serverFilms } from '../queue/serverRender';

/** What knows the encoders is loaded when a render is thought of. */
const encoders = () => import('../workers/canEncode');

/** Whether this browser can write a format at a size; where not, why and what to choose instead. */
export type Support = { readonly able: true } | { readonly able: false; readonly why: string };

async function supports(format: RenderFormat, size: FrameSize, rate: Rate): Promise<Support> {
  if (isFilmFormat(format)) return filmSupport(format);
  if (movingPicture(format) === 'webp' && !(await (await encoders()).canWriteWebp()))
    return { able: false, why: 'This browser writes no WebP. Choose an animated PNG.' };
  const film = browserFilm(format);
  if (!film) return { able: true };
  if (typeof VideoEncoder === 'undefined') {
    const why = window.isSecureContext
      ? 'This browser has no video encoder. Choose a PNG sequence.'
      : 'Browsers encode video on secure addresses only (https, or localhost). Choose a PNG sequence.';
    return { able: false, why };
  }
  if (await (await encoders()).canCompress(film, size, rate)) return { able: true };
  const name = CODEC_NAMES[film.codec];
  const instead =
    film.container === 'mp4' ? 'WebM, or a PNG sequence' : 'MP4, or a PNG sequence for transparency';
  return {
    able: false,
    why: `This browser cannot write ${name} at ${size.width} × ${size.height}. Choose ${instead}.`,
  };
}

const CODEC_NAMES = { avc: 'H.264', hevc: 'H.265', av1: 'AV1', vp9: 'VP9' } as const;

/** Formats that only some browsers write, and that are not told of where they cannot. */
const RARE: readonly OutputFormat[] = ['mp4-hevc', 'mp4-av1', 'webm-av1'];

/** What this browser is offered to write at a size. */
export function useOwnFormats(size: FrameSize, rate: Rate): readonly OutputFormat[] {
  const { data = [] } = useQuery({
    queryKey: ['rare-formats', size.width, size.height, rate.num, rate.den],
    queryFn: async () => {
      const able = await Promise.all(RARE.map((format) => supports(format, size, rate)));
      return RARE.filter((_, i) => able[i]!.able);
    },
  });
  return OUTPUT_FORMATS.filter((format) => !RARE.includes(format) || data.includes(format));
}

export function useSupport(format: RenderFormat, size: FrameSize, rate: Rate): Support | undefined {
  return useQuery({
    queryKey: ['support', format, size.width, size.height, rate.num, rate.den],
    queryFn: () => supports(format, size, rate),
  }).data;
}

/** Kinds of film that the app's server writes: none where there is no server, or no ffmpeg on it. */
export function useServerFilms(): readonly FilmCodec[] {
  return useQuery({ queryKey: ['server-films'], queryFn: serverFilms, staleTime: 60_000 }).data ?? [];
}

async function filmSupport(codec: FilmCodec): Promise<Support> {
  if ((await serverFilms()).includes(codec)) return { able: true };
  return {
    able: false,
    why: `${filmFacts(codec).name} is made by the app’s server, which does not write it now.`,
  };
}

/** How the sound of a format will be written here; of a film, by the server. */
export function useSoundCodec(format: RenderFormat): SoundCodec | 'none' | undefined {
  return useQuery({
    queryKey: ['sound-codec', format],
    queryFn: async () =>
      isFilmFormat(format) ? 'none' : ((await (await encoders()).soundCodec(format)) ?? 'none'),
    enabled: !isFilmFormat(format),
  }).data;
}
