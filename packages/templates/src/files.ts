import type { AssetSource } from '@fresh-reel/core';
import assetFiles from './assets.json';
import assetNames from './names.json';

/** Which file lies under which hash; written by `npm run demo-media`. */
const FILES: Readonly<Record<string, string>> = assetFiles;
/** Hashes by the names that assets had before: `asset:<template>/<name>`; written along. */
const NAMES: Readonly<Record<string, string>> = assetNames;

const own = (record: Readonly<Record<string, string>>, key: string) =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/** The media id of a file that ships, by its name among those that several templates use. @throws {Error} when there is none */
export function sharedAsset(name: string): string {
  const found = Object.entries(FILES).find(([, file]) => file === `shared/${name}`);
  if (!found) throw new Error(`There is no shared asset "${name}".`);
  return found[0];
}

/** The assets that ship, as files within the app's public files. It knows no templates: workers find files by it. */
export const SHIPPED: AssetSource = {
  find: (media) => own(FILES, own(NAMES, media) ?? media),
};
