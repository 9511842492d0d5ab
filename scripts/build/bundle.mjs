/** Bundles the studio: its page and its workers, at once. */
import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { basename } from 'node:path';
import { build } from 'esbuild';
import { root } from '../setup.mjs';

const STUDIO = `${root}apps/studio`;
const require = createRequire(`${STUDIO}/package.json`);

/** The service worker is bundled by itself, once it is known which files there are. */
const APART = 'service.worker.ts';

/** Files below a folder whose names end so, in order. */
const filesEnding = async (folder, ending) =>
  (await readdir(folder, { recursive: true })).filter((path) => ending.test(path)).sort();

/** The routes, as Expo Router asks for them: a module for each file of `app/`. */
async function routesModule() {
  const files = await filesEnding(`${STUDIO}/app`, /\.tsx?$/);
  return [
    ...files.map((file, i) => `import * as route${i} from './app/${file}';`),
    `const routes = { ${files.map((file, i) => `'./${file}': route${i}`).join(', ')} };`,
    'export const ctx = Object.assign((id) => routes[id], { keys: () => Object.keys(routes), resolve: (id) => id, id: "app" });',
  ].join('\n');
}

/** What stands for modules that are made when the app is built, or of which browsers need nothing. */
const inTheBrowser = (listed) => ({
  name: 'in-the-browser',
  setup(bundle) {
    const empty = ({ path }) => ({ path, namespace: 'empty' });
    // What HarfBuzz's loader names of Node, and does not use here; what reloads code while one develops.
    bundle.onResolve({ filter: /^((node:)?(fs|path|crypto)|@expo\/metro-runtime)$/ }, empty);
    // Zod's messages in fifty languages are never shown: the app has words of its own.
    bundle.onResolve({ filter: /^\.\.\/locales\/index\.js$/ }, (asked) =>
      /[\\/]zod[\\/]v4[\\/]/.test(asked.importer) ? empty(asked) : undefined,
    );
    bundle.onLoad({ filter: /.*/, namespace: 'empty' }, () => ({ contents: 'module.exports = {};' }));
    // What is told of the built-in templates is written down before; their documents are fetched.
    bundle.onResolve({ filter: /^@fresh-reel\/templates\/listed$/ }, () => ({
      path: listed,
    }));
    bundle.onResolve({ filter: /^expo-router\/_ctx$/ }, ({ path }) => ({ path, namespace: 'routes' }));
    bundle.onLoad({ filter: /.*/, namespace: 'routes' }, async () => ({
      contents: await routesModule(),
      resolveDir: STUDIO,
    }));
  },
});

/**
 * Bundles the page and all workers as modules that share what they have in common: the engine is there once, however
 * many use it. They lie in a folder named by what is in them, so that a page and its workers are always of one build.
 * Metro, with which Expo bundles, takes three minutes of a processor for the page alone, and brings along all of every
 * package; this takes two seconds.
 * @param {string} folder where that folder is made
 * @param {string} listed the module that stands for `@fresh-reel/templates/listed`
 * @returns {Promise<{ name: string, first: string[] }>} its name, and the files that the page begins with
 */
export async function bundleStudio(folder, listed) {
  const workers = (await filesEnding(`${STUDIO}/src`, /\.worker\.ts$/)).filter((p) => !p.endsWith(APART));
  const manifest = JSON.parse(await readFile(`${STUDIO}/app.json`, 'utf8')).expo;
  const { outputFiles, metafile } = await build({
    absWorkingDir: STUDIO,
    entryPoints: [
      { in: require.resolve('expo-router/entry-classic.js'), out: 'page' },
      ...workers.map((path) => ({ in: `src/${path}`, out: basename(path, '.worker.ts') })),
    ],
    outdir: folder,
    ...{ bundle: true, splitting: true, write: false, metafile: true, minify: true, legalComments: 'none' },
    ...{ format: 'esm', target: 'es2022', jsx: 'automatic', chunkNames: '[name]-[hash]' },
    alias: { '@': `${STUDIO}/src`, 'react-native': 'react-native-web' },
    // As Metro resolves for the web.
    resolveExtensions: ['.web.tsx', '.web.ts', '.web.js', '.tsx', '.ts', '.jsx', '.js', '.mjs', '.json'],
    mainFields: ['browser', 'module', 'main'],
    loader: { '.js': 'jsx', '.png': 'dataurl' },
    plugins: [inTheBrowser(listed)],
    define: {
      __DEV__: 'false',
      global: 'globalThis',
      'process.env': '{}',
      'process.env.NODE_ENV': '"production"',
      'process.env.EXPO_OS': '"web"',
      'process.env.APP_MANIFEST': JSON.stringify(JSON.stringify(manifest)),
    },
  });
  const hash = createHash('sha256');
  for (const { path, contents } of outputFiles) hash.update(basename(path)).update(contents);
  const name = hash.digest('hex').slice(0, 12);
  await mkdir(`${folder}/${name}`, { recursive: true });
  for (const { path, contents } of outputFiles)
    await writeFile(`${folder}/${name}/${basename(path)}`, contents);
  return { name, first: importedBy('page.js', metafile.outputs) };
}

/** The files that one begins with: itself, and what it imports at once. */
function importedBy(file, outputs) {
  const found = new Set();
  const follow = (path) => {
    if (found.has(path)) return;
    found.add(path);
    for (const { kind, path: next } of outputs[path].imports) if (kind === 'import-statement') follow(next);
  };
  follow(Object.keys(outputs).find((path) => basename(path) === file));
  return [...found].map((path) => basename(path));
}
