import type { MediaRecord } from '../storage/media';

/** How long a clip or sound is, or how large a picture. */
export function lengthText({ duration, width, height }: MediaRecord): string {
  if (duration === undefined) return width && height ? `${width} × ${height}` : '';
  if (duration < 60) return `${duration.toFixed(1)} s`;
  const minutes = Math.floor(duration / 60);
  return `${minutes}:${String(Math.floor(duration % 60)).padStart(2, '0')}`;
}

export function codecText({ codec, alpha, original }: MediaRecord): string {
  const made = original && codec ? `${codec}, played from a working copy` : codec;
  return [made, alpha ? 'transparent' : ''].filter(Boolean).join(', ');
}
