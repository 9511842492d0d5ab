import { createHash } from 'node:crypto';
import { readdir, readFile, writeFile } from 'node:fs/promises';

/** Files that templates may show or let hear; small pictures of clips are the app's own. */
const IS_ASSET = /^(?!.*\.thumb\.webp$).+\.(png|svg|jpg|webp|mp4|webm|ogg)$/;

/**
 * Writes which file lies under which hash, and the new hash wherever a template names a file that has changed.
 * @param templates the folder of the templates, with a folder of files that several use
 */
export async function writeAssets(templates: URL): Promise<void> {
  const list = new URL('assets.json', templates);
  const before = JSON.parse(await readFile(list, 'utf8').catch(() => '{}')) as Record<string, string>;
  const now: Record<string, string> = {};
  const folders = (await readdir(templates, { withFileTypes: true })).filter((e) => e.isDirectory());
  for (const { name: folder } of folders) {
    for (const name of (await readdir(new URL(`${folder}/`, templates))).sort()) {
      if (!IS_ASSET.test(name)) continue;
      const bytes = await readFile(new URL(`${folder}/${name}`, templates));
      now[`sha256:${createHash('sha256').update(bytes).digest('hex')}`] = `${folder}/${name}`;
    }
  }
  const names: Record<string, string> = {};
  const hashOf = new Map(Object.entries(now).map(([hash, file]) => [file, hash]));
  for (const { name: folder } of folders) {
    const path = new URL(`${folder}/template.json`, templates);
    const text = await readFile(path, 'utf8').catch(() => undefined);
    if (text === undefined) continue;
    const renewed = text.replace(/sha256:[0-9a-f]{64}/g, (hash) => hashOf.get(before[hash] ?? '') ?? hash);
    if (renewed !== text) await writeFile(path, renewed);
    const { id, assets = {} } = JSON.parse(renewed) as { id: string; assets?: Record<string, string> };
    for (const [name, hash] of Object.entries(assets)) names[`asset:${id}/${name}`] = hash;
  }
  await writeFile(new URL('names.json', templates), `${JSON.stringify(names, null, 2)}\n`);
  await writeFile(list, `${JSON.stringify(now, null, 2)}\n`);
}
