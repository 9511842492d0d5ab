import { fileURLToPath } from 'node:url';

/**
 * Test files run in a context of their own, in which what is global is found slowly. Loops over pixels and samples ask
 * for it often, so these are handed to each file.
 */
export const GLOBALS = [
  'Math',
  'Number',
  'Array',
  'Object',
  'Map',
  'Set',
  'Float32Array',
  'Float64Array',
  'Int32Array',
  'Uint8Array',
];

/** Properties are tried with the same values in each run. */
const SEEDED = fileURLToPath(new URL('scripts/test/fastCheck.cjs', import.meta.url));

/** Everything but the interface runs in Node; the studio's own code runs with jest-expo; the real interface in e2e. */
const node = (name, folder, sources = 'src') => ({
  displayName: name,
  rootDir: folder,
  testEnvironment: 'node',
  testMatch: [`<rootDir>/${sources}/**/*.test.ts`],
  sandboxInjectedGlobals: GLOBALS,
  moduleNameMapper: { '^fast-check$': SEEDED },
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(culori|d3-ease|woff2-encoder|gifenc)/)'],
});

export default {
  // Timings never decide a test: this is for what hangs.
  testTimeout: 120_000,
  projects: [
    node('core', 'packages/core'),
    node('fonts', 'packages/fonts'),
    node('pixels', 'packages/pixels'),
    node('templates', 'packages/templates'),
    node('node-host', 'packages/node-host'),
    node('server', 'apps/server'),
    node('scripts', 'scripts', 'test'),
    '<rootDir>/apps/studio/jest.config.js',
    '<rootDir>/apps/studio/jest.components.config.js',
  ],
};
