module.exports = {
  displayName: 'studio',
  preset: 'jest-expo/web',
  rootDir: __dirname,
  setupFiles: ['<rootDir>/src/testing/setup.ts'],
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
};
