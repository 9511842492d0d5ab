import type { FrameSize, OutputFormat, Rate, SoundCodec } from '@fresh-reel/core';
import { useQuery } from '@tanstack/react-query';

/** What knows the encoders is loaded when a render is thought of. */
const encoders = () => import('./canEncode');

/** Whether this browser can write a format at a size; where not, why and what to choose instead. */
export type Support = { readonly able: true } | { readonly able: false; readonly why: string };

async function supports(format: OutputFormat, size: FrameSize, rate: Rate): Promise<Support> {
  if (format === 'png' || format === 'png-sequence') return { able: true };
  if (typeof VideoEncoder === 'undefined') {
    const why = window.isSecureContext
      ? 'This browser has no video encoder. Choose a PNG sequence.'
      : 'Browsers encode video on secure addresses only (https, or localhost). Choose a PNG sequence.';
    return { able: false, why };
  }
  if (await (await encoders()).canCompress(format, size, rate)) return { able: true };
  const name = format === 'mp4' ? 'H.264' : 'VP9';
  const instead = format === 'mp4' ? 'WebM, or a PNG sequence' : 'MP4, or a PNG sequence for transparency';
  return {
    able: false,
    why: `This browser cannot write ${name} at ${size.width} × ${size.height}. Choose ${instead}.`,
  };
}

export function useSupport(format: OutputFormat, size: FrameSize, rate: Rate): Support | undefined {
  return useQuery({
    queryKey: ['support', format, size.width, size.height, rate.num, rate.den],
    queryFn: () => supports(format, size, rate),
  }).data;
}

/** How the sound of a format will be written here. */
export function useSoundCodec(format: OutputFormat): SoundCodec | 'none' | undefined {
  return useQuery({
    queryKey: ['sound-codec', format],
    queryFn: async () => (await (await encoders()).soundCodec(format)) ?? 'none',
  }).data;
}
