import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { AssetSource } from '@fresh-reel/core';
import { SHIPPED } from './files';

// By the package, wherever this code has been bundled to.
const FOLDER = join(createRequire(import.meta.url).resolve('@fresh-reel/templates/package.json'), '../src');

/** The assets that ship, as paths, for Node. */
export const SHIPPED_PATHS: AssetSource = {
  find(media) {
    const file = SHIPPED.find(media);
    return file === undefined ? undefined : join(FOLDER, file);
  },
};
