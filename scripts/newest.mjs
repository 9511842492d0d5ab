import { readdirSync, statSync } from 'node:fs';

const MADE = ['node_modules', 'dist'];

/** When the newest file of a folder, and of its folders, was written; what is made of others does not count. */
export function newest(folder) {
  let time = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (MADE.includes(entry.name)) continue;
    const path = `${folder}/${entry.name}`;
    time = Math.max(time, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return time;
}
