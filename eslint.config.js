import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

const only = (message, ...group) => ({ 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] });

// Days and clocks are the shop's: `days.ts` of the sheet package has them, in its zone.
const DAYS = [
  {
    selector: "CallExpression[callee.object.callee.property.name='toISOString']",
    message: 'a day is the day in a zone: dayIn, daysOn',
  },
  { selector: 'CallExpression[callee.property.name=/^toLocale(Date|Time)String$/]', message: 'dayWordsIn, clockIn, atIn' },
  { selector: "NewExpression[callee.property.name='DateTimeFormat']", message: 'dayWordsIn, clockIn, atIn' },
];

// Repositories and the query builder are the rule; what is written by hand stands in one file of its module, with the reason.
const SQL = /^\s*(SELECT\s[^]*\sFROM|INSERT INTO|UPDATE|DELETE FROM|WITH)\s/.source;
const BY_HAND = ['Literal[value=/%/]', 'TemplateElement[value.raw=/%/]'].map((selector) => ({
  selector: selector.replace('%', SQL),
  message: 'SQL by hand stands in the `*.sql.ts` of its module',
}));

export default ts.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.jubb/**', 'docs/**'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [ts.configs.strict, ts.configs.stylistic],
    rules: {
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      eqeqeq: 'error',
      'no-param-reassign': 'error',
      'no-nested-ternary': 'off',
      'no-restricted-syntax': ['error', ...DAYS],
    },
  },
  // What only the types tell: a promise that nobody waits for, a case that nobody thought of.
  {
    files: ['packages/*/src/**/*.ts', 'apps/*/src/**/*.{ts,tsx}', 'tests/**/*.ts'],
    ignores: ['packages/**/*.test.ts', 'packages/**/*.test-kit.ts', 'apps/server/src/**/*.test.ts'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    files: ['tools/**/*.mjs', '*.js'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        performance: 'readonly',
        setTimeout: 'readonly',
        Buffer: 'readonly',
        // Inside what the browser is asked to evaluate.
        document: 'readonly',
        window: 'readonly',
        requestAnimationFrame: 'readonly',
        PerformanceObserver: 'readonly',
      },
    },
  },
  // The core computes: no clock, no chance, no I/O, no framework.
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.test-kit.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ regex: '^[^.]', message: 'the core depends on nothing' }] }],
      'no-restricted-globals': [
        'error',
        'Date',
        'process',
        'console',
        'fetch',
        'setTimeout',
        'setInterval',
        'window',
        'document',
        'globalThis',
      ],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'the core has no chance in it' }],
    },
  },
  // core ← sheet ← book ← play and wire ← server, web
  ...[
    ['sheet', '@jubb/book*', '@jubb/play*', '@jubb/wire*'],
    ['book', '@jubb/play*', '@jubb/wire*'],
    ['play', '@jubb/wire*'],
    ['wire', '@jubb/play*'],
  ].map(([name, ...above]) => ({
    files: [`packages/${name}/src/**/*.ts`],
    ignores: ['**/*.test.ts', '**/*.test-kit.ts'],
    rules: only(
      'core ← sheet ← book ← play and wire ← server, web',
      ...above,
      '@jubb/server*',
      '@jubb/web*',
      '@nestjs/*',
      'react*',
      'node:*',
      '**/apps/**',
    ),
  })),
  {
    files: ['apps/server/src/**/*.ts'],
    rules: only('server and web do not know each other', '@jubb/web*', 'react*', '**/apps/web/**', '**/packages/**'),
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      ...only(
        'server and web do not know each other',
        '@jubb/server*',
        '@nestjs/*',
        'typeorm',
        'node:*',
        '**/apps/server/**',
        '**/packages/**',
      ),
    },
  },
  {
    files: ['apps/server/src/**/*.ts'],
    ignores: ['**/*.sql.ts', '**/database/**', '**/*.test.ts'],
    rules: { 'no-restricted-syntax': ['error', ...DAYS, ...BY_HAND] },
  },
  // A test may hold what code may not, and Nest needs classes for values.
  { files: ['apps/server/src/**/*.ts'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
);
