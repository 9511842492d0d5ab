import { fileURLToPath } from 'node:url';
import type { AssetSource } from '@fresh-reel/core';
import { SHIPPED } from './files';

/** The assets that ship, as paths, for Node. */
export const SHIPPED_PATHS: AssetSource = {
  find(media) {
    const file = SHIPPED.find(media);
    return file === undefined ? undefined : fileURLToPath(new URL(`./${file}`, import.meta.url));
  },
};
