const { transformIgnorePatterns } = require('jest-expo/web/jest-preset');

module.exports = {
  displayName: 'studio',
  preset: 'jest-expo/web',
  rootDir: __dirname,
  setupFiles: ['<rootDir>/src/testing/setup.ts'],
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'],
  // These are written in modules alone.
  transformIgnorePatterns: transformIgnorePatterns.map((p) => p.replace('(?!(', '(?!(culori|gifenc|')),
  // The packages have nothing of React Native in them: as in their own tests, and far faster.
  transform: {
    '/packages/.+\\.ts$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
    ],
  },
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^fast-check$': '<rootDir>/../../scripts/test/fastCheck.cjs',
  },
};
