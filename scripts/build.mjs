/** Builds the studio into apps/studio/dist, unless it is newer than all it is made from. */
import { existsSync, readdirSync, statSync } from 'node:fs';
import { ensurePackages, root, run, say } from './setup.mjs';

function newest(folder) {
  let time = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', 'dist', '.expo', 'public'].includes(entry.name)) continue;
    const path = `${folder}/${entry.name}`;
    time = Math.max(time, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return time;
}

export async function build(force = false) {
  ensurePackages();
  const index = `${root}apps/studio/dist/index.html`;
  const made = existsSync(index) ? statSync(index).mtimeMs : 0;
  const sources = Math.max(
    ...['apps/studio', 'packages'].map((f) => newest(root + f)),
    statSync(`${root}package-lock.json`).mtimeMs,
  );
  if (!force && made > sources) return;
  say('Building the studio.');
  const { preparePublic } = await import('./prepare.mjs');
  await preparePublic();
  run('npx', ['--no-install', 'expo', 'export', '--platform', 'web'], {
    cwd: `${root}apps/studio`,
    env: { ...process.env, CI: '1', EXPO_NO_TELEMETRY: '1' },
  });
}

if (process.argv[1]?.endsWith('build.mjs')) await build(process.argv.includes('--force'));
