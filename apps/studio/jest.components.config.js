const web = require('./jest.config.js');
const native = require('jest-expo/ios/jest-preset');

/** Components as React Native draws them, with @testing-library/react-native: what they show, say, and do when touched. */
module.exports = {
  displayName: 'components',
  preset: 'jest-expo/ios',
  rootDir: __dirname,
  setupFiles: web.setupFiles,
  testMatch: ['<rootDir>/src/**/*.component.tsx'],
  // These are written in modules alone.
  transformIgnorePatterns: native.transformIgnorePatterns.map((p) =>
    p.replace('/node_modules/(?!(', '/node_modules/(?!(culori|gifenc|lucide-react-native|'),
  ),
  transform: {
    ...web.transform,
    '\\.mjs$': ['@swc/jest', { jsc: { target: 'es2022' }, module: { type: 'commonjs' } }],
  },
  moduleNameMapper: {
    ...web.moduleNameMapper,
    // React Native's own way to find modules does not find it.
    '^lru-cache$': require.resolve('lru-cache', { paths: [`${__dirname}/../../packages/core`] }),
  },
};
