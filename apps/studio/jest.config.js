const { transformIgnorePatterns } = require('jest-expo/web/jest-preset');

module.exports = {
  displayName: 'studio',
  preset: 'jest-expo/web',
  rootDir: __dirname,
  setupFiles: ['<rootDir>/src/testing/setup.ts'],
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'],
  // culori is written in modules alone.
  transformIgnorePatterns: transformIgnorePatterns.map((p) => p.replace('(?!(', '(?!(culori|')),
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
};
