import eslint from '@eslint/js';
import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

const node = {
  process: 'readonly',
  console: 'readonly',
  URL: 'readonly',
  setTimeout: 'readonly',
  clearTimeout: 'readonly',
  fetch: 'readonly',
  performance: 'readonly',
  Buffer: 'readonly',
};

export default tseslint.config(
  {
    ignores: [
      'apps/web/generated/**',
      '**/node_modules/',
      '**/dist/',
      '**/.angular/',
      '.zelpit/',
      'bench/run.built.mjs',
      'e2e/test-results/',
      'e2e/playwright-report/',
    ],
  },
  eslint.configs.recommended,
  { files: ['**/*.mjs'], languageOptions: { globals: node } },
  { files: ['e2e/screenshots.mjs'], languageOptions: { globals: { document: 'readonly' } } },
  { files: ['**/*.cjs'], languageOptions: { globals: { module: 'readonly', require: 'readonly', __dirname: 'readonly' } } },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.recommended, ...tseslint.configs.stylistic],
    languageOptions: {
      parserOptions: {
        project: ['tsconfig.check.json', 'apps/web/tsconfig.lint.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // What only the types tell.
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      '@typescript-eslint/no-unsafe-argument': 'error',
      '@typescript-eslint/no-unsafe-assignment': 'error',
      '@typescript-eslint/no-unsafe-call': 'error',
      '@typescript-eslint/no-unsafe-member-access': 'error',
      '@typescript-eslint/no-unsafe-return': 'error',
      'no-undef': 'off',
      'no-nested-ternary': 'error',
      'no-console': ['error', { allow: ['error'] }],
      'no-param-reassign': 'error',
      'no-restricted-globals': ['error', { name: 'name', message: 'Probably a forgotten variable.' }],
      'max-lines-per-function': ['error', { max: 70, skipBlankLines: true, skipComments: true, IIFEs: true }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports', prefer: 'type-imports', disallowTypeAnnotations: false }],
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core draws no random number by itself: take the source as a parameter.' },
        { object: 'Date', property: 'now', message: 'The core reads no clock: take the time as a parameter.' },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: { '@angular-eslint/component-selector': ['error', { type: ['element', 'attribute'], prefix: 'zp', style: 'kebab-case' }] },
  },
  { files: ['apps/web/src/**/*.html'], extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility] },
  {
    files: ['**/*.spec.ts', '**/*.e2e.ts', '**/*.bench.ts', '**/migrations/*.ts'],
    rules: {
      'max-lines-per-function': 'off',
      '@typescript-eslint/no-explicit-any': 'off',
      // Bodies of answers are anything until a test has looked at them.
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      'no-nested-ternary': 'off',
      '@typescript-eslint/no-empty-function': 'off',
    },
  },
);
