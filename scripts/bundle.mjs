/* Bundles what runs beside the pages: threads and the command line. Loading their sources one by one takes seconds. */
import { existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';

const to = 'dist';

// Parts of former builds are nobody's: their names say what was in them, so that they are never written over.
for (const file of existsSync(to) ? readdirSync(to) : [])
  if (/^(chunk|tasks)-[0-9A-Z]{8}\.mjs(\.map)?$/.test(file)) rmSync(path.join(to, file));

await build({
  entryPoints: {
    'threads-worker': 'src/server/threads/worker.ts',
    'recorder-thread': 'src/server/recording/recorder-thread.ts',
    'chunk-writer': 'src/server/recording/chunk-writer.ts',
    hp: 'src/cli/hp.ts',
  },
  outdir: to,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  packages: 'external',
  sourcemap: 'linked',
  logLevel: 'warning',
});
