import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['knex', 'better-sqlite3', 'workerpool'],
  devIndicators: false,
  poweredByHeader: false,
  // `npm run typecheck` checks everything, tests and scripts too; the build need not check a part of it again.
  typescript: { ignoreBuildErrors: true },
};

export default config;
