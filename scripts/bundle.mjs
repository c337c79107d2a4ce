/* Bundles what runs beside the pages: threads and the command line. Loading their sources one by one takes seconds. */
import { build } from 'esbuild';

await build({
  entryPoints: {
    'threads-worker': 'src/server/threads/worker.ts',
    'recorder-thread': 'src/server/recording/recorder-thread.ts',
    'chunk-writer': 'src/server/recording/chunk-writer.ts',
    hp: 'src/cli/hp.ts',
  },
  outdir: 'dist',
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
