import { useQuery } from '@tanstack/react-query';
import { assetFile, kindOfFile } from '../decode/assets';
import { isHeard, readMediaRecord } from '../storage/media';
import { keys } from '../storage/queries';

/** What the page knows of a picture or clip. */
export interface PageFacts {
  /** Seconds; pictures have none. */
  readonly duration: number | undefined;
  readonly sound: boolean;
  readonly alpha: boolean;
  readonly name: string;
  /** Pixels, upright; sounds have none. */
  readonly size?: { readonly width: number; readonly height: number } | undefined;
}

async function factsOf(media: string): Promise<PageFacts | null> {
  const file = assetFile(media);
  if (file === undefined) {
    const record = await readMediaRecord(media.replace(/^sha256:/, ''));
    return (
      record && {
        duration: record.duration,
        sound: isHeard(record),
        alpha: record.alpha,
        name: record.name,
        size: record.width && record.height ? { width: record.width, height: record.height } : undefined,
      }
    );
  }
  const name = file.replace(/^.*\/|\.\w+$/g, '');
  if (kindOfFile(file) === 'picture') {
    // Those of the templates that have transparent parts are drawings.
    return { duration: undefined, sound: false, alpha: file.endsWith('.svg'), name };
  }
  // What reads clips is loaded when one is there.
  const { openInput } = await import('../decode/mediaSource');
  const input = await openInput(media);
  if (!input) return null;
  const video = await input.getPrimaryVideoTrack();
  const facts = {
    duration: await (video ?? input).computeDuration(),
    sound: (await input.getPrimaryAudioTrack()) !== null,
    alpha: false,
    name,
    size: video ? { width: video.displayWidth, height: video.displayHeight } : undefined,
  };
  input.dispose();
  return facts;
}

export function useMediaFacts(media: string | undefined): PageFacts | undefined {
  const { data } = useQuery({
    queryKey: [...keys.facts, media],
    enabled: media !== undefined,
    queryFn: () => factsOf(media!),
  });
  return data ?? undefined;
}

/** Seconds of a clip or sound; of one that is not known, or not there, it never ends. */
export const useDuration = (media: string | undefined): number =>
  useMediaFacts(media)?.duration ?? Number.POSITIVE_INFINITY;
