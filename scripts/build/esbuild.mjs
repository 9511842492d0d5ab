/** Packages that stay where they are: they hold programs of this machine, or read files beside themselves. */
const STAY = ['sharp', '@napi-rs/canvas', 'harfbuzzjs', 'woff2-encoder', 'bullmq', 'tsx'];

/** Packages that are not of ES modules ask for Node's own by `require`. */
const WITH_REQUIRE =
  "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);";

/** How what runs in Node is bundled. @type {import('esbuild').BuildOptions} */
export const FOR_NODE = {
  ...{ bundle: true, format: 'esm', platform: 'node', target: 'node20' },
  external: STAY.flatMap((name) => [name, `${name}/*`]),
  banner: { js: WITH_REQUIRE },
};
