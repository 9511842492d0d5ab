import { readFile, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { follow } from '../../apps/server/src/cli/follow';

/** What is followed in the demo's film: where it is chosen in the first frame, and how large the patch is, in pixels. */
const FOLLOWED = {
  'flyer-close': { at: [398, 262], size: 110 },
  'kite-near': { at: [543, 200], size: 110 },
} as const;

/** Follows them with the engine, and writes a place for each frame, in pixels of the clip. */
export async function writeWays(shared: URL, out: URL): Promise<void> {
  const found: Record<string, number[][]> = {};
  for (const [name, { at, size }] of Object.entries(FOLLOWED)) {
    const clip = fileURLToPath(new URL(`${name}.mp4`, shared));
    const sights = await follow({ clip, at, size, frame: 0, json: true });
    found[name] = sights.map(({ x, y }) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10]);
  }
  const text = `${JSON.stringify(found)}\n`;
  if (text !== (await readFile(out, 'utf8').catch(() => ''))) await writeFile(out, text);
}
