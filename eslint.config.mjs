import next from 'eslint-config-next/core-web-vitals';
import ts from 'eslint-config-next/typescript';
import prettier from 'eslint-config-prettier';

/** Imports point down: app → ui, server → data → core. */
const layer = (files, forbidden, message) => ({
  files,
  ignores: ['**/*.test.ts', '**/*.test.tsx'],
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group: forbidden, message }] }] },
});

const config = [
  ...next,
  ...ts,
  prettier,
  // Where nothing is drawn no rule of drawing is looked for: that alone is a quarter of the time.
  {
    files: ['src/core/**', 'src/data/**', 'src/server/**', 'src/cli/**', 'src/workers/**', 'scripts/**'],
    rules: { 'react-hooks/static-components': 'off' },
  },
  // What stands after a return is never made, however it looks.
  { rules: { 'no-unreachable': 'error' } },
  // Families and toolboxes add their own words to these by augmenting them.
  { rules: { '@typescript-eslint/no-empty-object-type': ['error', { allowWithName: 'Words$' }] } },
  layer(
    ['src/core/**'],
    [
      '@/app/*',
      '@/ui/*',
      '@/server/*',
      '@/data/*',
      '@/cli/*',
      '**/ui/*',
      '**/server/*',
      '**/data/*',
      'react',
      'react-dom',
      'next',
      'next/*',
      'knex',
      'node:*',
      'fs',
      'path',
      'better-sqlite3',
      '@mui/*',
      'echarts',
    ],
    'The core is pure: it imports nothing above it, no interface, no database and no Node.js.',
  ),
  layer(
    ['src/charts/**'],
    ['@/app/*', '@/ui/*', '@/server/*', '@/data/*', 'react', 'react-dom', 'next', 'next/*', 'knex', 'node:*', '@mui/*'],
    'Pictures stand on the core only: screens and paper draw them alike.',
  ),
  layer(
    ['src/data/**'],
    ['@/app/*', '@/ui/*', '@/server/*', '@/charts/*', 'react', 'next/*'],
    'Data stands on the core only.',
  ),
  layer(['src/server/**'], ['@/app/*', '@/ui/*'], 'The server stands on data and core.'),
  {
    ...layer(['src/app/api/**'], ['@/data/*', 'knex', 'node:*'], 'A route asks a use case; only use cases touch data.'),
    ignores: ['**/*.test.ts'],
  },
  layer(['src/app/**'], ['@/data/*', 'knex', 'better-sqlite3'], 'Pages and routes ask use cases; these touch data.'),
  layer(
    ['src/ui/**'],
    ['@/app/*', '@/cli/*', 'knex', 'node:*'],
    'Screens reach the server by its routes; its types may be imported.',
  ),
  {
    files: ['src/core/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'setTimeout', 'performance'],
    },
  },
  {
    ignores: [
      '.next/**',
      'dist/**',
      'node_modules/**',
      'next-env.d.ts',
      'data/**',
      'test-results/**',
      'playwright-report/**',
    ],
  },
];

export default config;
