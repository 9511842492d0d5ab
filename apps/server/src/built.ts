import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';

/** Where the studio is built. */
export const STUDIO = fileURLToPath(new URL('../../studio/dist/', import.meta.url));

/** The version of the app that is built there. */
export async function builtVersion(folder = STUDIO): Promise<string> {
  const text = await readFile(`${folder}/version.json`, 'utf8').catch(() => '{}');
  return z.object({ version: z.string().catch('unknown') }).parse(JSON.parse(text)).version;
}
