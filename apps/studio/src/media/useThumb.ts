import { useQuery } from '@tanstack/react-query';
import { assetUrl, kindOfFile } from '../decode/assets';
import { keys } from '../storage/queries';
import { readThumb } from './import/thumb';

/** Address of the small picture of some media, or nothing while it loads or where there is none. */
export function useThumb(media: string | undefined): string | undefined {
  const { data } = useQuery({
    queryKey: [...keys.thumb, media],
    enabled: media !== undefined,
    queryFn: () => thumbOf(media!),
  });
  return data ?? undefined;
}

async function thumbOf(media: string): Promise<string | null> {
  const url = assetUrl(media);
  // A clip's small picture ships beside it.
  if (url) return kindOfFile(url) === 'clip' ? url.replace(/\.\w+$/, '.thumb.webp') : url;
  return readThumb(media.replace(/^sha256:/, ''));
}
