import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['knex', 'better-sqlite3', 'workerpool'],
  // A page loads what it needs when it is first asked for: the first one must not wait for all the others.
  experimental: { preloadEntriesOnStart: false },
  // A browser gets the parts of it that are used; its bundle is all of it in one.
  turbopack: { resolveAlias: { 'ml-matrix': { browser: './node_modules/ml-matrix/src/index.js' } } },
  devIndicators: false,
  poweredByHeader: false,
  // `npm run typecheck` checks everything, tests and scripts too; the build need not check a part of it again.
  typescript: { ignoreBuildErrors: true },
};

export default config;
