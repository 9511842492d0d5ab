import { fileURLToPath } from 'node:url';
import { assetFile } from './index';

/** Where an asset's file lies, for Node. */
export function assetPath(media: string): string {
  return fileURLToPath(new URL(`./${assetFile(media)}`, import.meta.url));
}
