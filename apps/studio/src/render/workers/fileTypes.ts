import { formatFacts, type RenderFormat } from '@fresh-reel/core';

/** Media types of what is rendered, by the ending of its file. */
const TYPES: Readonly<Record<string, string>> = {
  mp4: 'video/mp4',
  mov: 'video/quicktime',
  mkv: 'video/matroska',
  webm: 'video/webm',
  gif: 'image/gif',
  webp: 'image/webp',
  png: 'image/png',
  zip: 'application/zip',
  wav: 'audio/wav',
};

/** The media type of a format's file. */
export const typeOf = (format: RenderFormat): string => TYPES[formatFacts(format).extension]!;
