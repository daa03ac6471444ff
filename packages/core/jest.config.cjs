module.exports = {
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.spec.ts'],
  transform: { '\\.(ts|js|mjs)$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } }] },
  transformIgnorePatterns: ['/node_modules/(?!@zelpit/)'],
};
