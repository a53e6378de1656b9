import js from '@eslint/js';
import { defineConfig, globalIgnores } from 'eslint/config';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default defineConfig(
  globalIgnores([
    '**/dist',
    '**/.types',
    '**/node_modules',
    '.lauta',
    'server/drizzle',
    'test-results',
    'playwright-report',
  ]),
  js.configs.recommended,
  tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
    },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        fetch: 'readonly',
        Buffer: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        AbortSignal: 'readonly',
        performance: 'readonly',
      },
    },
  },
  {
    // Clock, dice and ids are handed in.
    files: ['core/src/**/*.ts', 'vision/src/**/*.ts', 'sim/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The clock is handed in.' },
        { object: 'Math', property: 'random', message: 'Dice are handed in.' },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The clock is handed in.',
        },
      ],
    },
  },
  {
    // What is longer does more than one thing.
    files: ['{core,vision,words,sim,contract,server,web}/**/*.ts'],
    ignores: ['**/*.test.ts', 'server/test/**'],
    rules: { 'max-lines-per-function': ['error', { max: 70, IIFEs: true }] },
  },
  {
    // Kernels that go through one picture from end to end: their steps share dozens of values.
    files: [
      'vision/src/analyse/analyse.ts',
      'vision/src/find-board/placements.ts',
      'vision/src/find-card/findCodes.ts',
    ],
    rules: { 'max-lines-per-function': ['error', { max: 100, IIFEs: true }] },
  },
  {
    // A component is as long as what it draws.
    files: ['web/src/**/*.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 120, IIFEs: true }] },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    ignores: ['web/src/device/stored.ts', '**/*.test.{ts,tsx}'],
    rules: {
      'no-restricted-globals': [
        'error',
        { name: 'localStorage', message: 'A browser may refuse it: use device/stored.ts.' },
      ],
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
);
