import type { AssetSource } from '@fresh-reel/core';
import assetFiles from './assets.json';
import assetNames from './names.json';

/** Which file lies under which hash; written by `npm run demo-media`. */
const FILES: Readonly<Record<string, string>> = assetFiles;
/** Hashes by the names that assets had before: `asset:<template>/<name>`; written along. */
const NAMES: Readonly<Record<string, string>> = assetNames;

const own = (record: Readonly<Record<string, string>>, key: string) =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/** The assets that ship, as files within the app's public files. It knows no templates: workers find files by it. */
export const SHIPPED: AssetSource = {
  find: (media) => own(FILES, own(NAMES, media) ?? media),
};
