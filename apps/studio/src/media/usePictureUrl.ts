import { useEffect, useState } from 'react';
import { pictureUrl } from '../decode/picture';

/** Address of a picture for an <Image>, or nothing while it loads or when it is missing. */
export function usePictureUrl(media: string | undefined): string | undefined {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    let current = true;
    let revoke: (() => void) | undefined;
    setUrl(undefined);
    if (media) {
      void pictureUrl(media).then((found) => {
        if (!found) return;
        if (current) setUrl(found.url);
        else found.revoke();
        revoke = found.revoke;
      });
    }
    return () => {
      current = false;
      revoke?.();
    };
  }, [media]);
  return url;
}
