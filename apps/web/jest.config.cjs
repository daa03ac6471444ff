module.exports = {
  preset: 'jest-preset-angular',
  testEnvironment: 'jest-preset-angular/environments/jest-jsdom-env',
  testMatch: ['<rootDir>/src/**/*.spec.ts'],
  setupFilesAfterEnv: ['<rootDir>/jest.setup.ts'],
  transform: { '^.+\\.(ts|mjs|js|html)$': ['jest-preset-angular', { tsconfig: '<rootDir>/tsconfig.spec.json', stringifyContentPathRegex: '\\.html$' }] },
  transformIgnorePatterns: ['/node_modules/(?!(.*\\.mjs$|@angular|@ng-bootstrap|@zelpit|d3-|internmap))'],
  moduleNameMapper: {
    '^@zelpit/core$': '<rootDir>/../../packages/core/src/index.ts',
    '^@zelpit/core/music-files$': '<rootDir>/../../packages/core/src/music-files.ts',
    '^@zelpit/core/([a-z-]+)$': '<rootDir>/../../packages/core/src/$1/index.ts',
    '^@zelpit/contract$': '<rootDir>/../../packages/contract/src/index.ts',
    '/sound-worker$': '<rootDir>/src/testing/sound-worker.stub.ts',
  },
};
