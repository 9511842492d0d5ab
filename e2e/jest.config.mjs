import { GLOBALS } from '../jest.config.mjs';

/** The real interface, in headless Chromium. Build the studio first: npm test does. */
export default {
  displayName: 'e2e',
  rootDir: '.',
  testEnvironment: 'node',
  testMatch: ['<rootDir>/**/*.test.ts'],
  // Timings never decide a test: this is for what hangs.
  testTimeout: 400_000,
  maxWorkers: 1,
  // Each file gets a process of its own: the server runs in it, and nothing is left from the file before.
  workerIdleMemoryLimit: '1MB',
  sandboxInjectedGlobals: GLOBALS,
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(culori|woff2-encoder|gifenc)/)'],
};
