import { FRAME_SLACK } from '@fresh-reel/core';
import { openClip } from '../../decode/clipSource';
import { MediaError } from './mediaError';

/**
 * One frame of a clip as a picture file, at the clip's own size.
 * @param at second of the file; the frame that shows then
 * @throws {MediaError} when the clip is not there or has no frame then
 */
export async function stillOf(media: string, name: string, at: number): Promise<File> {
  const source = await openClip(media);
  if (!source) throw new MediaError(`“${name}” is not here any more. Add it again.`);
  const samples = source.samples(at + FRAME_SLACK);
  try {
    const { value: sample } = await samples.next();
    if (!sample) throw new MediaError(`“${name}” has no frame at ${at.toFixed(2)} s. Choose another moment.`);
    const canvas = new OffscreenCanvas(source.facts.width, source.facts.height);
    sample.draw(canvas.getContext('2d')!, 0, 0, canvas.width, canvas.height);
    sample.close();
    const blob = await canvas.convertToBlob({ type: 'image/png' });
    return new File([blob], `${name.replace(/\.\w+$/, '')} at ${at.toFixed(2)} s.png`, { type: 'image/png' });
  } finally {
    await samples.return();
    source.dispose();
  }
}
