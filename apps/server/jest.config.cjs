module.exports = {
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.spec.ts'],
  transform: {
    '\\.(ts|js|mjs)$': [
      '@swc/jest',
      {
        jsc: { target: 'es2022', parser: { syntax: 'typescript', decorators: true }, transform: { legacyDecorator: true, useDefineForClassFields: false } },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!@zelpit/)'],
  globalSetup: '<rootDir>/src/testing/global-setup.ts',
  testTimeout: 20000,
};
