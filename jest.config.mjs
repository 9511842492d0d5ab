/** Everything but the interface runs in Node; the studio's own code runs with jest-expo; the real interface in e2e. */
const node = (name, folder) => ({
  displayName: name,
  rootDir: folder,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(culori|d3-ease|woff2-encoder)/)'],
});

export default {
  // Timings never decide a test: this is for what hangs.
  testTimeout: 120_000,
  projects: [
    node('core', 'packages/core'),
    node('fonts', 'packages/fonts'),
    { ...node('pixels', 'packages/pixels'), globalSetup: '<rootDir>/compile.mjs' },
    node('templates', 'packages/templates'),
    node('node-host', 'packages/node-host'),
    node('server', 'apps/server'),
    '<rootDir>/apps/studio/jest.config.js',
  ],
};
