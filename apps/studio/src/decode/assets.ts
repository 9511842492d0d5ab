import type { AssetSource } from '@fresh-reel/core';
import { SHIPPED } from '@fresh-reel/templates/files';

/** Where the app finds media that is no user's, the first that has it. What else is named lies in storage. */
const SOURCES: readonly AssetSource[] = [SHIPPED];

/** The file of an asset within the app's public files, or nothing when the media is none. */
export function assetFile(media: string): string | undefined {
  for (const source of SOURCES) {
    const file = source.find(media);
    if (file !== undefined) return file;
  }
  return undefined;
}

/** The address of an asset, or nothing when the media is none. */
export function assetUrl(media: string): string | undefined {
  const file = assetFile(media);
  return file && `/templates/${file}`;
}

/** Whether a file is a picture, a clip or a sound, by its name. */
export function kindOfFile(file: string): 'picture' | 'clip' | 'sound' {
  if (/\.(mp4|webm)$/.test(file)) return 'clip';
  return /\.ogg$/.test(file) ? 'sound' : 'picture';
}
