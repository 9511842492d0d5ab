import { readdirSync } from 'node:fs';

/** All files of a folder, those of its folders too, in order. */
export const filesOf = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => `${e.parentPath ?? e.path}/${e.name}`)
    .sort();
