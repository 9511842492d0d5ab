import { assetFile } from '@fresh-reel/templates';
import { useQuery } from '@tanstack/react-query';
import { assetKind } from './mediaSource';
import { readThumb } from './thumb';

/** Address of the small picture of some media, or nothing while it loads or where there is none. */
export function useThumb(media: string | undefined): string | undefined {
  const { data } = useQuery({
    queryKey: ['thumb', media],
    enabled: media !== undefined,
    queryFn: () => thumbOf(media!),
  });
  return data ?? undefined;
}

async function thumbOf(media: string): Promise<string | null> {
  if (media.startsWith('asset:')) {
    const file = assetFile(media);
    // A clip's small picture ships beside it.
    return `/templates/${assetKind(media) === 'clip' ? file.replace(/\.\w+$/, '.thumb.webp') : file}`;
  }
  return readThumb(media.replace(/^sha256:/, ''));
}
